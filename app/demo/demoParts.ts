import type { SimulatedTrait } from '~core/design/simulate';
import { type Entry, type EntryBody, lineOf } from '~core/log/entry';
import { compareTimes } from '~core/log/order';
import type { EntryId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { planSha256 } from '~core/plan/seal';
import { LABELS_TASK } from '~core/schedule/tasks';
import { treatmentId } from './demoTrials';

/** What the demo's trials share. Dates count from the day the bench is made. */

export type Day = (offset: number) => string;
export const BY = 'Loggia';

/** True means by arm key, as the simulator wants them. */
export function means(code: string, byArm: Record<string, number>): SimulatedTrait['means'] {
  return Object.fromEntries(Object.entries(byArm).map(([arm, mean]) => [treatmentId(code, arm), mean]));
}

/** Seal, then the simulated log, then what else was written down. */
export function withLog(
  plan: Plan,
  sealedOn: string,
  simulated: Entry[],
  extra: { body: EntryBody; at: string }[] = [],
): Entry[] {
  const write = (body: EntryBody, at: string, n: string): Entry => {
    const time = new Date(at).toISOString();
    return lineOf(body, {
      id: `demo-${plan.code}-${n}` as EntryId,
      at: time,
      recordedAt: time,
      offsetMin: 0,
      by: BY,
      device: 'demo',
      counter: 0,
    });
  };
  const lines = [
    write({ kind: 'seal', planSha256: planSha256(plan) }, `${sealedOn}T17:30:00Z`, 'seal'),
    write(
      {
        kind: 'reading',
        quantity: 'tare',
        value: 112.4,
        subject: 'Bowl 1',
        unitId: null,
        treatmentId: null,
        instrument: 'kitchen scale',
      },
      `${sealedOn}T17:40:00Z`,
      'tare',
    ),
    write({ kind: 'taskDone', task: LABELS_TASK }, `${sealedOn}T18:00:00Z`, 'labels'),
    ...simulated,
    ...extra.map((e, i) => write(e.body, e.at, `extra-${i + 1}`)),
  ];
  // Written down as it happened: the counter follows the clock.
  return lines.sort((a, b) => compareTimes(a.at, b.at)).map((e, i) => ({ ...e, counter: i + 1 }));
}

export const sigmoid = (middle: number, width: number) => (day: number) =>
  1 / (1 + Math.exp(-(day - middle) / width));
