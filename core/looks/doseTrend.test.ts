// More and more of one product: every sentence with data that make it and data that don't; the slope by R's lm.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { ProductId } from '../model/ids';
import type { Plan } from '../model/plan';
import { startR } from '../testing/r';
import { harvest, plan, product, use } from '../testing/trial';
import { doseLadders, doseTrend, sayDoseTrend } from './doseTrend';
import { makeFinding } from '../account/finding';
import { findingInput } from '../account/findingInput';

const r = await startR();

const names = ['Water', 'Two', 'Five', 'Ten'];
const doses = [0, 2, 5, 10];
const base = plan({ treatments: names, replicates: 4, blocked: true });
const ladder: Plan = {
  ...base,
  products: [product({ name: 'Prova' })],
  treatments: base.treatments.map((t, i) => ({
    ...t,
    products:
      i === 0 ? [] : [use({ productId: 'feed' as ProductId, amount: doses[i]!, solutionLPerUnit: 1 })],
  })),
};
const noise = [
  [0.5, -1, 0.8, -0.2],
  [-0.4, 0.9, -0.9, 0.5],
  [1, -0.3, -0.6, 0.1],
  [-0.8, 0.4, 0.6, -0.5],
];
const values = (means: number[]) =>
  Object.fromEntries(names.map((n, i) => [n, noise[i]!.map((e) => Number((means[i]! + e).toFixed(1)))]));
function trend(means: number[], p = ladder) {
  const input = findingInput(deriveState(p, harvest(values(means))), p.traits[0]!);
  const f = makeFinding(input);
  if (!f.ok) throw new Error(f.error.tag);
  const found = doseTrend(input, f.value, doseLadders(p)[0]!)!;
  return { found, said: sayDoseTrend(found, f.value) };
}

describe('ladders of doses', () => {
  it('the control without the product is dose 0', () => {
    expect(doseLadders(ladder)).toEqual([
      { product: 'Prova', unit: 'mL/L', doses: names.map((id, i) => ({ id, dose: doses[i] })) },
    ]);
  });
  it('two doses, or doses beside other products, make none', () => {
    const two = { ...ladder, treatments: ladder.treatments.slice(1, 3) };
    expect(doseLadders(two)).toEqual([]);
    expect(doseLadders(plan())).toEqual([]);
  });
});

describe('the trend in words', () => {
  it('more gave more, up to a dose', () => {
    expect(trend([40, 46, 60, 60.2]).said).toBe(
      'More Prova gave more (p < 0.001, 0 to 10 mL/L). From 5 mL/L on nothing better was shown.',
    );
  });
  it('more gave more to the end', () => {
    expect(trend([40, 46, 52, 66]).said).toContain('The largest dose was better than every other.');
  });
  it('too much', () => {
    expect(trend([40, 55, 60, 30]).said).toMatch(
      / of Prova no straight trend was shown|gave less, which is worse/,
    );
    expect(trend([40, 55, 60, 30]).said).toMatch(
      /From 5 mL\/L on nothing better was shown; the best mean was at 5 mL\/L\.$/,
    );
  });
  it('nothing', () => {
    expect(trend([40, 40, 40, 40]).said).toMatch(
      /^Over 0 to 10 mL\/L of Prova no straight trend was shown \(p = [\d.]+\)\.$/,
    );
  });
  it('the slope and its p are those of a contrast in R’s lm', async () => {
    const means = [40, 43, 45, 47];
    const v = values(means);
    const { found } = trend(means);
    const [slope, p] = await r.numbers(`local({
      d <- data.frame(y = c(${names.flatMap((n) => v[n]!).join()}), t = factor(rep(1:4, each = 4)), b = factor(rep(1:4, 4)))
      x <- c(0, 2, 5, 10); w <- (x - mean(x)) / sum((x - mean(x))^2); m <- lm(y ~ b + t, d)
      k <- c(0, 0, 0, 0, w[-1]); e <- sum(k * coef(m)); s <- sqrt(drop(t(k) %*% vcov(m) %*% k)); c(e, 2 * pt(-abs(e / s), df.residual(m))) })`);
    expect(found.slope).toBeCloseTo(slope!, 9);
    expect(found.p).toBeCloseTo(p!, 9);
  });
});
