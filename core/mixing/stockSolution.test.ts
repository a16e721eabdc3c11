import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { analysis, product } from '../testing/trial';
import { CAUTIOUS_G_PER_L, describeStockError, stockSolution } from './stockSolution';

const powder = product({ form: 'powder' });
const weighed = { product: powder, unit: 'g', wanted: 2.4, step: 1, liquidStepMl: 1 } as const;
const poured = { product: product(), unit: 'mL', wanted: 1.32, step: 0.5, liquidStepMl: 0.5 } as const;
const refused = (asked: Parameters<typeof stockSolution>[0]) => {
  const r = stockSolution(asked);
  return r.ok ? '' : describeStockError(r.error);
};

describe('a stock solution', () => {
  it('cures what the scale can’t weigh', () => {
    // 25 g can be weighed to half a gram, 2 %; in 250 mL they are 100 g/L: 24 mL hold 2.4 g
    expect(stockSolution(weighed)).toMatchObject({
      ok: true,
      value: {
        amount: 25,
        unit: 'g',
        volumeL: 0.25,
        take: { measured: 24, errorPercent: 0 },
        batches: 10,
        bound: 'unknownSolubility',
      },
    });
  });
  it('of a liquid is a dilution, never more than half of it the product', () => {
    // 20 mL in 100 mL are 200 mL/L: 1.32 mL are in 6.6 mL, 6.5 in steps of half a millilitre
    expect(stockSolution(poured)).toMatchObject({
      ok: true,
      value: { amount: 20, unit: 'mL', volumeL: 0.1, take: { measured: 6.5 }, bound: 'halfWater' },
    });
  });
  it('stays within its bound and the limit, and holds what was wanted', () => {
    fc.assert(
      fc.property(
        fc.record({
          unit: fc.constantFrom('g' as const, 'mL' as const),
          wanted: fc.double({ min: 0.05, max: 20, noNaN: true }),
          step: fc.constantFrom(0.1, 1, 2),
          liquidStepMl: fc.constantFrom(0.2, 1, 5),
          solubilityGPerL: fc.constantFrom(null, 60, 300, 900),
        }),
        ({ solubilityGPerL, ...asked }) => {
          const form = asked.unit === 'g' ? 'powder' : 'liquid';
          const r = stockSolution({ ...asked, product: product({ form, solubilityGPerL }) });
          if (!r.ok) {
            expect(describeStockError(r.error)).toMatch(/stock|dilution|syringe/);
            return;
          }
          const { amount, volumeL, take, batches } = r.value;
          const most = form === 'liquid' ? 500 : (solubilityGPerL ?? 2 * CAUTIOUS_G_PER_L) / 2;
          expect(amount / volumeL).toBeLessThanOrEqual(most * (1 + 1e-9));
          expect(Math.abs(take.errorPercent)).toBeLessThanOrEqual(2);
          expect(asked.step / 2 / amount).toBeLessThanOrEqual(0.02 + 1e-9);
          expect(batches).toBeGreaterThanOrEqual(1);
          // mass is conserved: what the batch takes of the stock holds what was wanted
          const held = (take.wanted / 1000) * (amount / volumeL);
          expect(held / asked.wanted).toBeCloseTo(1, 9);
        },
      ),
    );
  });
  it('says when the tools or the solubility don’t allow it', () => {
    const hardly = product({ form: 'powder', solubilityGPerL: 10 });
    expect(refused({ ...weighed, product: hardly, step: 50 })).toMatch(/more than 10 g dissolve/);
    expect(refused({ ...poured, wanted: 900, step: 50 })).toMatch(/mL to be measured well/);
    expect(refused({ ...weighed, wanted: 0.01, liquidStepMl: 100 })).toMatch(/finer syringe/);
  });
  it('is refused to what falls out of a strong solution: calcium with phosphate or sulfate in one powder', () => {
    const both = { p2o5Percent: 6, caPercent: 4 };
    const lime = analysis(both);
    expect(refused({ ...weighed, product: product({ form: 'powder', analysis: lime }) })).toMatch(/fall out/);
    const gypsum = analysis({ sPercent: 3, caPercent: 4 });
    expect(refused({ ...weighed, product: product({ form: 'granules', analysis: gypsum }) })).toMatch(
      /fall out/,
    );
    // as a liquid it is dissolved already, and one of the two alone dissolves
    expect(refused({ ...poured, product: product({ analysis: lime }) })).toBe('');
    expect(
      refused({ ...weighed, product: product({ form: 'powder', analysis: analysis({ caPercent: 4 }) }) }),
    ).toBe('');
  });
  it('is refused to what lives, powder or liquid', () => {
    const living = ['living' as const];
    expect(refused({ ...weighed, product: product({ form: 'powder', character: living }) })).toMatch(/lives/);
    expect(refused({ ...poured, product: product({ character: living }) })).toMatch(/lives/);
  });
});
