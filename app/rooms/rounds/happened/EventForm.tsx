import Button from '@mui/material/Button';
import InputAdornment from '@mui/material/InputAdornment';
import TextField from '@mui/material/TextField';
import dayjs from 'dayjs';
import { useState } from 'react';
import { Link } from 'react-router';
import { freePosition } from '~core/design/freePosition';
import { nextCode } from '~core/log/extraUnits';
import type { TrialState } from '~core/log/state';
import { type Happening, happeningNames, happenings } from '~core/model/happening';
import type { TreatmentId, UnitId } from '~core/model/ids';
import { numberIn } from '~core/quantity/number';
import { plural } from '~core/quantity/format';
import { relativeDay, shortDate, todayDate } from '../../../ui/clock';
import { LeaveGuard } from '../../../form/UnsavedGuard';
import { useSend } from '../../../form/usePost';
import { DayField, TimeField } from '../../../ui/day/DayField';
import { UNFINISHED, isDay } from '../../../ui/day/whole';
import { PickOne } from '../../../ui/PickOne';
import type { Fault } from './TellApart';

type Kind = Happening | 'death' | 'replacement' | 'mixedUp' | 'split' | 'extraUnit' | 'work';

const kinds: [Kind, string][] = [
  ...happeningNames.map((k): [Kind, string] => [k, happenings[k].name]),
  ['death', 'It died'],
  ['replacement', 'Replaced from the spares'],
  ['mixedUp', 'Labels lost: each is one of these'],
  ['extraUnit', 'One unit more than planned'],
  ['split', 'Split at transplanting: each goes on in several vessels'],
  ['work', 'Work done, in minutes'],
];

const isHappening = (kind: Kind): kind is Happening => kind in happenings;

interface Props {
  state: TrialState;
  /** units it happened to; none: all of the trial */
  chosen: ReadonlySet<UnitId>;
  onKept: () => void;
}

/** Writes down what happened, and says what a fair reviewer does about it. */
export function EventForm({ state, chosen, onKept }: Props) {
  const { plan } = state;
  const send = useSend();
  const [busy, setBusy] = useState(false);
  const today = todayDate();
  const [kind, setKind] = useState<Kind>('missedWatering');
  const [text, setText] = useState('');
  const [into, setInto] = useState('');
  const [minutes, setMinutes] = useState('');
  const [treatmentId, setTreatmentId] = useState<TreatmentId | ''>('');
  const [date, setDate] = useState(today);
  const [time, setTime] = useState('');
  const [fault, setFault] = useState<Fault | null>(null);
  const shares = plan.treatments.map((t) => {
    const units = plan.units.filter((u) => u.treatmentId === t.id);
    return units.length === 0 ? 0 : units.filter((u) => chosen.has(u.id)).length / units.length;
  });
  const alike = chosen.size === 0 || Math.max(...shares) - Math.min(...shares) < 1e-9;
  const keep = async () => {
    const unitIds = [...chosen];
    if (kind === 'replacement' && unitIds.length === 0)
      return setFault({ at: 'units', text: 'Press what was replaced on the plan.' });
    if (kind === 'death' && unitIds.length === 0)
      return setFault({ at: 'units', text: 'Press what died on the plan.' });
    if (kind === 'mixedUp' && unitIds.length < 2)
      return setFault({ at: 'units', text: 'Press all that can be each other: two or more.' });
    const vessels = /^\d{1,3}$/.test(into.trim()) ? Number(into) : 0;
    if (kind === 'extraUnit' && treatmentId === '')
      return setFault({ at: 'treatment', text: 'Of which contender?' });
    if (kind === 'split' && unitIds.length === 0)
      return setFault({ at: 'units', text: 'Press what was split on the plan.' });
    if (kind === 'split' && (vessels < 2 || vessels > 100))
      return setFault({ at: 'into', text: 'A whole number from 2 to 100.' });
    if (isHappening(kind) && text.trim() === '')
      return setFault({ at: 'text', text: 'Write down in a few words what happened.' });
    const took = numberIn(minutes.trim()) ?? NaN;
    if (kind === 'work' && text.trim() === '') return setFault({ at: 'text', text: 'What was done?' });
    // What the log would refuse is said here, before the words are cleared.
    if (kind === 'work' && text.trim().length > 200)
      return setFault({ at: 'text', text: 'At most 200 letters: what was done, in a few words.' });
    if (kind === 'work' && !(took > 0 && took <= 1440))
      return setFault({ at: 'minutes', text: 'Minutes, above 0 and at most 1,440.' });
    if (!isDay(date)) return setFault({ at: 'date', text: 'A whole day.' });
    if (time === UNFINISHED) return setFault({ at: 'time', text: 'Hours and minutes, or neither.' });
    if (date > today) return setFault({ at: 'date', text: 'That day is still to come.' });
    if (date < dayjs(plan.startDate).subtract(30, 'day').format('YYYY-MM-DD'))
      return setFault({ at: 'date', text: `The trial began on ${shortDate(plan.startDate)}.` });
    const when = date === today && time === '' ? {} : { when: { date, time: time || '12:00' } };
    const words = text.trim();
    const sent = (): object => {
      switch (kind) {
        case 'replacement':
          return { bodies: unitIds.map((unitId) => ({ kind, unitId, sample: null, reason: words })) };
        case 'death':
          return { bodies: unitIds.map((unitId) => ({ kind, unitId, sample: null, cause: words })) };
        case 'extraUnit':
          return { extraUnit: { treatmentId, reason: words } };
        case 'split':
          return { bodies: unitIds.map((unitId) => ({ kind, unitId, into: vessels, reason: words })) };
        case 'work':
          return { body: { kind, task: words, minutes: took, unitIds } };
        case 'mixedUp':
          return { body: { kind, unitIds, reason: words } };
        default:
          return { body: { kind: 'deviation', unitIds, what: kind, text } };
      }
    };
    setFault(null);
    setBusy(true);
    const isKept = await send({ ...sent(), ...when });
    setBusy(false);
    // What wasn't kept stays here.
    if (!isKept) return;
    setText('');
    setMinutes('');
    onKept();
  };
  return (
    <aside className="side stack" aria-label="What happened">
      <h2>Write it down</h2>
      <LeaveGuard unsaved={text.trim() !== '' || minutes.trim() !== ''} />
      <PickOne label="What happened" value={kind} options={kinds} onPick={setKind} />
      <TextField
        label={kind === 'work' ? 'What was done' : 'In a few words'}
        value={text}
        onChange={(e) => setText(e.target.value)}
        multiline
        minRows={2}
        error={fault?.at === 'text'}
        helperText={fault?.at === 'text' ? fault.text : undefined}
      />
      <DayField
        label="On"
        value={date}
        onChange={setDate}
        error={fault?.at === 'date'}
        helperText={
          fault?.at === 'date' ? fault.text : date === today || !isDay(date) ? '' : relativeDay(date, today)
        }
      />
      <TimeField
        label="At"
        value={time}
        onChange={setTime}
        error={fault?.at === 'time'}
        helperText={fault?.at === 'time' ? fault.text : ''}
      />
      {kind === 'extraUnit' && (
        <>
          <PickOne<TreatmentId | ''>
            label="Of"
            value={treatmentId}
            options={plan.treatments.map((t) => [t.id, t.name] as const)}
            onPick={setTreatmentId}
          />
          {fault?.at === 'treatment' && (
            <p role="alert" className="small" style={{ color: 'var(--porphyry)' }}>
              {fault.text}
            </p>
          )}
          <p className="note open">
            {nextCode(plan)}{' '}
            {freePosition(state) === null
              ? 'stands beside: no position is free on the plan.'
              : 'takes the next free position.'}{' '}
            It wasn’t drawn by lot: it is walked and measured like the others, and left out of the findings,
            where it can be taken in to see.
          </p>
        </>
      )}
      {kind === 'split' && (
        <TextField
          label="Into how many"
          value={into}
          onChange={(e) => setInto(e.target.value)}
          error={fault?.at === 'into'}
          helperText={fault?.at === 'into' ? fault.text : undefined}
          slotProps={{ htmlInput: { inputMode: 'numeric' } }}
        />
      )}
      {kind === 'work' && (
        <>
          <TextField
            label="It took"
            value={minutes}
            onChange={(e) => setMinutes(e.target.value)}
            error={fault?.at === 'minutes'}
            helperText={
              fault?.at === 'minutes'
                ? fault.text
                : chosen.size === 0
                  ? `Shared by all ${plan.units.length} ${plural(plan.unitNoun)}.`
                  : `Shared by the ${chosen.size} chosen.`
            }
            slotProps={{
              htmlInput: { inputMode: 'decimal' },
              input: { endAdornment: <InputAdornment position="end">min</InputAdornment> },
            }}
          />
          <p className="small quiet">
            What an hour is worth, and whether it counts, is said in{' '}
            <Link to={`/trial/${plan.id}/verdict?view=cost`}>Verdict, Cost</Link>.
          </p>
        </>
      )}
      {isHappening(kind) && (
        <p className={`note ${alike ? 'open' : 'bad'}`}>
          {alike ? happenings[kind].alike : happenings[kind].apart}
        </p>
      )}
      {kind === 'replacement' && (
        <p className="note open">
          The same unit goes on with a new plant, dated; {plan.spares}{' '}
          {plan.spares === 1 ? 'spare was' : 'spares were'} planned. The review says so.
        </p>
      )}
      {kind === 'split' && (
        <p className="note open">
          It stays one unit: measured and weighed as one, all its vessels together. Labels are printed for
          each vessel, with the unit’s code.
        </p>
      )}
      {kind === 'doseChanged' && (
        <p className="small">
          With the new dose, so that mixing and cost go by it:{' '}
          <Link to={`/trial/${plan.id}/mixing?view=programme`}>Mixing, Programme</Link>.
        </p>
      )}
      {kind === 'mixedUp' && (
        <p className="note open">
          Values go on under the positions they stand at. Until they are told apart, findings leave them out
          and say so.
        </p>
      )}
      {fault?.at === 'units' && (
        <p role="alert" className="small" style={{ color: 'var(--porphyry)' }}>
          {fault.text}
        </p>
      )}
      <Button variant="contained" onClick={() => void keep()} disabled={busy}>
        Write it down
      </Button>
    </aside>
  );
}
