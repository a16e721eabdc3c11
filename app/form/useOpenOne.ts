import { useState } from 'react';

/**
 * One line of a list is open at a time, so that all of them stay in sight; after saving, the first one that something is wrong
 * with.
 *
 * @param faults of the form, at the list
 * @param busy whether it is being saved
 */
export function useOpenOne(faults: unknown, busy: boolean) {
  const [open, setOpen] = useState<number | null>(null);
  /** saved, and what is wrong of it wasn't shown yet */
  const [sent, setSent] = useState(false);
  const wrong = Array.isArray(faults) ? faults.findIndex(Boolean) : -1;
  if (busy && !sent) setSent(true);
  // It is opened once: whoever puts it right stays where it stands.
  if (sent && !busy && wrong >= 0) {
    setSent(false);
    setOpen(wrong);
  }
  return [open, setOpen] as const;
}
