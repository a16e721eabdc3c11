import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useMemo, useState } from 'react';
import type { EntryBody } from '~core/log/entry';
import { MOST_PASTED, MOST_PASTED_TEXT, pastedRows } from '~core/log/pastedValues';
import { implausible } from '~core/log/plausible';
import { type TrialState, observationsOf } from '~core/log/state';
import { type Round, type Trait, type Unit, kindOf } from '~core/model/plan';
import { formatCount } from '~core/quantity/format';
import { todayDate } from '../../bench/clock';
import { FileButton } from '../../ui/FileButton';
import { DayField } from '../../ui/day/DayField';
import { isDay } from '../../ui/day/whole';
import { DialogButtons } from '../../ui/DialogButtons';
import { EntryDialog } from '../../ui/EntryDialog';

interface Props {
  state: TrialState;
  round: Round;
  trait: Trait;
  /** in walking order */
  walk: readonly Unit[];
  /** the day of the sitting; left out: today */
  on?: string | undefined;
  onClose: () => void;
  /** writes all of them down, or none. @returns whether they are kept */
  onKeep: (bodies: EntryBody[], when: { date: string; time: string } | undefined) => Promise<boolean>;
}

/** Values from a spreadsheet or a file: looked through line by line before anything is kept. */
export function PasteDialog({ state, round, trait, walk, on, onClose, onKeep }: Props) {
  const today = todayDate();
  const [text, setText] = useState('');
  const [date, setDate] = useState(on ?? today);
  const [refusal, setRefusal] = useState('');
  const [busy, setBusy] = useState(false);
  const tooLong =
    text.length > MOST_PASTED_TEXT || text.split('\n', MOST_PASTED + 1).length > MOST_PASTED
      ? `More than ${formatCount(MOST_PASTED)} lines or ${formatCount(MOST_PASTED_TEXT)} letters: is it the right column?`
      : '';
  const rows = useMemo(
    () => (tooLong ? [] : pastedRows(text, walk, (value) => kindOf(trait).fault(value, trait))),
    [tooLong, text, walk, trait],
  );
  const taken = rows.filter((r) => r.why === null);
  const doubtOf = (r: (typeof rows)[number]) => {
    if (r.why !== null || !r.unit || r.value === null) return null;
    const standing = observationsOf(state, r.unit.id, trait.id, round.id).at(-1);
    if (standing && standing.value !== r.value) return `replaces ${standing.value}`;
    return implausible(state, r.unit.id, trait, r.value, round.id);
  };
  const late = !isDay(date) || date > today;
  const keep = async () => {
    if (taken.length === 0 || late || tooLong !== '') return;
    setBusy(true);
    const kept = await onKeep(
      taken.map((r) => ({
        ...({ kind: 'measurement', unitId: r.unit!.id, traitId: trait.id, roundId: round.id } as const),
        ...{ sample: null, value: r.value! },
      })),
      date === today ? undefined : { date, time: '12:00' },
    );
    setBusy(false);
    // What wasn't kept stays here.
    if (kept) onClose();
  };
  const take = async (file: File | undefined) => {
    if (file && file.size > MOST_PASTED_TEXT)
      return setRefusal(`${file.name} has ${formatCount(file.size)} bytes, more than a column has.`);
    setRefusal('');
    setText((await file?.text()) ?? '');
  };
  return (
    <EntryDialog onClose={onClose} maxWidth="sm">
      <DialogTitle>
        {trait.name}, {round.name}: a column
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
            helperText={tooLong || refusal || 'in the order of the walk, or each with its code: PAR-07; 11.2'}
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
            <DayField
              label="Measured on"
              value={date}
              onChange={setDate}
              error={late}
              helperText={!isDay(date) ? 'A whole day.' : late ? 'That day is still to come.' : ''}
              fullWidth={false}
            />
          </div>
          {rows.length > 0 && (
            <table className="ledger">
              <tbody>
                {rows.map((r, i) => (
                  <tr key={i}>
                    <td className="num small" style={{ whiteSpace: 'nowrap' }}>
                      {r.unit?.code ?? '–'}
                    </td>
                    <td className="n">{r.why === null ? `${r.value} ${trait.unit}` : r.text || '–'}</td>
                    <td
                      className="small"
                      style={{ color: r.why === null ? 'var(--ochre-text)' : 'var(--porphyry)' }}
                    >
                      {r.why ?? doubtOf(r) ?? ''}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </div>
      </DialogContent>
      <DialogButtons
        onCancel={onClose}
        label={
          taken.length === 0
            ? 'Nothing to keep yet'
            : `Keep ${taken.length} ${taken.length === 1 ? 'value' : 'values'}`
        }
        onDo={() => void keep()}
        busy={busy}
      />
    </EntryDialog>
  );
}
