import type { z } from 'zod';
import type { EntryBody } from '~core/log/entry';
import { type TrialState, ofKind } from '~core/log/state';
import { restOf, stretchesIn } from '~core/mixing/givenPlan';
import type { ProductUse, Treatment } from '~core/model/plan';
import { doseAmount } from '~core/model/plan';
import { dateOfDay } from '~core/plan/days';
import { ok } from '~core/model/result';
import { localDay } from '~core/log/localDay';
import type { ActionResult } from '../../form/schemaFields';
import { appendEntries } from '../../store/trials';
import type { DoseChangeForm } from './logForms';
import { type Said, answer, said } from './said';

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

/** Writes down that a dose is another from a day on; the sealed plan stays as it is. */
export async function changeDose(trialId: string | undefined, f: Sent): Promise<ActionResult> {
  let lines = 0;
  const done = await appendEntries<Said>(trialId, ({ state }) => {
    if (!state.seal) return said('which', 'Before the seal doses are changed in Contenders.');
    const open = openDoses(state, f.day);
    const one = open.find((d) => d.key === f.which);
    if (!one) return said('day', 'Nothing of this dose is left from that day on.');
    const factor = f.amount === null ? 1 : f.amount / doseAmount(one.rest);
    const wanted = f.alike ? open : [one];
    const strongest = Math.max(...wanted.map((d) => d.rest.strengthPercent * factor));
    if (strongest > 1000) return said('amount', 'More than ten times the rate: look again.');
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
  return done.ok
    ? { saved: true, message: lines === 1 ? 'The change is in the log.' : `${lines} changes are in the log.` }
    : answer(done.error);
}
