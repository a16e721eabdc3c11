import Button from '@mui/material/Button';
import { useState } from 'react';
import type { RoundProgress } from '~core/schedule/rounds';
import { usePost, useSend } from '../../form/usePost';
import { z } from 'zod';
import { AskDialog } from '../../form/AskDialog';

/** A round that is past and not whole: nothing more comes of it, and why; or it goes on after all. */
export function CloseRound({ progress: { round, status, closed } }: { progress: RoundProgress }) {
  const post = usePost();
  const send = useSend();
  const [asking, setAsking] = useState(false);
  if (closed)
    return (
      <p className="small quiet">
        Nothing more comes of it: {closed.reason}{' '}
        <Button size="small" color="secondary" onClick={() => post({ reopen: closed.entryId })}>
          Open it again
        </Button>
      </p>
    );
  if (status !== 'overdue') return null;
  return (
    <p className="small" style={{ margin: '0 0 0.6rem' }}>
      <Button size="small" color="secondary" variant="outlined" onClick={() => setAsking(true)}>
        Nothing more comes of this round …
      </Button>
      {asking && (
        <AskDialog
          title={`${round.name}, day ${round.day}: close it`}
          label="Why"
          hint="It goes into the log; what was measured stays."
          doLabel="Close the round"
          of={z.string().trim().min(1, 'Say why: missed, away, the plants were gone.')}
          onKeep={(reason) => send({ close: { roundId: round.id, reason } })}
          onClose={() => setAsking(false)}
        />
      )}
    </p>
  );
}
