import type { Trait } from '../model/plan';
import { type Point, areaUnder, atTimes, relativeGrowthRate } from '../stats/curves';
import { type Observed, kindOf } from '../model/traitKinds';
import type { Sample, Visit } from '../log/response';
import type { AnalysisRow } from './analysis';
import { mean } from '../stats/moments';
import type { Seen } from '../stats/survival';

/**
 * A figure for one observation, where an analysis of figures is asked for: a rate for a count, per cent for
 * k of n, the day for an event (whether or not it had happened). Null for words.
 */
export function figureOf(o: Observed): number | null {
  switch (o.type) {
    case 'continuous':
      return o.value;
    case 'count':
      return o.count / o.exposure;
    case 'kOfN':
      return (100 * o.k) / o.n;
    case 'level':
      return o.level;
    case 'event':
      return o.day;
    case 'rank':
      return o.rank;
    case 'words':
      return null;
  }
}

/** A sum without floating-point dust: what is added has few decimals. */
const added = (xs: readonly number[]) => Number(xs.reduce((s, x) => s + x, 0).toFixed(9));

/** Samples of one crop as one figure: counted things are pooled, figures are averaged. */
function overSamples(samples: readonly Sample[]): number | null {
  const [of, together] = [samples.map((s) => s.observed), { k: 0, n: 0 }];
  if (of.every((o) => o.type === 'kOfN')) {
    for (const o of of)
      if (o.type === 'kOfN') [together.k, together.n] = [together.k + o.k, together.n + o.n];
    return (100 * together.k) / together.n;
  }
  const figures = of.map(figureOf);
  return figures.some((f) => f === null) ? null : mean(figures.filter((f) => f !== null));
}

/**
 * A visit as one figure: samples within each crop averaged (k of n pooled), crops averaged or, for weights,
 * added.
 *
 * @returns in the trait's unit, per cent for k of n; null for words
 */
export function figureOfVisit(visit: Pick<Visit, 'samples'>, trait: Trait): number | null {
  const crops = new Map<number, Sample[]>();
  for (const s of visit.samples) crops.set(s.crop, [...(crops.get(s.crop) ?? []), s]);
  const figures = [...crops.values()].map(overSamples);
  if (figures.length === 0 || figures.some((f) => f === null)) return null;
  const known = figures.filter((f) => f !== null);
  return kindOf(trait).overCrops === 'sum' ? added(known) : mean(known);
}

/** The visits of a unit as a curve, by day. */
export const curveOf = (visits: readonly Visit[], trait: Trait): Point[] =>
  atTimes(
    visits.flatMap((v) => {
      const value = figureOfVisit(v, trait);
      return value === null ? [] : [{ time: v.day, value }];
    }),
  );

/**
 * When it had happened to a unit, by its last visit; of several samples the middle one, the earlier of two.
 * @returns null where it isn't an event
 */
export function seenOf(row: { readonly visits: readonly Visit[] }): Seen | null {
  const last = row.visits.at(-1);
  const events = (last?.samples ?? []).flatMap(({ observed: o }) =>
    o.type === 'event' ? [{ time: o.day, happened: o.happened }] : [],
  );
  events.sort((a, b) => Number(b.happened) - Number(a.happened) || a.time - b.time);
  return events[Math.floor((events.length - 1) / 2)] ?? null;
}

/** Whether it had happened to every sample when last looked at: then its days are figures. */
export const allHappened = (row: { readonly visits: readonly Visit[] }): boolean =>
  (row.visits.at(-1)?.samples ?? []).every(({ observed: o }) => o.type === 'event' && o.happened);

/**
 * The visits of a unit as one figure, as its trait sums them up.
 * @returns null without visits, and of a curve with fewer than two
 */
export function figureOfVisits(visits: readonly Visit[], trait: Trait): number | null {
  const figures = visits.map((v) => figureOfVisit(v, trait)).filter((f) => f !== null);
  if (figures.length === 0) return null;
  switch (trait.summary) {
    case 'last':
      return figures[figures.length - 1]!;
    case 'sum':
      return added(figures);
    case 'gain':
      return figures.length < 2 ? null : Number((figures.at(-1)! - figures[0]!).toPrecision(12));
    case 'area': {
      const points = curveOf(visits, trait);
      const area = areaUnder(points);
      return area === null ? null : area / (points.at(-1)!.time - points[0]!.time);
    }
    case 'growth': {
      const rate = relativeGrowthRate(curveOf(visits, trait));
      return rate === null ? null : 100 * rate;
    }
  }
}

/** What is analysed of a unit: its visits as one figure, per unit, plant or m² as the trait asks; NaN without one. */
export const figureOfRow = (row: Pick<AnalysisRow, 'visits' | 'divisor'>, trait: Trait): number =>
  (figureOfVisits(row.visits, trait) ?? NaN) / row.divisor;

/** A visit of k of n as it was counted, all samples together; null for other kinds. @example kOfVisit(visit) // '1/5' */
export function kOfVisit(visit: Pick<Visit, 'samples'>): string | null {
  let [k, n] = [0, 0];
  for (const { observed: o } of visit.samples) {
    if (o.type !== 'kOfN') return null;
    [k, n] = [k + o.k, n + o.n];
  }
  return n === 0 ? null : `${k}/${n}`;
}
