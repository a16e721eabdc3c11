import Button from '@mui/material/Button';
import { LeaveGuard } from './UnsavedGuard';
import type { Refused } from './useKept';
import './NotKept.css';

/** Where what is shown isn’t kept: why, and what can be done. */
export function NotKept({ refused }: { refused: Refused | null }) {
  return (
    <>
      <LeaveGuard unsaved={refused !== null} what="What you changed here" />
      <NotKeptNote refused={refused} />
    </>
  );
}

/** As `NotKept`, where the page has a guard of its own. */
export function NotKeptNote({ refused }: { refused: Refused | null }) {
  if (!refused) return null;
  const { because, again, drop } = refused;
  return (
    <div className="note bad not-kept no-print" role="status">
      <span>
        {because === 'store'
          ? 'What you changed here isn’t kept.'
          : 'Another tab changed the same to something else; what stands here is yours, and isn’t kept.'}
      </span>
      <Button size="small" color="secondary" onClick={again}>
        {because === 'store' ? 'Keep it now' : 'Keep mine'}
      </Button>
      <Button size="small" color="inherit" onClick={drop}>
        {because === 'store' ? 'Drop it' : 'Take theirs'}
      </Button>
    </div>
  );
}
