import type { Trait } from '../model/plan';
import { allHappened, figureOfVisits, seenOf } from './number';
import type { AnalysisRow } from './analysis';
import { figuresOf } from './figures';
import { countOf } from './methods';
import { roundingVariance } from './recorded';

/** A unit as an analysis takes it, in plain figures; null where its kind of value has none. */
export interface UnitFigures {
  unit: string;
  treatment: string;
  block: string | null;
  column: string | null;
  /** what is compared where figures are compared */
  value: number;
  k: number | null;
  n: number | null;
  /** of k of n: so many of k were seen not to be true to type */
  offType: number;
  day: number | null;
  happened: boolean | null;
  count: number | null;
  exposure: number | null;
}

/** How many weren't true to type: all visits' where counts are added, else the same plants are seen again. */
function offTypesOf(visits: AnalysisRow['visits'], trait: Trait): number {
  const seen = visits.map(offTypesIn);
  return trait.summary === 'sum' ? seen.reduce((s, x) => s + x, 0) : Math.max(0, ...seen);
}

const offTypesIn = ({ samples }: AnalysisRow['visits'][number]): number =>
  samples.reduce((sum, { observed: o }) => sum + ((o.type === 'kOfN' && o.offType) || 0), 0);

/** What each unit goes into an analysis with, for whoever works a finding out elsewhere. */
export function unitTable(rows: readonly AnalysisRow[], trait: Trait): UnitFigures[] {
  const values = figuresOf(rows, trait);
  return rows.map((r, i) => {
    const type = r.visits[0]?.samples[0]?.observed.type;
    const { k, n } = type === 'kOfN' ? countOf(r, trait.summary === 'sum') : { k: null, n: null };
    const seen = type === 'event' ? seenOf(r) : null;
    return {
      unit: r.unit,
      treatment: r.treatment,
      block: r.block,
      column: r.column,
      k,
      n,
      // A day that isn't known is no figure.
      value: type === 'event' && !allHappened(r) ? NaN : values[i]!,
      offType: offTypesOf(r.visits, trait),
      day: seen?.time ?? null,
      happened: seen?.happened ?? null,
      count: type === 'count' ? figureOfVisits(r.visits, trait) : null,
      exposure: type === 'count' ? r.divisor : null,
    };
  });
}

/** The least variance that counts as spread, where figures are compared: what rounding alone makes. */
export const leastVariance = (rows: readonly AnalysisRow[], trait: Trait): number =>
  roundingVariance(rows, trait);
