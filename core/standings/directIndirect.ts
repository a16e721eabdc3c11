import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import { formatFigure, formatP } from '../quantity/format';
import { type TrialArm, networkMeta } from '../stats/networkMeta';

/** What trials with both say of a product against the reference, and what the others say by way of a third. */
export interface DirectIndirect {
  name: string;
  /** change against the reference, per cent, with normal limits */
  direct: { percent: number; low: number; high: number };
  indirect: { percent: number; low: number; high: number };
  /** two-sided p of their difference on the log scale */
  p: number;
}

const Z = 1.959963984540054;

const onLog = ({ percent, low, high }: DirectIndirect['direct']) => ({
  estimate: Math.log1p(percent / 100),
  se: (Math.log1p(high / 100) - Math.log1p(low / 100)) / (2 * Z),
});

/**
 * Direct against indirect evidence for one product: the trials in which it stood beside the reference are pooled by
 * themselves, and all others by themselves. The two share no trial, so their difference has the sum of their variances
 * (Bucher et al. 1997, for two groups of trials).
 *
 * @param arms as the standings pool them
 * @returns null where one of the two says nothing
 */
export function directIndirect(
  arms: readonly TrialArm[],
  name: string,
  reference: string,
): DirectIndirect | null {
  const has = (trial: string, of: string) => arms.some((a) => a.trial === trial && a.treatment === of);
  const both = (a: TrialArm) => has(a.trial, name) && has(a.trial, reference);
  const pooled = (own: readonly TrialArm[]) => {
    if (!own.some((a) => a.treatment === name) || !own.some((a) => a.treatment === reference)) return null;
    const made = networkMeta(reachedFrom(own, reference), reference);
    return made.ok ? (made.value.products.find((p) => p.name === name) ?? null) : null;
  };
  const direct = pooled(arms.filter((a) => both(a) && [name, reference].includes(a.treatment)));
  const indirect = pooled(arms.filter((a) => !both(a)));
  if (!direct || !indirect) return null;
  const [d, i] = [onLog(direct), onLog(indirect)];
  const spread = Math.hypot(d.se, i.se);
  if (!(spread > 0)) return null;
  const of = ({ percent, low, high }: DirectIndirect['direct']) => ({ percent, low, high });
  return {
    name,
    direct: of(direct),
    indirect: of(indirect),
    p: 2 * normalCdf(-Math.abs(d.estimate - i.estimate) / spread, 0, 1),
  };
}

/** Arms of trials that a path of shared products joins to the reference. */
function reachedFrom(arms: readonly TrialArm[], reference: string): TrialArm[] {
  const reached = new Set([reference]);
  for (let grown = true; grown;) {
    grown = false;
    for (const trial of new Set(arms.map((a) => a.trial))) {
      const own = arms.filter((a) => a.trial === trial).map((a) => a.treatment);
      if (!own.some((t) => reached.has(t))) continue;
      for (const t of own) {
        if (reached.has(t)) continue;
        reached.add(t);
        grown = true;
      }
    }
  }
  return arms.filter((a) => reached.has(a.treatment));
}

/** @example 'Duo Lume: side by side +12 %, by way of others +30 %; the two disagree (p = 0.01).' */
export function sayDirectIndirect({ name, direct, indirect, p }: DirectIndirect): string {
  const signed = (v: number) => `${v < 0 ? '−' : '+'}${formatFigure(Math.abs(v), 0)} %`;
  const pText = p < 0.001 ? 'p < 0.001' : `p = ${formatP(p)}`;
  return `${name}: side by side ${signed(direct.percent)}, by way of others ${signed(indirect.percent)}; ${
    p < 0.05
      ? `the two disagree (${pText}): look at what differed between those trials`
      : `the two agree as far as chance lets one see (${pText})`
  }.`;
}
