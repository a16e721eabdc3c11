// Reference: R's lm through webR, on random unbalanced layouts with missing cells.
import { beforeAll, describe, expect, it } from 'vitest';
import { seededRandom } from '../stats/random';
import { type R, startR } from '../testing/r';
import { compareTreatments } from './compareTreatments';
import { dunnettFamily } from './dunnett';
import { type UnitRow, fitLinearModel } from './linearModel';

let r: R;
beforeAll(async () => {
  r = await startR();
});

/** k treatments in b blocks, a third of the cells empty, some filled twice. */
function ragged(k: number, b: number, seed: number): UnitRow[] {
  const random = seededRandom(seed);
  const rows: UnitRow[] = [];
  for (let treatment = 0; treatment < k; treatment++) {
    for (let block = 0; block < b; block++) {
      const times = treatment === 0 || block === 0 ? 1 : random.int(0, 2);
      for (let i = 0; i < times; i++) {
        rows.push({
          treatment,
          block,
          value: Number((10 + treatment + 2 * block + random.normal()).toFixed(3)),
        });
      }
    }
  }
  return rows;
}

describe.each([
  [3, 4, 1],
  [4, 3, 2],
  [5, 6, 3],
  [2, 8, 4],
  [6, 2, 5],
])('%d treatments in %d blocks', (k, b, seed) => {
  const rows = ragged(k, b, seed);
  const fit = fitLinearModel(rows, k, b);
  if (!fit.ok) throw new Error(fit.error.tag);
  const model = fit.value;
  const data = () =>
    `d <- data.frame(y = c(${rows.map((x) => x.value).join()}), t = factor(c(${rows.map((x) => x.treatment).join()})),
       b = factor(c(${rows.map((x) => x.block).join()}))); m <- lm(y ~ b + t, d)`;

  it('gives R’s sums of squares and adjusted differences with their standard errors', async () => {
    const [ssT, ssR, dfR] = await r.numbers(
      `${data()}; a <- anova(m); c(a[2, "Sum Sq"], a[3, "Sum Sq"], a[3, "Df"])`,
    );
    expect(model.treatmentSumOfSquares).toBeCloseTo(ssT!, 8);
    expect(model.residualSumOfSquares).toBeCloseTo(ssR!, 8);
    expect(model.dfResidual).toBe(dfR);
    const table = await r.numbers(
      `${data()}; s <- summary(m)$coefficients; t(s[grep("^t", rownames(s)), 1:2, drop = FALSE])`,
    );
    for (let i = 1; i < k; i++) {
      expect(model.adjustedMeans[i]! - model.adjustedMeans[0]!).toBeCloseTo(table[2 * i - 2]!, 9);
      const v = model.unscaledCovariance;
      const se = Math.sqrt(model.residualMeanSquare! * (v(i, i) + v(0, 0) - 2 * v(i, 0)));
      expect(se).toBeCloseTo(table[2 * i - 1]!, 9);
    }
  });

  it('gives the mean of R’s predictions over all blocks', async () => {
    const means = await r.numbers(
      `${data()}; g <- expand.grid(b = levels(d$b), t = levels(d$t)); tapply(predict(m, g), g$t, mean)`,
    );
    means.forEach((m, i) => expect(model.adjustedMeans[i]).toBeCloseTo(m, 9));
  });
});

it('treatments that never meet in a block are refused', () => {
  const rows = [0, 1].flatMap((t) => [1, 2].map((value) => ({ treatment: t, block: t, value })));
  expect(fitLinearModel(rows, 2, 2)).toEqual({ ok: false, error: { tag: 'disconnected', a: 0, b: 1 } });
  expect(fitLinearModel(rows, 3, 2)).toEqual({ ok: false, error: { tag: 'emptyTreatment', treatment: 2 } });
  expect(fitLinearModel(rows, 1, 2)).toEqual({ ok: false, error: { tag: 'tooFewTreatments' } });
});

it('Dunnett in blocks with missing cells keeps its family-wise error (4,000 null trials, four standard errors)', () => {
  // five treatments so that the correlations have no product form
  const layout = ragged(5, 5, 11);
  const random = seededRandom(99);
  const draw = () => layout.map((x) => ({ ...x, value: x.block + random.normal() }));
  const named = (rows: UnitRow[]) =>
    rows.map((x) => ({ treatment: `t${x.treatment}`, block: `b${x.block}`, value: x.value }));
  const once = compareTreatments({ rows: named(draw()), control: 't0' });
  if (!once.ok) throw new Error(once.error.tag);
  expect(once.value.dunnettMethod).toBe('lattice');
  // the critical value depends on the layout alone: half an interval over its standard error
  const wide = once.value.versusControl[0]!;
  const first = fitLinearModel(layout, 5, 5);
  if (!first.ok) throw new Error(first.error.tag);
  const v = first.value.unscaledCovariance;
  const factor = (i: number) => Math.sqrt(v(i, i) + v(0, 0) - 2 * v(i, 0));
  const critical =
    (wide.high! - wide.low!) / 2 / (factor(1) * Math.sqrt(once.value.anova!.residualMeanSquare));
  let wrong = 0;
  const runs = 4000;
  for (let run = 0; run < runs; run++) {
    const fit = fitLinearModel(draw(), 5, 5);
    if (!fit.ok) throw new Error(fit.error.tag);
    const { adjustedMeans: m, residualMeanSquare: ms } = fit.value;
    if ([1, 2, 3, 4].some((i) => Math.abs(m[i]! - m[0]!) > critical * factor(i) * Math.sqrt(ms!))) wrong += 1;
  }
  expect(Math.abs(wrong / runs - 0.05)).toBeLessThan(4 * Math.sqrt((0.05 * 0.95) / runs));
});

it('a family is worked out once and shared', () => {
  const correlation = [
    [1, 0.4],
    [0.4, 1],
  ];
  expect(dunnettFamily(correlation, 9)).toBe(
    dunnettFamily(
      correlation.map((x) => [...x]),
      9,
    ),
  );
});
