// References: R's power.t.test, power.anova.test, pf(ncp =) and pt(ncp =) through webR; simulation for Dunnett.
import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { compareTreatments } from '../stats/compareTreatments';
import { noncentralFCdf } from '../stats/noncentralF';
import { type R, startR } from '../testing/r';
import { detectableDifference, powerOf, replicatesNeeded, residualDf, sizeOf, twoSidedTPower } from './power';
import { seededRandom } from '../stats/random';

let r: R;
beforeAll(async () => {
  r = await startR();
});

const size = (treatments: number, replicates: number, blocks = 1) => ({
  treatments,
  replicates,
  blocks,
  alpha: 0.05,
});

describe('against R', () => {
  it.each([
    [3.1, 3, 20, 0],
    [3.1, 3, 20, 5],
    [0.4, 1, 6, 12],
    [9, 5, 40, 60],
    [40, 2, 100, 3000],
  ])('pf(%d, %d, %d, ncp = %d)', async (f, df1, df2, ncp) => {
    const [p] = await r.numbers(`pf(${f}, ${df1}, ${df2}, ncp = ${ncp})`);
    expect(noncentralFCdf(f, df1, df2, ncp)).toBeCloseTo(p!, 9);
  });
  it.each([
    [2, 1, 5],
    [2.5, 3, 12],
    [2.1, 0, 30],
    [3, 6, 4],
  ])('both tails of the noncentral t: critical %d, ncp %d, df %d', async (c, ncp, df) => {
    const [p] = await r.numbers(
      `pt(${c}, ${df}, ncp = ${ncp}, lower.tail = FALSE) + pt(-${c}, ${df}, ncp = ${ncp})`,
    );
    expect(twoSidedTPower(c, ncp, df)).toBeCloseTo(p!, 7);
  });
  it.each([
    [5, 10, 20],
    [17, 10, 10],
    [8, 15, 12],
  ])('two treatments are power.t.test: n = %d, cv %d %%, difference %d %%', async (n, cv, d) => {
    const [p] = await r.numbers(
      `power.t.test(n = ${n}, delta = ${d}, sd = ${cv}, strict = TRUE, tol = 1e-10)$power`,
    );
    const own = powerOf(size(2, n), cv, d)!;
    expect(own.versusControl).toBeCloseTo(p!, 6);
    expect(own.pair).toBeCloseTo(p!, 6);
    expect(own.anova).toBeCloseTo(p!, 6);
  });
  it.each([
    [4, 5, 10, 15],
    [6, 8, 12, 10],
    [3, 20, 20, 12],
  ])('the analysis of variance is power.anova.test: %d treatments of %d', async (k, n, cv, d) => {
    const [p] = await r.numbers(
      `power.anova.test(groups = ${k}, n = ${n}, between.var = var(c(${d}, rep(0, ${k - 1}))), within.var = ${cv ** 2})$power`,
    );
    expect(powerOf(size(k, n), cv, d)!.anova).toBeCloseTo(p!, 8);
  });
});

it('Dunnett’s and Tukey’s power is what 4,000 simulated trials in blocks find (four standard errors)', () => {
  const [k, n, cv, d] = [4, 6, 10, 17];
  const random = seededRandom(11);
  let versus = 0;
  let pair = 0;
  const runs = 4000;
  for (let i = 0; i < runs; i++) {
    const rows = Array.from({ length: n }, (_, b) => {
      const block = random.normal() * 8;
      return Array.from({ length: k }, (_, t) => ({
        treatment: String(t),
        block: String(b),
        value: 100 + block + (t === 1 ? d : 0) + random.normal() * cv,
      }));
    }).flat();
    const found = compareTreatments({ rows, control: '0' });
    if (!found.ok) throw new Error(found.error.tag);
    if (found.value.versusControl[0]!.p! < 0.05) versus += 1;
    if (found.value.pairs.find((p) => p.a === '1' && p.b === '2')!.p! < 0.05) pair += 1;
  }
  const power = powerOf(size(k, n, n), cv, d)!;
  const tolerance = 4 * Math.sqrt(0.25 / runs);
  expect(Math.abs(versus / runs - power.versusControl)).toBeLessThan(tolerance);
  expect(Math.abs(pair / runs - power.pair)).toBeLessThan(tolerance);
});

const anySize = fc.record({
  k: fc.integer({ min: 2, max: 8 }),
  n: fc.integer({ min: 2, max: 12 }),
  cv: fc.double({ min: 3, max: 30, noNaN: true }),
  d: fc.double({ min: 2, max: 40, noNaN: true }),
});

it('power lies between alpha’s share and 1, and grows with the difference', () => {
  fc.assert(
    fc.property(anySize, ({ k, n, cv, d }) => {
      const small = powerOf(size(k, n), cv, d)!;
      const large = powerOf(size(k, n), cv, d * 1.5)!;
      for (const key of ['versusControl', 'pair', 'anova'] as const) {
        expect(small[key]).toBeGreaterThan(0);
        expect(large[key]).toBeLessThanOrEqual(1);
        expect(large[key]).toBeGreaterThanOrEqual(small[key] - 1e-9);
      }
      expect(small.pair).toBeLessThanOrEqual(small.versusControl + 1e-9);
    }),
    { numRuns: 60 },
  );
});

it('the detectable difference has the power asked for', () => {
  fc.assert(
    fc.property(anySize, ({ k, n, cv }) => {
      const d = detectableDifference(size(k, n), cv, 0.8, 'control')!;
      expect(powerOf(size(k, n), cv, d)!.versusControl).toBeCloseTo(0.8, 6);
    }),
    { numRuns: 40 },
  );
});

it('the replicates found are enough, and one fewer isn’t', () => {
  fc.assert(
    fc.property(anySize, fc.constantFrom('perReplicate' as const, 1), ({ k, cv, d }, blocking) => {
      const n = replicatesNeeded(k, blocking, 0.05, cv, Math.max(d, cv / 2), 0.8)!;
      const at = (m: number) =>
        powerOf(sizeOf(k, m, blocking, 0.05), cv, Math.max(d, cv / 2))?.versusControl ?? 0;
      expect(at(n)).toBeGreaterThanOrEqual(0.8);
      if (n > 2) expect(at(n - 1)).toBeLessThan(0.8);
    }),
    { numRuns: 40 },
  );
  expect(replicatesNeeded(3, 1, 0.05, 100, 0.1, 0.8)).toBeNull();
});

it('counts the residual degrees of freedom', () => {
  expect(residualDf(size(4, 5))).toBe(16);
  expect(residualDf(size(5, 4, 4))).toBe(12);
  // A Latin square of order n leaves (n − 1)(n − 2) (Cochran and Cox, memory).
  expect(residualDf(sizeOf(5, 5, 'latin', 0.05))).toBe(12);
  expect(powerOf(size(3, 1), 10, 10)).toBeNull();
  expect(detectableDifference(size(3, 1), 10, 0.8, 'pair')).toBeNull();
});
