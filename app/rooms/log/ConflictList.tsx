import { TwoAnswers } from '../../ui/TwoAnswers';

interface ShownConflict {
  id: string;
  sha256: string;
  own: string;
  other: string;
}

interface Props {
  conflicts: readonly ShownConflict[];
  onSettle: (conflict: ShownConflict, as: 'kept' | 'taken') => void;
}

/** Lines that another copy of the trial has otherwise: shown until the reviewer says which holds. */
export function ConflictList({ conflicts, onSettle }: Props) {
  if (conflicts.length === 0) return null;
  return (
    <section className="note bad" aria-labelledby="conflicts">
      <h2 id="conflicts">
        {conflicts.length === 1 ? 'One line says' : `${conflicts.length} lines say`} something else in another
        copy
      </h2>
      <p className="small">
        A file that was taken in has the same line with another content: one of the two was changed outside
        Palazzo. Nothing was overwritten; say which holds.
      </p>
      <table className="ledger">
        <thead>
          <tr>
            <th>recorded here</th>
            <th>in the other copy</th>
            <th>
              <span className="sr-only">decide</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {conflicts.map((c) => (
            <tr key={`${c.id}${c.sha256}`}>
              <td>{c.own}</td>
              <td>{c.other}</td>
              <TwoAnswers
                yes="Take the other"
                no="Keep what is here"
                onYes={() => onSettle(c, 'taken')}
                onNo={() => onSettle(c, 'kept')}
              />
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
