import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import type { FindingRow } from '../analysis/rows';
import { figuresOf } from '../analysis/figures';
import { seenOf } from '../analysis/number';
import { type Trait, kindOf } from '../model/plan';
import { compareTreatments } from '../stats/compareTreatments';
import { pooledCounts } from '../stats/dispersion';
import { fisherExact } from '../stats/fisherExact';
import { holm } from '../stats/holm';
import { quasiPoisson } from '../stats/quasiPoisson';
import { kruskalWallis } from '../stats/ranks';
import { logRank } from '../stats/survival';
import { countOf } from '../analysis/methods';

/**
 * What a plain R session would take for the same data: one-way (or blocked) analysis of variance with Dunnett; Fisher's test
 * on pooled counts; Poisson regression; Wilcoxon's rank sums; the log-rank test; each contender against the control, Holm.
 * The functions are those that the reference tests hold against R.
 *
 * @returns p of each contender against the first, by its id; null where there is none
 */
export function usually(
  rows: readonly FindingRow[],
  trait: Trait,
  order: readonly string[],
): Map<string, number | null> {
  const [control, ...others] = order.filter((id) => rows.some((r) => r.treatment === id));
  const own = (id: string) => rows.filter((r) => r.treatment === id);
  const shared = (p: (id: string) => number | null) => {
    const known = holm(others.map(p));
    return new Map(others.map((id, i) => [id, known[i]!]));
  };
  switch (kindOf(trait).observes) {
    case 'kOfN':
      return shared((id) => {
        const [a, b] = [id, control!].map((x) => pooledCounts(own(x).map((r) => countOf(r, false))));
        return fisherExact(a!.k, a!.n, b!.k, b!.n);
      });
    case 'level':
    case 'rank':
      return shared((id) => {
        const values = figuresOf(rows, trait);
        const of = (x: string) => rows.flatMap((r, i) => (r.treatment === x ? [values[i]!] : []));
        return kruskalWallis([of(id), of(control!)]).p;
      });
    case 'event':
      return shared((id) => logRank([id, control!].map((x) => own(x).map((r) => seenOf(r)!))).p);
    case 'count': {
      const names = [control!, ...others];
      const values = figuresOf(rows, trait);
      const blocks = [...new Set(rows.map((r) => r.block))];
      const fit = quasiPoisson(
        rows.map((r, i) => ({
          treatment: names.indexOf(r.treatment),
          block: blocks.indexOf(r.block),
          ...{ count: values[i]!, exposure: 1 },
        })),
        names.length,
        blocks.length,
      );
      return shared((id) => {
        const i = names.indexOf(id);
        return fit && 2 * normalCdf(-Math.abs(fit.logRatio(i, 0)) / Math.sqrt(fit.variance(i, 0)), 0, 1);
      });
    }
    default: {
      const values = figuresOf(rows, trait);
      const made = compareTreatments({
        control: control!,
        rows: rows.map((r, i) => ({
          treatment: r.treatment,
          ...(r.block !== null && { block: r.block }),
          ...(r.column !== null && { column: r.column }),
          value: values[i]!,
        })),
      });
      return new Map(made.ok ? made.value.versusControl.map((v) => [v.name, v.p]) : []);
    }
  }
}
