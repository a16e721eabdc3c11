// The whole way from a label's words to milligrams in a litre, against plain arithmetic written here with
// the factors that handbooks print: NIST SP 811 (gallon, ounce, pound, teaspoon), P₂O₅ → P 0.4364,
// K₂O → K 0.8301 (trade tables).
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { usMeasures } from '../quantity/units';
import { analysis, product, use } from '../testing/trial';
import { costPerLitre } from './matching';
import { recipeOf } from './recipe';
import { aroundProduct, readRate } from './resolveRate';

const percent = fc.integer({ min: 0, max: 30 });
const label = fc.record({ n: percent, p: percent, k: percent, ca: percent, mg: percent, s: percent });
const figure = fc.integer({ min: 1, max: 400 }).map((x) => x / 20);
const volumeL = fc.integer({ min: 5, max: 400 }).map((x) => x / 10);

/** What a litre holds by hand, mg/L. */
const byHand = (
  l: { n: number; p: number; k: number; ca: number; mg: number; s: number },
  gPerL: number,
) => ({
  N: gPerL * 10 * l.n,
  P: gPerL * 10 * l.p * 0.4364,
  K: gPerL * 10 * l.k * 0.8301,
  Ca: gPerL * 10 * l.ca,
  Mg: gPerL * 10 * l.mg,
  S: gPerL * 10 * l.s,
});

/** Rates of powders as labels print them, and the grams in a litre they mean. */
const dryRates: [(x: number) => string, (x: number) => number][] = [
  [(x) => `${x} g/L`, (x) => x],
  [(x) => `${x} g / 5 gal`, (x) => x / (5 * 3.785411784)],
  [(x) => `${x} oz per 10 gallons`, (x) => (x * 28.349523125) / 37.85411784],
  [(x) => `${x} lb per 100 gal`, (x) => (x * 453.59237) / 378.5411784],
  [(x) => `${x} kg per 1000 L`, (x) => x],
  [(x) => `${x} g/100 L`, (x) => x / 100],
  [(x) => `${x} %`, (x) => x * 10],
];

it('a powder: rate, batch, scale and elements agree with plain arithmetic', () => {
  fc.assert(
    fc.property(
      label,
      figure,
      fc.constantFrom(...dryRates),
      volumeL,
      fc.constantFrom(0.01, 0.1, 1),
      (l, x, [words, gPerL], litres, step) => {
        const powder = product({
          form: 'powder',
          analysis: analysis({
            nPercent: l.n,
            p2o5Percent: l.p,
            k2oPercent: l.k,
            caPercent: l.ca,
            mgPercent: l.mg,
            sPercent: l.s,
          }),
        });
        const rate = readRate(words(x), aroundProduct(powder, usMeasures));
        if (!rate.ok) throw new Error(rate.error);
        const dose = use({ productId: powder.id, amount: rate.value.low, unit: 'g', solutionLPerUnit: 1 });
        const tools = { scaleStepG: step, liquidStepMl: null };
        const { lines, made } = recipeOf([dose], [powder], litres, tools, null);
        const wanted = gPerL(x) * litres;
        expect(lines[0]!.wanted / wanted).toBeCloseTo(1, 9);
        // the nearest whole step, whichever way a tie falls
        expect(Math.abs(lines[0]!.measured - wanted)).toBeLessThanOrEqual(step / 2 + 1e-9 * wanted);
        expect(Math.abs(lines[0]!.measured / step - Math.round(lines[0]!.measured / step))).toBeLessThan(
          1e-6,
        );
        const hand = byHand(l, lines[0]!.measured / litres);
        for (const e of ['N', 'P', 'K', 'Ca', 'Mg', 'S'] as const) {
          // handbook factors have four digits
          expect(Math.abs(made!.mgPerL[e] - hand[e])).toBeLessThanOrEqual(1.5e-4 * hand[e] + 1e-9);
        }
      },
    ),
  );
});

it('a liquid by the teaspoon: density, elements and money agree with plain arithmetic', () => {
  fc.assert(
    fc.property(
      label,
      figure,
      volumeL,
      fc.integer({ min: 80, max: 150 }).map((d) => d / 100),
      fc.integer({ min: 100, max: 9000 }),
      (l, x, litres, density, priceMinor) => {
        const liquid = product({
          densityKgPerL: density,
          analysis: analysis({ nPercent: l.n, k2oPercent: l.k }),
          packs: [{ ...product().packs[0]!, size: 1, unit: 'gal', priceMinor }],
        });
        const rate = readRate(`${x} tsp per gallon`, aroundProduct(liquid, usMeasures));
        if (!rate.ok) throw new Error(rate.error);
        const mlPerL = (x * 4.92892159375) / 3.785411784;
        expect(rate.value).toMatchObject({ unit: 'mL', per: 'L' });
        expect(rate.value.low / mlPerL).toBeCloseTo(1, 9);
        const dose = use({ productId: liquid.id, amount: rate.value.low, unit: 'mL', solutionLPerUnit: 1 });
        const exact = { scaleStepG: null, liquidStepMl: null };
        const { lines, made } = recipeOf([dose], [liquid], litres, exact, null);
        expect(lines[0]!.measured / (mlPerL * litres)).toBeCloseTo(1, 9);
        const hand = byHand({ ...l, p: 0 }, mlPerL * density);
        expect(Math.abs(made!.mgPerL.N - hand.N)).toBeLessThanOrEqual(1e-9 * hand.N + 1e-9);
        expect(Math.abs(made!.mgPerL.K - hand.K)).toBeLessThanOrEqual(1.5e-4 * hand.K + 1e-9);
        // a gallon of 3,785 mL at its price
        const cost = costPerLitre(
          { doses: [{ product: liquid, amount: rate.value.low, unit: 'mL', packId: null }] },
          { water: null, currency: 'EUR', exchange: [] },
        )!;
        expect(cost.minor / ((priceMinor * mlPerL) / 3785.411784)).toBeCloseTo(1, 9);
      },
    ),
  );
});
