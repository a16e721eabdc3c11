import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import { usePost } from '../form/usePost';
import { BIN_DAYS } from '../store/bin';
import type { BinRow } from '../store/db';
import { DialogButtons } from '../ui/DialogButtons';
import { shortTime } from '../ui/clock';

/** What was deleted, for as long as it can be brought back. */
export function Bin({ rows }: { rows: readonly BinRow[] }) {
  const post = usePost();
  const [asked, setAsked] = useState(false);
  return (
    <section className="section">
      <h2>Bin</h2>
      {rows.length === 0 ? (
        <p className="quiet">Nothing was deleted.</p>
      ) : (
        <>
          <p className="small quiet">
            Kept for {BIN_DAYS} days; then it is gone, with its pictures and readings.
          </p>
          <table className="ledger">
            <tbody>
              {rows.map((b) => (
                <tr key={b.id}>
                  <td>{b.title}</td>
                  <td className="quiet">{b.kind}</td>
                  <td className="num small">{shortTime(b.deletedAt)}</td>
                  <td className="n">
                    <Button
                      size="small"
                      color="secondary"
                      onClick={() => post({ intent: 'restore', id: b.id })}
                      aria-label={`Bring back ${b.title}`}
                    >
                      Bring back
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <Button size="small" color="inherit" onClick={() => setAsked(true)}>
            Empty the bin …
          </Button>
        </>
      )}
      {asked && (
        <Dialog open onClose={() => setAsked(false)}>
          <DialogTitle>Empty the bin?</DialogTitle>
          <DialogContent>
            {rows.length === 1 ? 'One thing is' : `${rows.length} things are`} gone for good then, with
            pictures and readings that no other trial names. It can’t be taken back.
          </DialogContent>
          <DialogButtons
            onCancel={() => setAsked(false)}
            label="Empty it for good"
            onDo={() => {
              post({ intent: 'empty' });
              setAsked(false);
            }}
          />
        </Dialog>
      )}
    </section>
  );
}
