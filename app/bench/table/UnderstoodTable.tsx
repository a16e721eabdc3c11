import { sentenceCase } from '~core/quantity/format';
import { doubtsOf } from '~core/table/doubts';
import type { Grid } from '~core/table/sheet';
import { sheetOf } from '~core/table/sheet';
import type { Named, Role, Understood } from '~core/table/understood';
import { TesseraName } from '../../ui/Tessera';

interface Props {
  grid: Grid;
  /** null: it wasn't understood, and headings are to be named */
  understood: Understood | null;
  named: Named;
  onNamed: (named: Named) => void;
}

/** Lines shown; the rest are counted. */
const MOST = 60;

const called: Record<Role, string> = {
  treatment: 'contender',
  response: 'figure',
  unit: 'unit',
  block: 'block',
  crop: 'crop',
  sample: 'sample',
  day: 'day',
  k: 'so many',
  n: 'of so many',
  words: 'words',
  ignored: 'left out',
};
const choices = ['treatment', 'response', 'unit', 'block'] as const;

/** The table as it stands, each column with what it was taken for; another use is chosen at its heading. */
export function UnderstoodTable({ grid, understood, named, onNamed }: Props) {
  const read = sheetOf(grid);
  if (!read.ok) return null;
  const sheet = read.value;
  const byName = (heading: string) =>
    choices.find((c) => named[c] === heading) as (typeof choices)[number] | undefined;
  const set = (heading: string, to: string) => {
    const next: Named = { ...named };
    for (const c of choices) if (next[c] === heading) delete next[c];
    if (to !== '') next[to as (typeof choices)[number]] = heading;
    onNamed(next);
  };
  const lines = [
    ...sheet.rows.map((r) => ({ ...r, why: '' })),
    ...sheet.left.map((l) => ({ row: l.row, why: l.why, cells: [...(grid[l.row - 1] ?? [])] })),
  ].sort((a, b) => a.row - b.row);
  const at = understood?.columns.findIndex((c) => c.role === 'treatment') ?? -1;
  return (
    <div className="scroll-x" tabIndex={0} role="group" aria-label="The table as it was understood">
      <table className="ledger understood">
        <thead>
          <tr>
            {sheet.heading.map((h, i) => {
              const column = understood?.columns[i];
              return (
                <th key={i} scope="col">
                  <select
                    aria-label={`What ${h || 'the first column'} is`}
                    value={byName(h) ?? ''}
                    onChange={(e) => set(h, e.target.value)}
                  >
                    <option value="">
                      {column ? `${called[column.role]}${column.unit ? `, ${column.unit}` : ''}` : 'not told'}
                    </option>
                    {choices.map((c) => (
                      <option key={c} value={c}>
                        {called[c]}, as I say
                      </option>
                    ))}
                  </select>
                  <div>{h}</div>
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {lines.slice(0, MOST).map(({ row, why, cells }) =>
            why === '' ? (
              <tr key={row}>
                {cells.map((c, i) => (
                  <td key={i} className={i === at ? undefined : 'num'}>
                    {i === at && understood ? (
                      <TesseraName index={understood.treatments.indexOf(c)} name={c} size={16} />
                    ) : (
                      c
                    )}
                  </td>
                ))}
              </tr>
            ) : (
              <tr key={row} className="left-line">
                <td colSpan={sheet.heading.length} className="small quiet">
                  {cells.filter(Boolean).join(' ')} — row {row} is left: {why}
                </td>
              </tr>
            ),
          )}
        </tbody>
      </table>
      {lines.length > MOST && (
        <p className="small quiet">… and {lines.length - MOST} lines more, read alike.</p>
      )}
      {understood &&
        doubtsOf(understood).map((d) => (
          <p key={d.text} className="small warning">
            {sentenceCase(d.text)} It counts as it stands; put it right in the table, or leave it.
          </p>
        ))}
      {understood && understood.treatments.length > 1 && (
        <p className="small">
          <label>
            Held against{' '}
            <select
              value={understood.control ?? ''}
              onChange={(e) => {
                const { control: _, ...rest } = named;
                onNamed(e.target.value === '' ? rest : { ...rest, control: e.target.value });
              }}
            >
              {understood.control === null && <option value="">each other</option>}
              {understood.treatments.map((t) => (
                <option key={t} value={t}>
                  {t}
                </option>
              ))}
            </select>
          </label>
        </p>
      )}
    </div>
  );
}
