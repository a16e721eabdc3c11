import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useMemo, useState } from 'react';
import type { EntryBody } from '~core/log/entry';
import { MOST_PASTED, MOST_PASTED_TEXT, type PastedColumn, pastedRows } from '~core/log/pasted';
import type { UnitId } from '~core/model/ids';
import type { Unit } from '~core/model/plan';
import { countOf, formatCount, listNames } from '~core/quantity/format';
import { DialogButtons } from '../ui/DialogButtons';
import { EntryDialog } from '../ui/EntryDialog';
import { FileButton } from '../ui/FileButton';
import { SittingChoice } from './SittingChoice';
import type { SittingInHand } from './useSitting';

/** A unit's pasted figures, by column. */
export type PastedValues = ReadonlyMap<number, number>;

/** What a pasted column or table is of. */
export interface Paste {
  title: string;
  columns: readonly PastedColumn[];
  /** a figure that is taken, as it is understood */
  say: (value: number, column: number) => string;
  /** what is odd about it: it is taken all the same */
  doubt: (unit: Unit, column: number, value: number) => string | null;
  /** why what a unit got can't be kept together; left out: all can */
  fault?: (values: PastedValues) => string | null;
  /** the lines of the log */
  bodies: (unit: Unit, values: PastedValues) => EntryBody[];
}

interface Props {
  paste: Paste;
  /** in walking order */
  units: readonly Unit[];
  sitting: SittingInHand;
  onClose: () => void;
  /** writes all of them down, or none. @returns whether they are kept */
  onKeep: (bodies: EntryBody[]) => Promise<boolean>;
}

/** Values from a spreadsheet or a file: looked through figure by figure before anything is kept. */
export function PasteDialog({ paste, units, sitting, onClose, onKeep }: Props) {
  const { columns } = paste;
  const [text, setText] = useState('');
  const [refusal, setRefusal] = useState('');
  const [busy, setBusy] = useState(false);
  const tooLong =
    text.length > MOST_PASTED_TEXT || text.split('\n', MOST_PASTED + 1).length > MOST_PASTED
      ? `More than ${formatCount(MOST_PASTED)} lines or ${formatCount(MOST_PASTED_TEXT)} letters: is it the right column?`
      : '';
  const rows = useMemo(
    () => (tooLong ? [] : pastedRows(text, units, columns)),
    [tooLong, text, units, columns],
  );
  const values = new Map<UnitId, { unit: Unit; of: Map<number, number> }>();
  for (const { unit, cells } of rows) {
    if (!unit) continue;
    const own = values.get(unit.id) ?? { unit, of: new Map<number, number>() };
    for (const c of cells) if (c.value !== null) own.of.set(c.column, c.value);
    if (own.of.size > 0) values.set(unit.id, own);
  }
  const faultOf = (unit: Unit | null) => {
    const own = unit && values.get(unit.id);
    return own ? (paste.fault?.(own.of) ?? null) : null;
  };
  const fitting = [...values.values()].filter(({ unit }) => faultOf(unit) === null);
  const count = fitting.reduce((n, { of }) => n + of.size, 0);
  const keep = async () => {
    if (count === 0 || sitting.fault) return;
    setBusy(true);
    const written = await onKeep(fitting.flatMap(({ unit, of }) => paste.bodies(unit, of)));
    setBusy(false);
    // What wasn't kept stays here.
    if (written) onClose();
  };
  const take = async (file: File | undefined) => {
    if (file && file.size > MOST_PASTED_TEXT)
      return setRefusal(`${file.name} has ${formatCount(file.size)} bytes, more than a column has.`);
    setRefusal('');
    setText((await file?.text()) ?? '');
  };
  const several = columns.length > 1;
  return (
    <EntryDialog onClose={onClose} maxWidth={columns.length > 3 ? 'md' : 'sm'}>
      <DialogTitle>
        {paste.title}: {several ? 'a table' : 'a column'}
      </DialogTitle>
      <DialogContent>
        <div className="stack" style={{ paddingTop: 8 }}>
          <TextField
            label="Values, a line each"
            multiline
            minRows={5}
            maxRows={10}
            autoFocus
            value={text}
            onChange={(e) => {
              setText(e.target.value);
              setRefusal('');
            }}
            error={tooLong !== '' || refusal !== ''}
            helperText={
              tooLong ||
              refusal ||
              (several
                ? `a line for each of the walk, or each with its code: ${units[0]?.code ?? ''}; then ${listNames(columns.map((c) => c.names[0]))}, in this order or under a heading`
                : `in the order of the walk, or each with its code: ${units[0]?.code ?? ''}; 11.2`)
            }
          />
          <div className="inline-row">
            <FileButton
              label="From a file"
              accept=".csv,.txt,.tsv,text/csv,text/plain"
              testId="values-file"
              variant="text"
              color="secondary"
              onFiles={([file]) => take(file)}
            />
            <SittingChoice sitting={sitting} />
          </div>
          {rows.length > 0 && (
            <div className="scroll-x">
              <table className="ledger">
                {several && (
                  <thead>
                    <tr>
                      <th>
                        <span className="sr-only">unit</span>
                      </th>
                      {columns.map((c) => (
                        <th className="n" key={c.names[0]}>
                          {c.names[0]}
                        </th>
                      ))}
                      <th>
                        <span className="sr-only">what is odd about it</span>
                      </th>
                    </tr>
                  </thead>
                )}
                <tbody>
                  {rows.map((r, i) => {
                    const doubts = r.cells.flatMap((c) => {
                      const why = c.value === null ? c.why : paste.doubt(r.unit!, c.column, c.value);
                      return why === null ? [] : [several ? `${columns[c.column]!.names[0]}: ${why}` : why];
                    });
                    const why = r.why ?? faultOf(r.unit);
                    const refused = why !== null || r.cells.every((c) => c.value === null);
                    return (
                      <tr key={i}>
                        <td className="num small" style={{ whiteSpace: 'nowrap' }}>
                          {r.unit?.code ?? '–'}
                        </td>
                        {columns.map((c, at) => {
                          const cell = r.cells.find((x) => x.column === at);
                          return (
                            <td className="n" key={c.names[0]}>
                              {cell?.value != null
                                ? paste.say(cell.value, at)
                                : (cell?.text ?? (at === 0 ? r.text : '')) || '–'}
                            </td>
                          );
                        })}
                        <td
                          className="small"
                          style={{ color: refused ? 'var(--porphyry)' : 'var(--ochre-text)' }}
                        >
                          {why ?? doubts.join('; ')}
                        </td>
                      </tr>
                    );
                  })}
                </tbody>
              </table>
            </div>
          )}
        </div>
      </DialogContent>
      <DialogButtons
        onCancel={onClose}
        label={count === 0 ? 'Nothing to keep yet' : `Keep ${countOf(count, 'value')}`}
        onDo={() => void keep()}
        busy={busy}
      />
    </EntryDialog>
  );
}
