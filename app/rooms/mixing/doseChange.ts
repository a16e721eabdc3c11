import type { z } from 'zod';
import type { EntryBody } from '~core/log/entry';
import { type TrialState, ofKind } from '~core/log/state';
import { restOf, stretchesIn } from '~core/mixing/givenPlan';
import type { ProductUse, Treatment } from '~core/model/plan';
import { doseAmount } from '~core/model/plan';
import { dateOfDay } from '~core/plan/days';
import { type Result, err, ok } from '~core/model/result';
import { amountOf, howDense } from '~core/mixing/density';
import { resolveDose, shapeOfUnit } from '../contenders/dose';
import { localDay } from '~core/log/localDay';
import { type Answer, done } from '../../form/command';
import { type Refused, refuse } from '../../form/recordForm';
import { appendEntries } from '../../store/trials';
import type { DoseChangeForm } from './logForms';

type Sent = z.output<typeof DoseChangeForm>;

/** A dose that can be changed from a day on. */
export interface OpenDose {
  key: string;
  treatment: Treatment;
  /** which use of the plan it goes back to */
  of: number;
  /** as it would go on from that day */
  rest: ProductUse;
  /** how often it was given by then, by the log, where it has no fixed days */
  given: number;
}

/** Batches of a treatment with this product in the log, before a day of the trial. */
function timesGiven(state: TrialState, treatment: Treatment, use: ProductUse, day: number): number {
  const date = dateOfDay(state.plan.startDate, day);
  return ofKind(state, 'mix').filter(
    (m) =>
      m.body.treatmentId === treatment.id &&
      m.body.amounts.some((a) => a.productId === use.productId) &&
      localDay(m) < date,
  ).length;
}

/** Every dose that still goes on at a day. */
export const openDoses = (state: TrialState, day: number): OpenDose[] =>
  state.plan.treatments.flatMap((treatment) =>
    stretchesIn(state, treatment.id).flatMap(({ of, use, goesOn }) => {
      if (of === null || !goesOn) return [];
      const given = timesGiven(state, treatment, use, day);
      const rest = restOf(use, day, given);
      return rest ? [{ key: `${treatment.id}/${of}`, treatment, of, rest, given }] : [];
    }),
  );

/** The dose after a change. @param factor by which what is given changes */
function changed(rest: ProductUse, factor: number, f: Sent): ProductUse {
  const everyDays = f.everyDays ?? rest.everyDays;
  return {
    ...rest,
    strengthPercent: Number((rest.strengthPercent * factor).toPrecision(12)),
    everyDays,
    // What had no fixed days and gets a rhythm begins on that day.
    fromDay: everyDays !== null && rest.fromDay === null ? f.day : rest.fromDay,
    timesPerUnit: f.times ?? rest.timesPerUnit,
  };
}

/** How many times what was given the typed dose is: a figure in the dose's own unit, or a rate in words. */
function factorOf(
  { plan }: TrialState,
  { rest, treatment }: OpenDose,
  typed: string,
): Result<number, string> {
  if (typed === '') return ok(1);
  const product = plan.products.find((p) => p.id === rest.productId);
  const litres = rest.solutionLPerUnit;
  const dose = resolveDose(
    {
      amount: typed,
      unit: rest.unit,
      solutionLPerUnit: litres === null ? '' : String(litres),
      way: rest.way ?? 'water',
    },
    product,
    plan.mixing.measures,
    shapeOfUnit(treatment.conditions, plan.unitNoun),
  );
  if (!dose.ok) return err(dose.error.message);
  const { amount, unit } = dose.value;
  const here = unit === rest.unit || !product ? ok(amount) : amountOf(product, amount, unit, rest.unit);
  if (here.ok) return ok(here.value / doseAmount(rest));
  return err(
    here.error.tag === 'needsDensity' && product
      ? `${unit} beside ${rest.unit}: ${howDense(product)}, in the library.`
      : `This dose is in ${rest.unit}.`,
  );
}

/** Writes down that a dose is another from a day on; the sealed plan stays as it is. */
export async function changeDose(trialId: string | undefined, f: Sent): Promise<Answer> {
  let lines = 0;
  const written = await appendEntries<Refused>(trialId, ({ state }) => {
    if (!state.seal) return refuse('which', 'Before the seal doses are changed in Contenders.');
    const open = openDoses(state, f.day);
    const one = open.find((d) => d.key === f.which);
    if (!one) return refuse('day', 'Nothing of this dose is left from that day on.');
    const times = factorOf(state, one, f.amount);
    if (!times.ok) return refuse('amount', times.error);
    const factor = times.value;
    const wanted = f.alike ? open : [one];
    const strongest = Math.max(...wanted.map((d) => d.rest.strengthPercent * factor));
    if (strongest > 1000) return refuse('amount', 'More than ten times the rate: look again.');
    const bodies = wanted.map(({ treatment, of, rest, given }): EntryBody => ({
      kind: 'doseChange',
      treatmentId: treatment.id,
      use: of,
      to: f.stop ? null : changed(rest, factor, f),
      day: f.day,
      given,
      reason: f.reason,
    }));
    lines = bodies.length;
    return ok(bodies);
  });
  return done(written, lines === 1 ? 'The change is in the log.' : `${lines} changes are in the log.`);
}
