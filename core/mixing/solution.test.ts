// Hoagland and Arnon (1950), solution 1; IUPAC standard atomic weights; Sonneveld et al. 1999 (from memory).
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainSetUp } from '../model/mixingSetUp';
import type { Product } from '../model/product';
import { analysis, product } from '../testing/trial';
import { atomicWeight, oxideFactor } from './chemistry';
import { densityOf, spoonDensity } from './density';
import { elementShares, elementsIn } from './elements';
import { ionsOf, solutionOf } from './solution';
import { ecFromPpm, meqAt, ppmOf, sonneveldEc, strengthOf } from './strength';

describe('oxide factors, from atomic weights', () => {
  // The figures that handbooks print.
  it.each([
    ['P', 0.4364],
    ['K', 0.8301],
    ['Ca', 0.7147],
    ['Mg', 0.603],
    ['S', 0.4005],
  ] as const)('%s', (e, expected) => expect(Math.abs(oxideFactor[e] - expected)).toBeLessThan(1e-4));
});

/** A pure salt as a product: its elements by weight. */
function salt(
  parts: Partial<Record<'NO3' | 'P' | 'K' | 'Ca' | 'Mg' | 'S', number>>,
  molarMass: number,
): Product {
  const percent = (e: 'N' | 'P' | 'K' | 'Ca' | 'Mg' | 'S', n = 0) => (100 * n * atomicWeight[e]) / molarMass;
  return product({
    form: 'powder',
    analysis: analysis({
      nPercent: percent('N', parts.NO3),
      nitratePercent: percent('N', parts.NO3),
      p2o5Percent: percent('P', parts.P) / oxideFactor.P,
      k2oPercent: percent('K', parts.K) / oxideFactor.K,
      caPercent: percent('Ca', parts.Ca),
      mgPercent: percent('Mg', parts.Mg),
      sPercent: percent('S', parts.S),
    }),
  });
}

// Molar masses of the salts as usually weighed out, with their water of crystallisation.
const potassiumNitrate = salt({ K: 1, NO3: 1 }, 101.1);
const calciumNitrate = salt({ Ca: 1, NO3: 2 }, 236.15);
const potassiumPhosphate = salt({ K: 1, P: 1 }, 136.09);
const magnesiumSulfate = salt({ Mg: 1, S: 1 }, 246.47);
const hoagland = [
  { product: potassiumNitrate, amount: 0.005 * 101.1, unit: 'g' as const },
  { product: calciumNitrate, amount: 0.005 * 236.15, unit: 'g' as const },
  { product: potassiumPhosphate, amount: 0.001 * 136.09, unit: 'g' as const },
  { product: magnesiumSulfate, amount: 0.002 * 246.47, unit: 'g' as const },
];

describe('Hoagland and Arnon, solution 1', () => {
  const s = solutionOf(hoagland, null);
  it.each([
    ['N', 210],
    ['P', 31],
    ['K', 235],
    ['Ca', 200],
    ['Mg', 48.6],
    ['S', 64],
  ] as const)('%s mg/L', (e, expected) => {
    expect(Math.abs(s.mgPerL[e] - expected) / expected).toBeLessThan(0.006);
  });
  it('mmol/L and charges: 15 of nitrogen, 20 meq on either side', () => {
    expect(s.mmolPerL.N).toBeCloseTo(15, 9);
    expect(s.mmolPerL.K).toBeCloseTo(6, 9);
    expect(s.ions.cations).toBeCloseTo(20, 9);
    expect(s.ions.anions).toBeCloseTo(20, 9);
  });
  it('strength by Sonneveld is 2.09 mS/cm, and certain as far as the label goes', () => {
    expect(s.strength).toMatchObject({ ammoniumShare: null, incomplete: false });
    expect(s.strength.ec).toBeCloseTo(2.09, 9);
    expect([s.strength.low, s.strength.high]).toEqual([s.strength.ec, s.strength.ec]);
  });
});

describe('elements of a product', () => {
  const label = analysis({ nPercent: 10, p2o5Percent: 5, k2oPercent: 8, micros: { Fe: 0.1 } });
  it('by weight, by volume, and not without a density', () => {
    expect(elementShares(label).of).toMatchObject({ N: 0.1, Fe: 0.001, Zn: 0 });
    expect(elementShares(label).of.P).toBeCloseTo(0.05 * 0.43642, 5);
    expect(elementsIn(product({ analysis: label }), 5, 'mL')).toBeNull();
    expect(elementsIn(product({ analysis: label, densityKgPerL: 1.2 }), 5, 'mL')!.of.N).toBeCloseTo(0.6, 12);
    expect(elementsIn(product({ analysis: { ...label, basis: 'w/v' } }), 5, 'mL')!.of.N).toBeCloseTo(0.5, 12);
    expect(elementsIn(product({ analysis: label }), 1, 'piece')).toBeNull();
    expect(elementsIn(product(), 1, 'g')).toBeNull();
  });
  it('nitrogen is split as far as the label does', () => {
    const { nitrogen } = elementShares(analysis({ nPercent: 10, nitratePercent: 6, ammoniumPercent: 1 }));
    expect(nitrogen.nitrate).toBeCloseTo(0.06, 12);
    expect(nitrogen.unstated).toBeCloseTo(0.03, 12);
    expect(elementShares(analysis({ nPercent: 5, nitratePercent: 6 })).of.N).toBeCloseTo(0.06, 12);
  });
  it('five weighed spoons give a bulk density and its spread', () => {
    const d = spoonDensity({ volumeMl: 5, massesG: [4.7, 4.8, 4.8, 4.7, 4.75] });
    expect(d.gPerMl).toBeCloseTo(0.95, 12);
    // standard deviation of the five, R: sd(c(4.7, 4.8, 4.8, 4.7, 4.75)) = 0.05
    expect(d.sd * 5).toBeCloseTo(0.05, 12);
    expect(d.cvPercent).toBeCloseTo(100 * (0.05 / 4.75), 10);
    expect(densityOf(product({ densityKgPerL: 2 }))).toBe(2);
    expect(densityOf(product({ densityKgPerL: 2, spoon: { volumeMl: 5, massesG: [4.75, 4.75] } }))).toBe(
      0.95,
    );
  });
});

describe('a solution', () => {
  const label = product({ analysis: analysis({ nPercent: 10 }) });
  it('takes in the water it is made with', () => {
    const water = {
      ...plainSetUp.water,
      ec: 0.6,
      elementsMgPerL: { Ca: 80, N: 5 },
      bicarbonateMgPerL: 244,
    };
    const s = solutionOf([{ product: label, amount: 1, unit: 'g' }], water);
    expect(s.mgPerL.N).toBeCloseTo(105, 9);
    expect(s.nitrogen).toMatchObject({ nitrate: 5, unstated: expect.closeTo(100, 9) });
    expect(s.ions.cations).toBeCloseTo(160 / 40.078, 9);
    // 244 mg of HCO₃⁻ (61.017 g/mol) and 5 mg of nitrate nitrogen
    expect(s.ions.anions).toBeCloseTo(244 / 61.017 + 5 / 14.007, 3);
    expect(solutionOf([], { ...plainSetUp.water, ec: 0.6 }).strength.ec).toBeCloseTo(0.6, 12);
    expect(solutionOf([], null).strength.ec).toBe(0);
  });
  it('names what it doesn’t know, and says the strength is incomplete', () => {
    const s = solutionOf([{ product: product({ name: 'Ignota' }), amount: 5, unit: 'mL' }], null);
    expect(s.unknown.map((p) => p.name)).toEqual(['Ignota']);
    expect(s.strength.incomplete).toBe(true);
  });
  it('dilution keeps the mass: half in twice the water, and any two portions add up', () => {
    const dose = fc.double({ min: 0.001, max: 50, noNaN: true });
    fc.assert(
      fc.property(dose, dose, fc.double({ min: 0.1, max: 100, noNaN: true }), (a, b, litres) => {
        const at = (amount: number) => solutionOf([{ product: label, amount, unit: 'g' }], null).mgPerL.N;
        expect((at(a / litres) * litres) / at(a)).toBeCloseTo(1, 10);
        const two = solutionOf(
          [
            { product: label, amount: a, unit: 'g' },
            { product: label, amount: b, unit: 'g' },
          ],
          null,
        );
        expect(two.mgPerL.N / (at(a) + at(b))).toBeCloseTo(1, 10);
      }),
    );
  });
});

describe('strength', () => {
  it('the formula and its turning round', () => {
    expect(sonneveldEc(20)).toBeCloseTo(2.09, 12);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 60, noNaN: true }), (meq) => {
        expect(meqAt(sonneveldEc(meq))).toBeCloseTo(meq, 8);
      }),
    );
  });
  it('splits unstated nitrogen so that charges balance', () => {
    // 10 meq of cations, 2 of anions, 8 mmol N: all of it nitrate
    expect(strengthOf({ cations: 10, anions: 2, unstatedNitrogen: 8 })).toMatchObject({
      ammoniumShare: 0,
      ec: sonneveldEc(10),
    });
    // ammonium phosphate alone: half a mole of each charge
    expect(strengthOf({ cations: 0, anions: 5, unstatedNitrogen: 5 })).toMatchObject({
      ammoniumShare: 1,
      ec: sonneveldEc(5),
    });
  });
  it('lies between its ends, whatever the label leaves out', () => {
    const meq = fc.double({ min: 0, max: 40, noNaN: true });
    fc.assert(
      fc.property(meq, meq, meq, (cations, anions, unstatedNitrogen) => {
        const s = strengthOf({ cations, anions, unstatedNitrogen });
        expect(s.low).toBeLessThanOrEqual(s.ec + 1e-9);
        expect(s.ec).toBeLessThanOrEqual(s.high + 1e-9);
      }),
    );
  });
  it('ppm on three scales, and back', () => {
    expect([ppmOf(2, 500), ppmOf(2, 640), ppmOf(2, 700)]).toEqual([1000, 1280, 1400]);
    expect(ecFromPpm(1400, 700)).toBe(2);
  });
  it('urea carries no charge', () => {
    const urea = product({ analysis: analysis({ nPercent: 46, ureaPercent: 46 }) });
    expect(solutionOf([{ product: urea, amount: 1, unit: 'g' }], null).strength.ec).toBe(0);
    expect(ionsOf(elementsIn(urea, 1, 'g')!).cations).toBe(0);
  });
});
