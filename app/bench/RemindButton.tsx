import Button from '@mui/material/Button';
import { useState } from 'react';
import { isReminding, startReminding, stopReminding } from './reminders';

/** Asks the browser to remind of acts with a time while Palazzo is open. */
export function RemindButton() {
  const [on, setOn] = useState(isReminding);
  const [refused, setRefused] = useState(false);
  if (typeof Notification === 'undefined') return null;
  const toggle = async () => {
    if (on) {
      stopReminding();
      return setOn(false);
    }
    const allowed = await startReminding();
    setOn(allowed);
    setRefused(!allowed);
  };
  return (
    <Button
      color="secondary"
      size="small"
      onClick={() => void toggle()}
      aria-pressed={on}
      title="While Palazzo is open in a tab: at the time of each act, and at eight of what the day asks for"
    >
      {refused ? 'Reminders are blocked by the browser' : on ? 'Reminders on' : 'Remind me'}
    </Button>
  );
}
