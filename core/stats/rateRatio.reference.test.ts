// Reference: R's poisson.test and prop.test (Wilson's interval) through webR: one stratum's score interval of a ratio of
// rates is that of the share of the sum, turned into a ratio.
import { describe, expect, it } from 'vitest';
import { startR } from '../testing/r';
import { rateRatio } from './rateRatio';

const r = await startR();
const one = (a: number, b: number, ea = 4, eb = 4) =>
  rateRatio([{ a: { count: a, exposure: ea }, b: { count: b, exposure: eb } }], 1)!;

describe('ratio of two rates by the score test', () => {
  it.each([
    [30, 48, 4, 4],
    [7, 48, 3, 5],
    [0, 48, 4, 4],
    [1, 12, 2, 4],
  ])('%i in %i against %i in %i is Wilson’s interval of the share, as a ratio', async (a, b, ea, eb) => {
    const [low, high] = await r.numbers(`prop.test(${a}, ${a + b}, correct = FALSE)$conf.int`);
    const asRatio = (share: number) => (share / (1 - share)) * (eb / ea);
    const own = one(a, b, ea, eb).interval(1.959963984540054);
    expect(own.low).toBeCloseTo(asRatio(low!), 8);
    expect(own.high).toBeCloseTo(asRatio(high!), 8);
    // p of the ratio 1 is prop.test's against the share of the exposure.
    const [chi] = await r.numbers(
      `prop.test(${a}, ${a + b}, p = ${ea / (ea + eb)}, correct = FALSE)$statistic`,
    );
    expect(one(a, b, ea, eb).score(1) ** 2).toBeCloseTo(chi!, 8);
  });
  it('none of one has an open end; none of both says nothing', () => {
    expect(one(0, 48)).toMatchObject({ estimate: 0 });
    expect(one(48, 0).estimate).toBe(Infinity);
    expect(one(48, 0).interval(2)).toMatchObject({ high: Infinity });
    expect(one(48, 0).interval(2).low).toBeGreaterThan(5);
    expect(rateRatio([{ a: { count: 0, exposure: 1 }, b: { count: 0, exposure: 1 } }], 1)).toBeNull();
  });
  it('turned round it is the other’s, in strata too', () => {
    const strata = [
      { a: { count: 3, exposure: 1 }, b: { count: 9, exposure: 2 } },
      { a: { count: 1, exposure: 1 }, b: { count: 6, exposure: 1 } },
    ];
    const there = rateRatio(strata, 1.7)!;
    const back = rateRatio(
      strata.map(({ a, b }) => ({ a: b, b: a })),
      1.7,
    )!;
    expect(there.estimate * back.estimate).toBeCloseTo(1, 9);
    expect(there.interval(2.2).low * back.interval(2.2).high).toBeCloseTo(1, 9);
  });
});
