import fQuantile from '@stdlib/stats-base-dists-f-quantile';
import { figuresOf } from '../analysis/figures';
import { residualsOf } from '../analysis/residuals';
import type { FindingRow } from '../analysis/rows';
import { replicatesNeeded } from '../design/power';
import { brownForsythe } from '../stats/brownForsythe';
import { leastSwapped } from '../stats/swapping';
import { correlation, outlierP } from '../stats/outlier';
import { type Finding, type FindingInput, levelOf, makeFinding } from '../account/finding';
import { heldOf, heldWith } from '../account/outcomes';

/** What changes for a contender when the same units are looked at otherwise. */
export interface Changed {
  id: string;
  /** against the control */
  from: 'better' | 'worse' | 'open';
  to: 'better' | 'worse' | 'open';
}

/** The finding looked at otherwise: what would change it, and what it rests on. Plain data, made in a worker. */
export interface SecondLooks {
  /** by swapping labels, which assumes nothing of the shape; null where units are many or it isn't of means */
  swapped: { changed: Changed[]; tooFew: boolean } | null;
  /** the least p that swapping so few units can give, where it is above the level */
  leastP: number | null;
  /** spreads that differ, and what it changes when each has its own */
  uneven: {
    p: number;
    most: string;
    least: string;
    ratio: number;
    low: number;
    high: number;
    changed: Changed[];
  } | null;
  /** spread that grows with the value, and what the log scale changes */
  growing: { changed: Changed[] } | null;
  outliers: { code: string; unit: string; treatment: string; value: number; p: number; changed: Changed[] }[];
  /** had it ended at the visit before the last */
  earlier: { day: number; name: string | null; changed: Changed[] } | null;
  /** blocks without which the finding is another */
  blocks: { block: string; changed: Changed[] }[];
  /** place explains what the contenders don't */
  places: { what: 'light' | 'row' | 'column' | 'edge' | 'neighbours'; r: number; p: number }[];
  /** units each that the next trial needs, from the spread found here */
  next: { units: number; difference: number; cvPercent: number } | null;
  residuals: { unit: string; residual: number; studentized: number | null }[];
}

const MEANS = new Set(['linear']);
/** Residual degrees of freedom from which on the normal curve does (practice). */
const FEW = 20;

const stand = (finding: Finding, id: string): Changed['from'] => {
  const o = heldWith(finding, id)?.outcome;
  return o?.verdict !== 'better' ? 'open' : o.ahead === id ? 'better' : 'worse';
};

/** What another finding on the same question says differently against the control. */
function changedBetween(finding: Finding, other: Finding): Changed[] {
  return heldOf(finding).flatMap(({ id }) => {
    if (!heldWith(other, id)) return [];
    const [from, to] = [stand(finding, id), stand(other, id)];
    return from === to ? [] : [{ id, from, to }];
  });
}

const again = (input: FindingInput, finding: Finding, over: Partial<FindingInput>): Changed[] | null => {
  const other = makeFinding({ ...input, ...over });
  return other.ok ? changedBetween(finding, other.value) : null;
};

/** Looks at a finding otherwise; nothing here is a finding of its own but evenness. */
export function secondLooks(input: FindingInput, finding: Finding): SecondLooks {
  const { rows, trait } = input;
  const { analysis } = finding;
  const values = figuresOf(rows, trait);
  const means = MEANS.has(analysis.method) && analysis.spread === 'shown';
  const fitted = means ? residualsOf(rows, values) : null;
  const groups = analysis.summaries.map((s) => ({
    name: s.name,
    values: rows.flatMap((r, i) => (r.treatment === s.name ? [values[i]!] : [])),
  }));
  const looks: SecondLooks = {
    swapped: null,
    leastP: leastP(rows, analysis.summaries, analysis.alpha),
    uneven: null,
    growing: null,
    outliers: [],
    earlier: earlierEnd(input, finding),
    blocks: [],
    places: [],
    next: nextTrial(input, finding),
    residuals: fitted?.residuals ?? [],
  };
  if (!means || !fitted) return looks;
  if (fitted.df < FEW && !finding.peers) {
    const other = makeFinding({ ...input, method: 'permutation' });
    if (other.ok) {
      const tooFew = other.value.analysis.spread === 'tooFew';
      looks.swapped = { changed: tooFew ? [] : changedBetween(finding, other.value), tooFew };
    }
  }
  looks.uneven = unevenness(input, finding, groups);
  if (looks.uneven && growsWithValue(groups)) {
    const changed = again(input, finding, { method: 'log' });
    if (changed) looks.growing = { changed };
  }
  looks.outliers = fitted.residuals.flatMap((r, i) => {
    const p = r.studentized === null ? null : outlierP(r.studentized, fitted.df, rows.length);
    if (p === null || p > 0.05) return [];
    const without = again(input, finding, { rows: rows.filter((x) => x.unit !== r.unit) });
    const { code, treatment } = rows[i]!;
    return [{ code, unit: r.unit, treatment, value: values[i]!, p, changed: without ?? [] }];
  });
  const blockNames = [...new Set(rows.map((r) => r.block))];
  looks.blocks =
    blockNames.length < 3 || finding.peers
      ? []
      : blockNames.flatMap((block) => {
          const changed = again(input, finding, { rows: rows.filter((r) => r.block !== block) });
          return changed && changed.length > 0 && block !== null ? [{ block, changed }] : [];
        });
  looks.places = placesThatMatter(input, looks.residuals);
  return looks;
}

/** The finding at the visit before the last, by the same method. */
function earlierEnd(input: FindingInput, finding: Finding): SecondLooks['earlier'] {
  if (!input.earlier || finding.peers) return null;
  const { day, name, rows } = input.earlier;
  const changed = again(input, finding, { rows, method: finding.analysis.method });
  return changed && { day, name, changed };
}

/** The least two-sided p that swapping units can give, where that is above the level for the best-off pair. */
function leastP(
  rows: readonly FindingRow[],
  summaries: Finding['analysis']['summaries'],
  alpha: number,
): number | null {
  const of = (name: string, block?: string | null) =>
    rows.filter((r) => r.treatment === name && (block === undefined || r.block === block)).length;
  const [a, b] = summaries.map((s) => s.name).sort((x, y) => of(y) - of(x));
  if (a === undefined || b === undefined || (of(a) === 1 && of(b) === 1)) return null;
  // Units are swapped inside their blocks.
  const groups = [...new Set(rows.map((r) => r.block))].map((block) => [of(a, block), of(b, block)] as const);
  const least = leastSwapped(groups);
  return least > alpha ? least : null;
}

function unevenness(
  input: FindingInput,
  finding: Finding,
  groups: { name: string; values: number[] }[],
): SecondLooks['uneven'] {
  const several = groups.filter((g) => g.values.length > 2);
  if (several.length < 2) return null;
  const { p } = brownForsythe(several.map((g) => g.values));
  if (p === null || p > finding.analysis.alpha) return null;
  const spread = (v: readonly number[]) => {
    const m = v.reduce((s, x) => s + x, 0) / v.length;
    return v.reduce((s, x) => s + (x - m) ** 2, 0) / (v.length - 1);
  };
  const sorted = [...several].sort((a, b) => spread(b.values) - spread(a.values));
  const [most, least] = [sorted[0]!, sorted.at(-1)!];
  if (spread(least.values) <= 0) return null;
  const ratio = spread(most.values) / spread(least.values);
  const [d1, d2] = [most.values.length - 1, least.values.length - 1];
  return {
    p,
    most: most.name,
    least: least.name,
    ratio: Math.sqrt(ratio),
    low: Math.sqrt(ratio / fQuantile(0.975, d1, d2)),
    high: Math.sqrt(ratio / fQuantile(0.025, d1, d2)),
    changed: again(input, finding, { method: 'welch' }) ?? [],
  };
}

/** Spread that goes with the mean, over contenders: the correlation of their logarithms. */
function growsWithValue(groups: { values: number[] }[]): boolean {
  const points = groups.flatMap(({ values }) => {
    const mean = values.reduce((s, v) => s + v, 0) / values.length;
    const sd = Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / (values.length - 1));
    return values.length > 2 && mean > 0 && sd > 0 && values.every((v) => v > 0)
      ? [[Math.log(mean), Math.log(sd)] as const]
      : [];
  });
  const correlated = correlation(points.map(([m]) => m), points.map(([, s]) => s)); // prettier-ignore
  return points.length >= 3 && points.length === groups.length && correlated !== null && correlated.r > 0.8;
}

/** Whether light, row or column goes with what is left over, each at its share of 5 %. */
function placesThatMatter(
  { rows, places = {} }: FindingInput,
  residuals: SecondLooks['residuals'],
): SecondLooks['places'] {
  const at = rows.map((r) => places[r.unit]);
  if (at.some((p) => p === undefined)) return [];
  const left = residuals.map((r) => r.residual);
  const looked = [
    ['light', at.map((p) => p!.reading)],
    ['row', at.map((p) => p!.row)],
    ['column', at.map((p) => p!.column)],
    ['edge', at.map((p) => Number(p!.edge))],
    [
      'neighbours',
      besides(
        at.map((p) => p!),
        left,
      ),
    ],
  ] as const;
  return looked.flatMap(([what, where]) => {
    if (where.some((w) => w === null)) return [];
    const correlated = correlation(where as number[], left);
    // What is left over adds up to nothing, so neighbours differ a little by themselves: alike is what tells.
    if (!correlated || correlated.p > 0.05 / looked.length || (what === 'neighbours' && correlated.r <= 0))
      return [];
    return [{ what, ...correlated }];
  });
}

/** Residual degrees of freedom from which on a spread may be planned by (practice): its upper limit is then twice it. */
const LEAST_TO_PLAN_BY = 6;

/** Units of each the next trial needs to see the difference that matters with a chance of 80 %. */
export function nextTrial({ alpha, rows }: FindingInput, finding: Finding): SecondLooks['next'] {
  const { analysis, smallestDifference: difference } = finding;
  const level = levelOf(analysis, finding.peers);
  if (analysis.unitSd === null || difference === null || !(level > 0)) return null;
  // A spread seen with fewer is itself a guess: a plan made from it would promise what nobody knows.
  if ((analysis.unitDf ?? 0) < LEAST_TO_PLAN_BY) return null;
  const blocks = new Set(rows.map((r) => r.block)).size;
  const cv = (100 * analysis.unitSd) / level;
  const wanted = (100 * difference) / level;
  const units = replicatesNeeded(
    analysis.summaries.length,
    blocks > 1 ? 'perReplicate' : 1,
    alpha,
    cv,
    wanted,
    0.8,
  );
  return units === null ? null : { units, difference, cvPercent: cv };
}

/** What is left over in the units beside each, on average; null where one has none beside it. */
function besides(
  at: readonly { area: string; row: number; column: number }[],
  left: readonly number[],
): (number | null)[] {
  return at.map((p) => {
    const near = at.flatMap((q, i) =>
      q.area === p.area && Math.abs(q.row - p.row) + Math.abs(q.column - p.column) === 1 ? [left[i]!] : [],
    );
    return near.length === 0 ? null : near.reduce((s, x) => s + x, 0) / near.length;
  });
}
