import { describe, expect, it } from 'vitest';
import { analysis, product } from '../testing/trial';
import type { MatchedArm } from './matching';
import { sayElement, sayLasts, sayNutrient, sayStrength, sayUnknown } from './sayStrength';
import { solutionOf } from './solution';

const known = product({
  name: 'Polvere',
  form: 'powder',
  analysis: analysis({ nPercent: 10, nitratePercent: 10, caPercent: 14.3 }),
});
const noDensity = product({ name: 'Luce', analysis: analysis({ nPercent: 3 }) });
const per = (p: typeof known, unit: 'g' | 'mL') => ({ product: p, amount: 1, unit });

describe('a strength as it may be said', () => {
  it('of a liquid by weight without a density there is none: not 0.00 ± 10 %', () => {
    const s = solutionOf([per(noDensity, 'mL')], null);
    expect(sayStrength(s, 1)).toBe('not known');
    expect(sayElement(s.mgPerL.N, s)).toBe('not known');
    expect(sayUnknown(s.unknown)).toBe('Luce: give its density (weigh 100 mL)');
  });
  it('with one known product of two it is a floor', () => {
    const s = solutionOf([per(known, 'g'), per(noDensity, 'mL')], null);
    expect(sayStrength(s, 2)).toMatch(/^at least \d\.\d\d mS\/cm$/);
    expect(sayElement(s.mgPerL.N, s)).toBe('≥ 100');
  });
  it('of known products it has its error', () => {
    expect(sayStrength(solutionOf([per(known, 'g')], null), 1)).toMatch(/mS\/cm, ± 10 %$/);
  });
});

describe('a nutrient side by side', () => {
  const arm = (amount: number): MatchedArm => ({
    id: 'x' as never,
    doses: [{ ...per(known, 'g'), amount, factor: 1, label: null }],
    solution: solutionOf([{ ...per(known, 'g'), amount }], null),
    costPerL: null,
    problem: null,
  });
  const two = [
    { name: 'A', arm: arm(1) },
    { name: 'B', arm: arm(1) },
  ];
  it('alike in a litre and not in a week is told as both', () => {
    expect(
      sayNutrient(
        two,
        [
          { name: 'A', mg: 345 },
          { name: 'B', mg: 188 },
        ],
        'bucket',
      ),
    ).toBe('A litre of each has about the same nitrogen; in a week a bucket of A gets 345 mg, of B 188 mg.');
  });
  it('alike in both needs no second half; unequal in a litre is told as such', () => {
    expect(
      sayNutrient(
        two,
        [
          { name: 'A', mg: 345 },
          { name: 'B', mg: 340 },
        ],
        'bucket',
      ),
    ).toBe('A litre of each has about the same nitrogen.');
    expect(
      sayNutrient(
        [two[0]!, { name: 'C', arm: arm(2) }],
        [
          { name: 'A', mg: 100 },
          { name: 'C', mg: 200 },
        ],
        'pot',
      ),
    ).toBe('A litre of C has 2.0 times the nitrogen of a litre of A: 200 against 100 mg.');
    expect(sayNutrient([two[0]!], [], 'pot')).toMatch(/^Milligrams of each element/);
  });
});

it('an empty pack never “lasts the programme”', () => {
  const say = (outOnDay: number | null, ahead: number, left: number) =>
    sayLasts({ outOnDay, ahead, perFeed: 2 }, left, (d) => `the ${d}th`);
  expect(say(null, 3, 10)).toBe('lasts the programme');
  expect(say(14, 3, 4)).toBe('day 14, the 14th');
  expect(say(null, 0, 0)).toBe('not enough for another feed');
  expect(say(null, 0, 4)).toBe('no feeds planned on fixed days ahead');
  expect(sayLasts(null, 4, String)).toBe('not used by this trial');
});
