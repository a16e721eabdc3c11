import type { Trait } from '../model/plan';
import { germination } from '../stats/germination';
import type { AnalysisRow } from './analysis';
import type { FindingRow, LeftOut } from './rows';

/** What can be made of k of n counted on several days, as seedlings come up: when, not only how many. */
export const seedlingFigures = ['meanTime', 't50', 'sdTime'] as const;
export type SeedlingFigure = (typeof seedlingFigures)[number];

/** What a figure is called. */
export const seedlingNames: Record<SeedlingFigure, string> = {
  meanTime: 'mean day it came up',
  t50: 'day half of them were up',
  sdTime: 'spread of the days',
};

/** A figure of days made of one unit's visits, on each of which all that were up were counted; null where there is none. */
export function seedlingDays(visits: AnalysisRow['visits'], figure: SeedlingFigure): number | null {
  let [before, sown] = [0, 0];
  const up = [...visits]
    .sort((a, b) => a.day - b.day)
    .map((v) => {
      const counted = v.samples.flatMap(({ observed: o }) => (o.type === 'kOfN' ? [o] : []));
      const k = counted.reduce((s, o) => s + o.k, 0);
      sown = Math.max(
        sown,
        counted.reduce((s, o) => s + o.n, 0),
      );
      // Fewer than last time: some died, and came up all the same.
      const count = Math.max(0, k - before);
      before = Math.max(before, k);
      return { day: v.day, count };
    });
  return sown === 0 ? null : germination(up, sown)[figure];
}

/** A trait of k of n as the days it is made into. */
export const asSeedlingDays = (trait: Trait, figure: SeedlingFigure): Trait => ({
  ...trait,
  name: `${trait.name}: ${seedlingNames[figure]}`,
  kind: 'number',
  unit: 'days',
  direction: 'lower',
  decimals: 1,
  summary: 'last',
  bandLow: null,
  bandHigh: null,
});

/** Rows with the figure of days in place of the counts; units in which too few came up are left out. */
export function seedlingRows(
  rows: readonly FindingRow[],
  figure: SeedlingFigure,
): { rows: FindingRow[]; leftOut: LeftOut[] } {
  const out: FindingRow[] = [];
  const leftOut: LeftOut[] = [];
  for (const row of rows) {
    const value = seedlingDays(row.visits, figure);
    const day = row.visits.at(-1)?.day ?? 0;
    if (value === null) {
      leftOut.push({
        unitId: row.unit as LeftOut['unitId'],
        code: row.code,
        treatmentId: row.treatment as LeftOut['treatmentId'],
        value: null,
        why: 'notMeasured',
        reason: figure === 'sdTime' ? 'fewer than two came up' : 'nothing came up',
      });
    } else {
      const observed = { type: 'continuous' as const, value };
      out.push({
        ...row,
        divisor: 1,
        visits: [{ roundId: null, day, samples: [{ sample: null, crop: 0, observed }] }],
      });
    }
  }
  return { rows: out, leftOut };
}
