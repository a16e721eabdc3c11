// References: R's nls with SSlogis on ChickWeight and DNase, lm on logs (Loblolly); R's own data through webR.
// Coolbear et al. (1984), Farooq et al. (2005): t50 by hand.
import { describe, expect, it } from 'vitest';
import { startR } from '../testing/r';
import { areaUnder, atTimes, logisticFit, relativeGrowthRate } from './curves';
import { germination } from './germination';

const r = await startR();
const points = async (times: string, values: string) => {
  const [t, y] = [await r.numbers(times), await r.numbers(values)];
  return t.map((time, i) => ({ time, value: y[i]! }));
};

describe('curves', () => {
  it.each([
    [
      'ChickWeight, chick 1',
      'ChickWeight$Time[ChickWeight$Chick == 1]',
      'ChickWeight$weight[ChickWeight$Chick == 1]',
    ],
    [
      'ChickWeight, chick 6',
      'ChickWeight$Time[ChickWeight$Chick == 6]',
      'ChickWeight$weight[ChickWeight$Chick == 6]',
    ],
    ['DNase, run 1', 'log(DNase$conc[DNase$Run == 1])', 'DNase$density[DNase$Run == 1]'],
  ])('logistic by nls and SSlogis: %s', async (_, times, values) => {
    const fit = logisticFit(await points(times, values))!;
    const [asym, mid, scale] = await r.numbers(`local({
      d <- data.frame(x = ${times}, y = ${values})
      first <- coef(nls(y ~ SSlogis(x, a, m, s), d))
      coef(nls(y ~ a / (1 + exp((m - x) / s)), d, start = as.list(first), control = nls.control(tol = 1e-7, warnOnly = TRUE)))
    })`);
    expect(fit.asymptote / asym!).toBeCloseTo(1, 6);
    expect(fit.midpoint / mid!).toBeCloseTo(1, 6);
    expect(fit.rate * scale!).toBeCloseTo(1, 6);
  });
  it('growth rate of a Loblolly pine: the slope of lm on logs', async () => {
    const tree = 'Loblolly$Seed == 301';
    const [slope] = await r.numbers(`coef(lm(log(height) ~ age, Loblolly[${tree}, ]))[2]`);
    const own = relativeGrowthRate(await points(`Loblolly$age[${tree}]`, `Loblolly$height[${tree}]`));
    expect(own).toBeCloseTo(slope!, 12);
  });
  it('area by hand; values of one time are averaged; too few times give nothing', () => {
    expect(
      areaUnder(
        atTimes([
          { time: 4, value: 6 },
          { time: 0, value: 1 },
          { time: 0, value: 3 },
        ]),
      ),
    ).toBe(16);
    expect(areaUnder([{ time: 1, value: 2 }])).toBeNull();
    expect(
      relativeGrowthRate([
        { time: 1, value: 2 },
        { time: 2, value: 0 },
      ]),
    ).toBeNull();
    expect(logisticFit([1, 2, 3].map((time) => ({ time, value: time })))).toBeNull();
    expect(logisticFit([1, 2, 3, 4, 5].map((time) => ({ time, value: 0 })))).toBeNull();
  });
});

describe('germination', () => {
  it('by hand', () => {
    // 4 on day 3, 6 on day 5 of 12: N/2 = 5 lies a sixth of the way from day 3 (4) to day 5 (10)
    const g = germination(
      [
        { day: 5, count: 6 },
        { day: 3, count: 3 },
        { day: 3, count: 1 },
      ],
      12,
    );
    expect(g.percent).toBeCloseTo(1000 / 12, 12);
    expect(g.meanTime).toBeCloseTo(4.2, 12);
    expect(g.t50).toBeCloseTo(3 + 2 / 6, 12);
    expect(g.sdTime).toBeCloseTo(Math.sqrt((4 * 1.44 + 6 * 0.64) / 9), 12);
  });
  it('met exactly on a day is that day; before the first count it counts from day 0', () => {
    expect(
      germination(
        [
          { day: 3, count: 5 },
          { day: 6, count: 5 },
        ],
        10,
      ).t50,
    ).toBe(3);
    expect(germination([{ day: 4, count: 10 }], 10).t50).toBe(2);
  });
  it('nothing up: no times; one up: no spread', () => {
    expect(germination([{ day: 3, count: 0 }], 10)).toEqual({
      percent: 0,
      meanTime: null,
      t50: null,
      sdTime: null,
    });
    expect(germination([{ day: 3, count: 1 }], 10).sdTime).toBeNull();
  });
});
