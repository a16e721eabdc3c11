import Button from '@mui/material/Button';
import { TwoAnswers } from '../../ui/TwoAnswers';
import { shortTime } from '../../ui/clock';

interface WaitingLine {
  id: string;
  sha256: string;
  what: string;
  text: string;
  by: string;
  at: string;
  from: string;
  why: string;
}

interface Props {
  lines: readonly WaitingLine[];
  onSettle: (line: WaitingLine, as: 'kept' | 'taken') => void;
  onAll: (as: 'kept' | 'taken') => void;
}

/** Lines that a file or another device brought and may not bring unasked. */
export function WaitingList({ lines, onSettle, onAll }: Props) {
  if (lines.length === 0) return null;
  return (
    <section className="note open" aria-labelledby="waiting">
      <h2 id="waiting">
        {lines.length === 1 ? 'One line waits for your word' : `${lines.length} lines wait for your word`}
      </h2>
      <p className="small">
        {lines.length === 1
          ? 'It came from outside and decides more than what brought it may. Nothing follows from it until you take it.'
          : 'They came from outside and decide more than what brought them may. Nothing follows from them until you take them.'}
      </p>
      {lines.length > 1 && (
        <p className="inline-row">
          <Button size="small" color="secondary" onClick={() => onAll('taken')}>
            Take all of them
          </Button>
          <Button size="small" color="inherit" onClick={() => onAll('kept')}>
            Leave all out
          </Button>
        </p>
      )}
      <table className="ledger as-rows">
        <tbody>
          {lines.map((l) => (
            <tr key={`${l.id}${l.sha256}`}>
              <td className="num small">{shortTime(l.at)}</td>
              <td>
                <strong>{l.what}</strong> {l.text}
                <div className="small quiet">
                  {[l.by, l.from && `brought by ${l.from}`].filter(Boolean).join(', ')}. {l.why}
                </div>
              </td>
              <TwoAnswers
                yes="Take it"
                no="Leave it out"
                onYes={() => onSettle(l, 'taken')}
                onNo={() => onSettle(l, 'kept')}
              />
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
