import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { type ReactNode, useState } from 'react';
import { z } from 'zod';
import { walkOrder } from '~core/design/layOut';
import { livingUnits } from '~core/log/asked';
import type { BodyOf } from '~core/log/entry';
import { dayPicks, gradesOf } from '~core/log/picks';
import type { TrialState } from '~core/log/state';
import { err, ok } from '~core/model/result';
import { type Grade, gradeUses } from '~core/model/grade';
import type { Unit } from '~core/model/plan';
import { dayOfDate } from '~core/plan/days';
import { formatFigure, listNames, plural } from '~core/quantity/format';
import { numberIn } from '~core/quantity/number';
import { readQuantity } from '~core/quantity/quantity';
import { faultOrReadings } from '../../ui/Readings';
import { todayDate } from '../../ui/clock';
import { useSend } from '../../form/usePost';
import { InstrumentDrawer } from '../../instruments/InstrumentDrawer';
import type { Paste, PastedValues } from '../../walk/PasteDialog';
import { UnitsPlan } from '../../walk/UnitsPlan';
import { type InHand, Walk } from '../../walk/Walk';
import type { Capture } from '../../walk/capture';
import { stopsOfUnits } from '../../walk/stops';
import { useSitting } from '../../walk/useSitting';
import { Harvest } from './Harvest';

const Typed = z.object({ count: z.string(), weight: z.string() });
type Typed = z.infer<typeof Typed>;

/** What is typed for one unit. */
const PickDraft = z.object({
  byGrade: z.record(z.string(), Typed),
  note: z.string(),
  /** what weighed it last */
  device: z.string(),
});
type PickDraft = z.infer<typeof PickDraft>;

const nothing: Typed = { count: '', weight: '' };
const isFilled = ({ count, weight }: Typed) => count.trim() !== '' || weight.trim() !== '';

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

type PickBody = BodyOf<'pick'>;
const noneRipeOf = (unit: Unit): PickBody => ({
  ...{ kind: 'pick', unitId: unit.id, items: [], note: '', instrument: 'typed' },
});

function captureOf(grades: readonly Grade[], beforeStart: boolean): Capture<PickDraft> {
  return {
    schema: PickDraft,
    blank: { byGrade: {}, note: '', device: '' },
    isBlank: ({ byGrade, note }) => note.trim() === '' && !Object.values(byGrade).some(isFilled),
    resumes: true,
    textOf: ({ byGrade }) => JSON.stringify(byGrade),
    said: ({ byGrade }) =>
      Object.entries(byGrade)
        .filter(([, t]) => isFilled(t))
        .map(([grade, t]) => `${t.count} ${grade}`.trim())
        .join(', '),
    fault({ byGrade }) {
      if (beforeStart) return 'That day is before the start.';
      if (!Object.values(byGrade).some(isFilled)) return 'Type how many, or say that nothing was ripe.';
      const wrong = Object.values(byGrade).some((t) => faultOfCount(t.count) || faultOfWeight(t));
      return wrong ? 'See what is marked.' : null;
    },
    doubt: () => null,
    bodies: ({ byGrade, note, device }, { unit }) => [
      {
        ...{ kind: 'pick', unitId: unit.id, note: note.trim(), instrument: device || 'typed' },
        items: grades.flatMap((g) => {
          const t = byGrade[g.name] ?? nothing;
          const count = Number(t.count.trim() || '0');
          const weight = readQuantity(t.weight, 'mass');
          return count === 0 ? [] : [{ grade: g.name, count, weightG: weight.ok ? weight.value : null }];
        }),
      },
    ],
  };
}

/** Two columns a grade: how many, and what they weigh. */
function pasteOf(grades: readonly Grade[], day: number, capture: Capture<PickDraft>): Paste {
  const draftOf = (values: PastedValues): PickDraft => ({
    ...capture.blank,
    byGrade: Object.fromEntries(
      grades.map((g, i) => {
        const [count, weight] = [values.get(2 * i), values.get(2 * i + 1)];
        return [g.name, { count: `${count ?? ''}`, weight: weight === undefined ? '' : `${weight} g` }];
      }),
    ),
  });
  const pieces = (text: string) =>
    /^\d{1,6}$/.test(text) ? ok(Number(text)) : err(faultOfCount(text) || 'not a number');
  return {
    title: `Picks of day ${day}`,
    columns: grades.flatMap(({ name }) => [
      { names: [`${name}, pieces`, name] as const, read: pieces },
      { names: [`${name}, g`, `${name} weight`] as const, read: (text) => readQuantity(text, 'mass') },
    ]),
    say: (value, column) => (column % 2 === 0 ? String(value) : `${formatFigure(value, 1)} g`),
    doubt: () => null,
    fault: (values) => Object.values(draftOf(values).byGrade).map(faultOfWeight).find(Boolean) ?? null,
    bodies: (unit, values) => capture.bodies(draftOf(values), { unit, sample: null }),
  };
}

/** Harvests over weeks: what was picked of each unit on a day, by grade; nothing ripe is an entry too. */
export function PicksView({ state, head }: { state: TrialState; head: ReactNode }) {
  const { plan } = state;
  const send = useSend();
  const [busy, setBusy] = useState(false);
  const grades = gradesOf(plan);
  const sitting = useSitting(plan, { id: 'picks', name: 'Picks', day: null });
  // While another day is being typed that of today stands.
  const date = sitting.fault ? todayDate() : (sitting.when?.date ?? todayDate());
  const day = dayOfDate(plan.startDate, date);
  const walk = walkOrder(livingUnits(state), state.positions);
  const picks = dayPicks(state);
  const of = (unit: Unit) => picks.get(unit.id)?.find((p) => p.day === day);
  const stops = stopsOfUnits(walk, (u) => of(u) === undefined);
  const open = walk.filter((u) => of(u) === undefined);
  const capture = captureOf(grades, day < 0);
  const paste = day < 0 ? undefined : pasteOf(grades, day, capture);
  const noneOnTheOthers = async () => {
    setBusy(true);
    await send({ bodies: open.map(noneRipeOf), ...(sitting.when && { when: sitting.when }) });
    setBusy(false);
  };
  return (
    <>
      <Walk
        {...{ state, stops, capture, sitting, paste }}
        scope={`${plan.id}/picks`}
        label="Pick"
        className="short"
        sideClass="stack"
        main={({ unit, draft }, pick, putBy) => {
          const typed = walk.filter(
            (u) => putBy.some((p) => p.unitId === u.id) || (u.id === unit.id && !capture.isBlank(draft)),
          );
          return (
            <>
              {head}
              <div className="inline-row" style={{ marginBottom: '0.8rem' }}>
                <span className="small quiet" role="status">
                  {walk.length - open.length} of {walk.length} {plural(plan.unitNoun)} looked at on day {day}
                </span>
                {open.length > 0 &&
                  open.length < walk.length &&
                  (typed.length > 0 ? (
                    <span className="small">
                      Something is typed for {listNames(typed.map((u) => u.code))}: keep it, or empty the
                      fields.
                    </span>
                  ) : (
                    <Button
                      size="small"
                      color="secondary"
                      disabled={busy || day < 0}
                      onClick={() => void noneOnTheOthers()}
                    >
                      Nothing ripe on the other {open.length}
                    </Button>
                  ))}
              </div>
              <UnitsPlan
                state={state}
                current={unit.id}
                onPick={pick}
                valueOf={(u) => {
                  const own = of(u);
                  const pieces = own?.items.reduce((s, i) => s + i.count, 0);
                  return pieces === undefined ? '–' : pieces === 0 ? 'none' : String(pieces);
                }}
              />
            </>
          );
        }}
        pad={(at) => <GradeFields {...{ grades, at }} kept={of(at.unit)?.items ?? null} />}
      />
      <Harvest state={state} />
    </>
  );
}

interface FieldsProps {
  grades: readonly Grade[];
  at: InHand<PickDraft>;
  /** what the log has of the unit on this day */
  kept: Readonly<PickBody['items']> | null;
}

/** How many of each grade, and what they weigh. */
function GradeFields({ grades, at, kept }: FieldsProps) {
  const { byGrade, note, device } = at.draft;
  const [into, setInto] = useState(grades[0]!.name);
  const put = (grade: string, change: Partial<Typed>, by = device) =>
    at.put({ byGrade: { ...byGrade, [grade]: { ...nothing, ...byGrade[grade], ...change } }, device: by });
  const onEnter = (e: { key: string }) => e.key === 'Enter' && at.enter();
  const typed = Object.values(byGrade).some(isFilled);
  return (
    <>
      {kept && (
        <p className="note open">
          On this day already: {sayItems(kept)}. What you keep now is added to it; a line is taken back in the
          log.
        </p>
      )}
      {grades.map((g) => {
        const own = byGrade[g.name] ?? nothing;
        return (
          <fieldset className="plain grade-pair" key={g.name}>
            <legend className="small">{g.name}</legend>
            <TextField
              size="small"
              label="pieces"
              value={own.count}
              onChange={(e) => put(g.name, { count: e.target.value })}
              onFocus={() => setInto(g.name)}
              onKeyDown={onEnter}
              error={faultOfCount(own.count) !== ''}
              helperText={faultOfCount(own.count) || (g.use === 'yield' ? undefined : gradeUses[g.use])}
              slotProps={{
                htmlInput: { inputMode: 'numeric', 'aria-label': `${g.name}, pieces` },
                inputLabel: { shrink: true },
              }}
            />
            <TextField
              size="small"
              label="weight"
              value={own.weight}
              onChange={(e) => put(g.name, { weight: e.target.value }, '')}
              onFocus={() => setInto(g.name)}
              onKeyDown={onEnter}
              error={faultOfWeight(own) !== ''}
              helperText={
                faultOfWeight(own) === ''
                  ? inGrams(own.weight)
                  : faultOrReadings(faultOfWeight(own), own.weight, (weight) => put(g.name, { weight }, ''))
              }
              slotProps={{
                htmlInput: { inputMode: 'decimal', 'aria-label': `${g.name}, weight in g` },
                inputLabel: { shrink: true },
                input: { endAdornment: <span className="unit">g</span> },
              }}
            />
          </fieldset>
        );
      })}
      {grades.some((g) => g.use === 'loss' && Number(byGrade[g.name]?.count ?? 0) > 0) && (
        <TextField
          size="small"
          label="Lost to what?"
          value={note}
          onChange={(e) => at.put({ note: e.target.value })}
        />
      )}
      {at.fault && (
        <p role="alert" className="small" style={{ color: 'var(--porphyry)' }}>
          {at.fault}
        </p>
      )}
      <Button variant="contained" onClick={at.enter}>
        Keep the pick
      </Button>
      <Button
        variant="outlined"
        color="secondary"
        disabled={typed}
        onClick={() => at.write({ body: noneRipeOf(at.unit) }, 'next')}
      >
        Nothing ripe
      </Button>
      <InstrumentDrawer
        measures="weight"
        called="scale"
        takeLabel={`Take for ${into}`}
        onTake={(r) => put(into, { weight: String(r.values.weight ?? 0) }, r.instrument.slice(0, 80))}
      />
    </>
  );
}

const sayItems = (items: Readonly<PickBody['items']>): string =>
  items.length === 0
    ? 'nothing ripe'
    : items.map((i) => `${i.count} ${i.grade}${i.weightG === null ? '' : `, ${i.weightG} g`}`).join('; ');
