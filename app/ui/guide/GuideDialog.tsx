import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import guide from '../../../docs/guide.md?raw';
import { type Run, headingOf, sectionOf } from './guideText';

const keys: [string, string][] = [
  ['0–9', 'Type a value into the pad (Rounds, Weigh-in)'],
  ['Enter', 'Keep the value and go to the next unit'],
  ['← ↑ → ↓', 'Walk the plan'],
  ['.', 'Something off: with the pad empty, note a deviation'],
  ['Space', 'Layout: lift a unit, put it down'],
  ['[  ]', 'Room before, room after'],
  ['Ctrl K', 'Go to a room, a unit, a trial, a product'],
  ['?', 'This page'],
];

function Said({ as, text }: Run) {
  if (as === 'strong') return <strong>{text}</strong>;
  if (as === 'em') return <em>{text}</em>;
  return as === 'code' ? <code>{text}</code> : text;
}

/** What the room in sight is for, how the trade does it, what its words mean; and the keys. */
export function GuideDialog({ path, onClose }: { path: string; onClose: () => void }) {
  const heading = headingOf(path);
  const section = sectionOf(guide, heading) ?? [];
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="guide">
      <DialogTitle id="guide">{heading}</DialogTitle>
      <DialogContent className="stack" tabIndex={0}>
        {section.map((runs, i) => (
          <p key={runs[0]!.text} className={i === 0 ? 'lead' : undefined}>
            {runs.map((run, k) => (
              <Said key={`${k} ${run.text}`} {...run} />
            ))}
          </p>
        ))}
        <h2>Keys</h2>
        <table className="ledger">
          <tbody>
            {keys.map(([key, what]) => (
              <tr key={key}>
                <td>
                  <kbd>{key}</kbd>
                </td>
                <td>{what}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
