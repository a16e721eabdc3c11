// Reference: the defining property of Fieller's interval (its ends are where the test of
// numerator − ratio × denominator is exactly at the limit), and a worked case done by hand.
import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { brownForsythe } from './brownForsythe';
import { compareTreatments } from './compareTreatments';
import { fiellerInterval } from './fieller';

it('worked case: means 12 and 10, each with variance 0.25, 20 df', () => {
  // t = 2.086; g = t²·0.25/100 = 0.010878; ratio 1.2
  // (1.2 ± (t/10)·√(0.25·(1 − g) + 1.44·0.25)) / (1 − g) = 1.2132 ± 0.1642
  const r = fiellerInterval({
    numerator: 12,
    denominator: 10,
    varNumerator: 0.25,
    varDenominator: 0.25,
    covariance: 0,
    critical: tQuantile(0.975, 20),
  })!;
  expect(r.low).toBeCloseTo(1.049, 3);
  expect(r.high).toBeCloseTo(1.3774, 3);
});

it('both ends solve (a − ρb)² = t²·Var(a − ρb)', () => {
  const amount = fc.double({ min: 1, max: 100, noNaN: true });
  fc.assert(
    fc.property(
      amount,
      amount,
      amount,
      amount,
      fc.double({ min: -0.9, max: 0.9, noNaN: true }),
      (a, b, v, w, c) => {
        const input = {
          numerator: a,
          denominator: b,
          varNumerator: v / 20,
          varDenominator: w / 20,
          covariance: (c * Math.sqrt(v * w)) / 20,
          critical: tQuantile(0.975, 9),
        };
        const interval = fiellerInterval(input);
        if (!interval) {
          expect(b ** 2).toBeLessThanOrEqual(tQuantile(0.975, 9) ** 2 * input.varDenominator);
          return;
        }
        for (const rho of [interval.low, interval.high]) {
          const variance = input.varNumerator - 2 * rho * input.covariance + rho ** 2 * input.varDenominator;
          const gap = (a - rho * b) ** 2 - tQuantile(0.975, 9) ** 2 * variance;
          expect(Math.abs(gap)).toBeLessThan(1e-6 * (a * a + rho * rho * b * b + 1));
        }
        expect(interval.low).toBeLessThanOrEqual(interval.high);
        // The per cent and the difference never lie on different sides of “none”.
        const spread = Math.sqrt(input.varNumerator + input.varDenominator - 2 * input.covariance);
        const apart = Math.abs(a - b) / spread - tQuantile(0.975, 9);
        if (Math.abs(apart) > 1e-6) expect(interval.low > 1 || interval.high < 1).toBe(apart > 0);
      },
    ),
  );
});

it('is open-ended, so null, when the control may be zero', () => {
  const near = { numerator: 5, denominator: 1, varNumerator: 1, varDenominator: 1, covariance: 0 };
  expect(fiellerInterval({ ...near, critical: tQuantile(0.975, 10) })).toBeNull();
});

it('keeps its digits far from zero', () => {
  const at = (offset: number) =>
    compareTreatments({
      control: 'w',
      rows: [1, 2, 3, 5].flatMap((v) => [
        { treatment: 'w', value: offset + v },
        { treatment: 'a', value: offset + 4 + v },
      ]),
    });
  const far = at(1e9);
  if (!far.ok) throw new Error('not compared');
  // 1e9 from zero the control's own spread is nothing: limits are those of the difference, as a share of it.
  const { low, high, percentTogether } = far.value.versusControl[0]!;
  expect(percentTogether!.low / ((100 * low!) / 1e9)).toBeCloseTo(1, 6);
  expect(percentTogether!.high / ((100 * high!) / 1e9)).toBeCloseTo(1, 6);
});
it('deviations that are equal by construction are no spread, far from zero too', () => {
  const pairs = [[1, 2], [3, 4.5], [7, 7.3]]; // prettier-ignore
  for (const offset of [0, 1e6, 1e9])
    expect(brownForsythe(pairs.map((g) => g.map((x) => x + offset))).f).toBeNull();
  expect(brownForsythe([[1, 2, 4], [1, 9, 30]]).f).not.toBeNull(); // prettier-ignore
});
