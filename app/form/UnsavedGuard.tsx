import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useLayoutEffect } from 'react';
import { useFormContext } from 'react-hook-form';
import { useBlocker } from 'react-router';

/** A room shows one of its views at a time: going to another leaves the form too. */
const viewOf = (search: string) => new URLSearchParams(search).get('view');

/**
 * Asks before what was typed is left behind; one on a page, inside its form.
 * @param also whether something beside the form isn't kept
 */
export function UnsavedGuard({ busy, also = false }: { busy: boolean; also?: boolean }) {
  const { isDirty } = useFormContext().formState;
  return <LeaveGuard unsaved={(isDirty && !busy) || also} />;
}

/** Asks before what isn't kept yet is left behind. @param what would be lost, as a sentence begins with it */
export function LeaveGuard({ unsaved, what = 'What you typed here' }: { unsaved: boolean; what?: string }) {
  const blocker = useBlocker(
    ({ currentLocation: here, nextLocation: next }) =>
      unsaved && (here.pathname !== next.pathname || viewOf(here.search) !== viewOf(next.search)),
  );
  // In the same frame as the page says “saved”: nobody is asked about what is kept.
  useLayoutEffect(() => {
    if (!unsaved) return;
    const onLeave = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener('beforeunload', onLeave);
    return () => window.removeEventListener('beforeunload', onLeave);
  }, [unsaved]);
  return (
    <Dialog open={blocker.state === 'blocked'} onClose={() => blocker.reset?.()}>
      <DialogTitle>Not saved yet</DialogTitle>
      <DialogContent>{what} would be lost.</DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={() => blocker.proceed?.()}>
          Leave without saving
        </Button>
        <Button variant="contained" onClick={() => blocker.reset?.()}>
          Stay
        </Button>
      </DialogActions>
    </Dialog>
  );
}
