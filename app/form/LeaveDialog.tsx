import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useEffect, useEffectEvent, useState, useSyncExternalStore } from 'react';
import { useBlocker } from 'react-router';
import { isAllOnItsWay, onAsked, onHeld, wouldBeLost } from './unsaved';

/** A room shows one of its views at a time, and one mixing day: going to another leaves what is typed too. */
const partOf = (search: string) => {
  const asked = new URLSearchParams(search);
  return ['view', 'day', 'bottle', 'game'].map((name) => asked.get(name)).join();
};

/** Asks whoever goes on while something isn’t kept; one for the whole app. */
export function LeaveDialog() {
  const blocker = useBlocker(
    ({ currentLocation: here, nextLocation: next }) =>
      wouldBeLost() !== null &&
      (here.pathname !== next.pathname || partOf(here.search) !== partOf(next.search)),
  );
  const [part, setPart] = useState<{ go: () => void } | null>(null);
  useEffect(() => onAsked((go) => setPart({ go })), []);
  const lost = useSyncExternalStore(onHeld, wouldBeLost, () => null);
  const waits = useSyncExternalStore(onHeld, isAllOnItsWay, () => false);
  const isLeaving = blocker.state === 'blocked' || part !== null;
  const stay = () => {
    blocker.reset?.();
    setPart(null);
  };
  const leave = () => {
    blocker.proceed?.();
    part?.go();
    setPart(null);
  };
  // Kept meanwhile: there is nothing left to ask about.
  if (isLeaving && lost === null) return <GoOn go={leave} />;
  return (
    <Dialog open={isLeaving && !waits} onClose={stay}>
      <DialogTitle>Not saved yet</DialogTitle>
      <DialogContent>{lost ?? 'What you typed here'} would be lost.</DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={leave}>
          Leave without saving
        </Button>
        <Button variant="contained" onClick={stay}>
          Stay
        </Button>
      </DialogActions>
    </Dialog>
  );
}

/** Goes on as soon as it is drawn. */
function GoOn({ go }: { go: () => void }) {
  const now = useEffectEvent(go);
  useEffect(() => now(), []);
  return null;
}
