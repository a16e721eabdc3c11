import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { type ReactNode, useState } from 'react';
import { walkOrder } from '~core/design/layOut';
import { dayPicks, gradesOf } from '~core/log/picks';
import type { TrialState } from '~core/log/state';
import { gradeUses } from '~core/model/grade';
import type { UnitId } from '~core/model/ids';
import type { Unit } from '~core/model/plan';
import { dayOfDate } from '~core/plan/days';
import { planIndex } from '~core/plan/planIndex';
import { numberIn } from '~core/quantity/number';
import { readQuantity } from '~core/quantity/quantity';
import { formatFigure, listNames, plural } from '~core/quantity/format';
import { livingUnits } from '~core/log/asked';
import { relativeDay, todayDate } from '../../bench/clock';
import { LeaveGuard } from '../../form/UnsavedGuard';
import { useSend } from '../../form/usePost';
import { InstrumentDrawer } from '../../instruments/InstrumentDrawer';
import { PlanView } from '../../ui/PlanView';
import { UnitFace, tileInk, unitNumber } from '../../ui/UnitTile';
import { UnitHeading } from '../UnitHeading';
import { Harvest } from './Harvest';
import { OtherTyped } from './OtherTyped';
import { type TypedByUnit, withTyped, withoutSent } from './typedByUnit';
import { DayField } from '../../ui/day/DayField';
import { isDay } from '../../ui/day/whole';

interface Typed {
  count: string;
  weight: string;
}
/** What is typed for one unit. */
interface Pick {
  byGrade: Readonly<Record<string, Typed>>;
  note: string;
  /** what weighed it last */
  device: string;
}
const nothing: Typed = { count: '', weight: '' };
const noPick: Pick = { byGrade: {}, note: '', device: '' };
const isBlank = ({ byGrade, note }: Pick) =>
  note.trim() === '' && Object.values(byGrade).every((t) => t.count.trim() === '' && t.weight.trim() === '');

/** A weight that was typed with its unit, in grams; nothing where it was in grams, or isn't one. */
function inGrams(weight: string): string | undefined {
  const grams = readQuantity(weight, 'mass');
  return grams.ok && numberIn(weight) === null ? `${formatFigure(grams.value, 1)} g` : undefined;
}

const faultOfCount = (text: string): string =>
  text.trim() === '' || /^\d{1,6}$/.test(text.trim()) ? '' : 'A whole number.';
function faultOfWeight({ count, weight }: Typed): string {
  if (weight.trim() === '') return '';
  const grams = readQuantity(weight, 'mass');
  if (!grams.ok) return grams.error;
  if (grams.value < 0) return 'Not below 0 g.';
  return count.trim() === '' || Number(count) === 0 ? 'How many are that?' : '';
}

/** Harvests over weeks: what was picked of each unit on a day, by grade; nothing ripe is an entry too. */
export function PicksView({ state, head }: { state: TrialState; head: ReactNode }) {
  const { plan } = state;
  const send = useSend();
  const [busy, setBusy] = useState(false);
  const grades = gradesOf(plan);
  const today = todayDate();
  const [date, setDate] = useState(today);
  const walk = walkOrder(livingUnits(state), state.positions);
  // While another day is being typed the field of today stands.
  const day = dayOfDate(plan.startDate, isDay(date) ? date : today);
  const picks = dayPicks(state);
  const of = (id: UnitId) => picks.get(id)?.find((p) => p.day === day);
  const open = walk.filter((u) => !of(u.id));
  const [chosen, setChosen] = useState<UnitId | null>(null);
  const unit = walk.find((u) => u.id === chosen) ?? open[0] ?? walk[0];
  const [all, setAll] = useState<TypedByUnit<Pick>>(new Map());
  const pick = (unit && all.get(unit.id)) ?? noPick;
  const { byGrade: typed, note, device } = pick;
  const [into, setInto] = useState('');
  const [tried, setTried] = useState(false);
  const [contradicted, setContradicted] = useState('');
  const some = !isBlank({ ...noPick, byGrade: typed });
  const faults = grades.map((g) => {
    const t = typed[g.name] ?? nothing;
    return { count: faultOfCount(t.count), weight: faultOfWeight(t) };
  });
  const wrongDay = !isDay(date)
    ? 'A whole day.'
    : date > today
      ? 'That day is still to come.'
      : day < 0
        ? 'Before the start.'
        : '';
  const lost = grades.some((g) => g.use === 'loss' && Number(typed[g.name]?.count ?? 0) > 0);
  const when = date === today ? {} : { when: { date, time: '12:00' } };
  const write = async (ids: readonly UnitId[], items: object[], note = '') => {
    const sent = pick;
    setContradicted('');
    setBusy(true);
    const kept = await send({
      bodies: ids.map((unitId) => ({ kind: 'pick', unitId, items, note, instrument: device || 'typed' })),
      ...when,
    });
    setBusy(false);
    // What wasn't kept stays here.
    if (!kept || ids.length > 1) return;
    setAll((now) => withoutSent(now, ids[0]!, sent));
    goOn(ids[0]!);
  };
  const goOn = (from: UnitId) => {
    const at = walk.findIndex((u) => u.id === from);
    const next = [...walk.slice(at + 1), ...walk.slice(0, at)].find((u) => !of(u.id));
    const to = next?.id ?? walk[(at + 1) % walk.length]?.id ?? null;
    // Who went to another one meanwhile stays there.
    setChosen((here) => (here === null || here === from ? to : here));
    setTried(false);
  };
  const keep = () => {
    setTried(true);
    if (!unit || wrongDay || !some || faults.some((f) => f.count || f.weight)) return;
    void write(
      [unit.id],
      grades.flatMap((g) => {
        const t = typed[g.name] ?? nothing;
        const count = Number(t.count.trim() || '0');
        const weight = readQuantity(t.weight, 'mass');
        return count === 0 ? [] : [{ grade: g.name, count, weightG: weight.ok ? weight.value : null }];
      }),
      note.trim(),
    );
  };
  const noneRipe = (units: readonly Unit[]) => {
    if (wrongDay) return setTried(true);
    const full = units.filter((u) => all.has(u.id));
    if (full.length > 0) {
      return setContradicted(
        `Something is typed for ${listNames(full.map((u) => u.code))}: keep it, or empty the fields.`,
      );
    }
    void write(
      units.map((u) => u.id),
      [],
    );
  };
  const index = unit ? planIndex(plan).treatmentOrder(unit.treatmentId) : 0;
  const here = unit && of(unit.id);
  const putPick = (change: Partial<Pick>) => {
    setContradicted('');
    if (unit) setAll(withTyped(all, unit.id, { ...pick, ...change }, isBlank));
  };
  const put = (grade: string, change: Partial<Typed>, device = '') =>
    putPick({ byGrade: { ...typed, [grade]: { ...nothing, ...typed[grade], ...change } }, device });
  return (
    <>
      <div className="with-side short">
        <div className="main">
          {head}
          <LeaveGuard unsaved={all.size > 0} what="The pick you typed" />
          <div className="inline-row" style={{ marginBottom: '0.8rem' }}>
            <DayField
              label="Picked on"
              value={date}
              onChange={setDate}
              error={wrongDay !== ''}
              helperText={wrongDay || (date === today ? '' : relativeDay(date, today))}
              fullWidth={false}
              sx={{ width: 200 }}
            />
            <span className="small quiet" role="status">
              {walk.length - open.length} of {walk.length} {plural(plan.unitNoun)} looked at on day {day}
            </span>
            {open.length > 0 && open.length < walk.length && (
              <Button size="small" color="secondary" disabled={busy} onClick={() => noneRipe(open)}>
                Nothing ripe on the other {open.length}
              </Button>
            )}
          </div>
          <PlanView
            plan={plan}
            positions={state.positions}
            renderPlace={(_, u) => {
              if (!u) return <span className="place" aria-hidden="true" />;
              const own = of(u.id);
              const dead = state.deaths.has(u.id);
              const pieces = own?.items.reduce((s, i) => s + i.count, 0);
              const value = dead ? 'died' : !own ? '–' : pieces === 0 ? 'none' : `${pieces}`;
              const i = planIndex(plan).treatmentOrder(u.treatmentId);
              return (
                <button
                  type="button"
                  className={`tile${u.id === unit?.id ? ' current' : ''}`}
                  style={tileInk(i)}
                  data-unit={u.code}
                  disabled={dead}
                  onClick={() => {
                    setChosen(u.id);
                    setTried(false);
                    setContradicted('');
                  }}
                >
                  <UnitFace index={i} number={unitNumber(u.code)} value={value} />
                </button>
              );
            }}
          />
        </div>
        {unit && (
          <aside className="side stack" aria-label="Pick">
            <UnitHeading unit={unit} noun={plan.unitNoun} index={index} parts={state.parts.get(unit.id)} />
            {here && (
              <p className="note open">
                On this day already: {sayItems(here.items)}. What you keep now is added to it; a line is taken
                back in the log.
              </p>
            )}
            {grades.map((g, i) => (
              <div className="field-pair" key={g.name}>
                <TextField
                  size="small"
                  label={`${g.name}, pieces`}
                  value={typed[g.name]?.count ?? ''}
                  onChange={(e) => put(g.name, { count: e.target.value }, device)}
                  onFocus={() => setInto(g.name)}
                  onKeyDown={(e) => e.key === 'Enter' && !busy && keep()}
                  error={faults[i]!.count !== ''}
                  helperText={faults[i]!.count || (g.use === 'yield' ? undefined : gradeUses[g.use])}
                  slotProps={{ htmlInput: { inputMode: 'numeric' }, inputLabel: { shrink: true } }}
                />
                <TextField
                  size="small"
                  label="weight"
                  value={typed[g.name]?.weight ?? ''}
                  onChange={(e) => put(g.name, { weight: e.target.value })}
                  onFocus={() => setInto(g.name)}
                  onKeyDown={(e) => e.key === 'Enter' && !busy && keep()}
                  error={faults[i]!.weight !== ''}
                  helperText={faults[i]!.weight || inGrams(typed[g.name]?.weight ?? '')}
                  slotProps={{
                    htmlInput: { inputMode: 'decimal', 'aria-label': `${g.name}, weight in g` },
                    inputLabel: { shrink: true },
                    input: { endAdornment: <span className="unit">g</span> },
                  }}
                />
              </div>
            ))}
            {lost && (
              <TextField
                size="small"
                label="Lost to what?"
                value={note}
                onChange={(e) => putPick({ note: e.target.value })}
              />
            )}
            {tried && !some && (
              <p role="alert" className="small" style={{ color: 'var(--porphyry)' }}>
                Type how many, or say that nothing was ripe.
              </p>
            )}
            <Button variant="contained" onClick={keep} disabled={busy}>
              Keep the pick
            </Button>
            <Button variant="outlined" color="secondary" disabled={busy} onClick={() => noneRipe([unit])}>
              Nothing ripe
            </Button>
            {contradicted && (
              <p role="alert" className="small" style={{ color: 'var(--porphyry)' }}>
                {contradicted}
              </p>
            )}
            <OtherTyped units={walk} typed={all} here={unit.id} onGo={setChosen} />
            <InstrumentDrawer
              measures="weight"
              called="scale"
              takeLabel={`Take for ${into || grades[0]!.name}`}
              onTake={(r) => {
                const weight = String(r.values.weight ?? 0);
                put(into || grades[0]!.name, { weight }, r.instrument.slice(0, 80));
              }}
            />
          </aside>
        )}
      </div>
      <Harvest state={state} />
    </>
  );
}

const sayItems = (items: readonly { grade: string; count: number; weightG: number | null }[]): string =>
  items.length === 0
    ? 'nothing ripe'
    : items.map((i) => `${i.count} ${i.grade}${i.weightG === null ? '' : `, ${i.weightG} g`}`).join('; ');
