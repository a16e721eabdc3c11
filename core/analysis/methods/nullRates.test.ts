// Null simulations: how often a method finds a winner where there is none, and how often its interval holds the truth.
// 5 % may be exceeded by four standard errors of the simulation.
import { describe, expect, it } from 'vitest';
import type { TraitId } from '../../model/ids';
import type { Observed } from '../../model/traitKinds';
import { type Random, seededRandom } from '../../stats/random';
import { trait } from '../../testing/trial';
import type { AnalysisRow, Method } from '../analysis';
import { counts } from './counts';
import { daysUntil } from './daysUntil';
import { linearModel } from './linearModel';
import { permutation } from './permutation';
import { scores } from './scores';
import { welch } from './welch';

const TRIALS = 300;
const allowed = (rate: number) => rate + 4 * Math.sqrt((rate * (1 - rate)) / TRIALS);
/** Every arrangement of twelve against twelve takes too long to try this often. */
const swapped = ['means, swapped, skewed', 'small counts'];

const row = (treatment: string, i: number, block: string | null, observed: Observed): AnalysisRow => ({
  unit: `${treatment}${i}`,
  treatment,
  block,
  column: null,
  divisor: 1,
  visits: [{ roundId: null, day: 9, samples: [{ sample: null, crop: 0, observed }] }],
});

const normal = (random: Random) =>
  Math.sqrt(-2 * Math.log(1 - random.uniform())) * Math.cos(2 * Math.PI * random.uniform());
function poisson(random: Random, mean: number): number {
  let [k, p] = [0, random.uniform()];
  while (p > Math.exp(-mean)) [k, p] = [k + 1, p * random.uniform()];
  return k;
}

const drawn: Record<
  string,
  { method: Method; kind: 'number' | 'score' | 'count' | 'time'; draw: (r: Random) => Observed }
> = {
  'means': { method: linearModel, kind: 'number', draw: (r) => ({ type: 'continuous', value: Number((50 + 8 * normal(r)).toFixed(1)) }) }, // prettier-ignore
  'means, each its spread': { method: welch, kind: 'number', draw: (r) => ({ type: 'continuous', value: Number((50 + 8 * normal(r)).toFixed(1)) }) }, // prettier-ignore
  'means, swapped, skewed': { method: permutation, kind: 'number', draw: (r) => ({ type: 'continuous', value: Number(Math.exp(2 + normal(r)).toFixed(1)) }) }, // prettier-ignore
  'scores': { method: scores, kind: 'score', draw: (r) => ({ type: 'level', level: Math.floor(5 * r.uniform()) + 1 }) }, // prettier-ignore
  'counts': { method: counts, kind: 'count', draw: (r) => ({ type: 'count', count: poisson(r, 20), exposure: 1 }) }, // prettier-ignore
  'counts that scatter more': { method: counts, kind: 'count', draw: (r) => ({ type: 'count', count: poisson(r, 20 * Math.exp(0.4 * normal(r) - 0.08)), exposure: 1 }) }, // prettier-ignore
  'small counts': { method: counts, kind: 'count', draw: (r) => ({ type: 'count', count: poisson(r, 1.5), exposure: 1 }) }, // prettier-ignore
  'days, some not yet': { method: daysUntil, kind: 'time', draw: (r) => { const day = Math.ceil(-12 * Math.log(1 - r.uniform())); return day > 20 ? { type: 'event', happened: false, day: 20 } : { type: 'event', happened: true, day }; } }, // prettier-ignore
};

/** Share of trials with a winner, and with an interval that misses the truth. */
function simulate(name: string, n: number, blocked: boolean) {
  const { method, kind, draw } = drawn[name]!;
  const random = seededRandom(17 + n);
  const of = trait({ id: 'x' as TraitId, name: 'X', unit: '', kind, summary: 'last', decimals: 1 });
  const names = ['Water', 'A', 'B'];
  let [winners, small] = [0, 0];
  for (let trial = 0; trial < TRIALS; trial++) {
    const rows = names.flatMap((t) =>
      Array.from({ length: n }, (_, i) => row(t, i, blocked ? String(i) : null, draw(random))),
    );
    const made = method.analyse({ trait: of, rows, control: 'Water', order: names, alpha: 0.05 });
    if (!made.ok) throw new Error(made.error.tag);
    const none = { difference: 0, ratio: 1, superiority: 0.5, odds: 1, median: 0 };
    const clear = made.value.versusControl.filter(
      (c) => c.low !== null && (c.low > none[c.scale] || c.high! < none[c.scale]),
    );
    if (clear.length > 0) winners += 1;
    if (made.value.versusControl.some((c) => c.p !== null && c.p <= 0.05)) small += 1;
  }
  return { winners: winners / TRIALS, small: small / TRIALS };
}

describe.each(Object.keys(drawn))('%s: no false winners', (name) => {
  it.each([
    [2, false],
    [3, false],
    [4, true],
    [6, false],
    [12, false],
  ])('%i units each, in blocks %s', (units, blocked) => {
    const n = swapped.includes(name) ? Math.min(units, 7) : units;
    const { winners, small } = simulate(name, n, blocked);
    expect(winners).toBeLessThanOrEqual(allowed(0.05));
    expect(small).toBeLessThanOrEqual(allowed(0.05));
  });
});

describe('intervals hold the truth where there is one', () => {
  const names = ['Water', 'A'];
  const lift = 6;
  // Of normal values 8 apart in spread, a unit of A is ahead in Φ(6 / (8·√2)) of pairs: 0.702 (R: pnorm(6 / 8 / sqrt(2))).
  const cases: [string, Method, 'number' | 'count', number, (r: Random, a: boolean) => Observed][] = [
    [
      'means',
      linearModel,
      'number',
      lift,
      (r, a) => ({ type: 'continuous', value: 50 + (a ? lift : 0) + 8 * normal(r) }),
    ],
    [
      'means, each its spread',
      welch,
      'number',
      lift,
      (r, a) => ({ type: 'continuous', value: 50 + (a ? lift : 0) + (a ? 14 : 6) * normal(r) }),
    ],
    [
      'pairs',
      scores,
      'number',
      0.70198,
      (r, a) => ({ type: 'continuous', value: 50 + (a ? lift : 0) + 8 * normal(r) }),
    ],
    [
      'rates',
      counts,
      'count',
      1.5,
      (r, a) => ({ type: 'count', count: poisson(r, a ? 30 : 20), exposure: 1 }),
    ],
  ];
  it.each(cases)('%s', (_, method, kind, truth, draw) => {
    const of = trait({ id: 'x' as TraitId, name: 'X', unit: '', kind, summary: 'last', decimals: 1 });
    for (const n of [4, 8]) {
      const random = seededRandom(40 + n);
      let [held, made] = [0, 0];
      for (let trial = 0; trial < TRIALS; trial++) {
        const rows = names.flatMap((t) =>
          Array.from({ length: n }, (_u, i) => row(t, i, null, draw(random, t === 'A'))),
        );
        const a = method.analyse({ trait: of, rows, control: 'Water', order: names, alpha: 0.05 });
        const c = a.ok ? a.value.versusControl[0]! : null;
        if (c === null || c.low === null) continue;
        made += 1;
        if (c.low <= truth && truth <= c.high!) held += 1;
      }
      expect(made).toBeGreaterThan(TRIALS / 2);
      expect(held / made).toBeGreaterThanOrEqual(0.94 - 4 * Math.sqrt((0.05 * 0.95) / made));
    }
  });
});
