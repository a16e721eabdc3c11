import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type ComparisonRow, describeComparisonError } from './comparison';
import { compareTreatments } from './compareTreatments';

const row = (treatment: string, value: number, unit?: string, block?: string): ComparisonRow => ({
  treatment,
  value,
  ...(unit && { unit }),
  ...(block && { block }),
});

const compared = (rows: ComparisonRow[], control = 'Water') => {
  const result = compareTreatments({ rows, control });
  if (!result.ok) throw new Error(result.error.tag);
  return result.value;
};

it('works the example by hand: F = 4.5 on 1 and 2', () => {
  const c = compared([row('Water', 1), row('Water', 3), row('A', 4), row('A', 6)]);
  expect(c.anova).toMatchObject({ dfTreatment: 1, dfResidual: 2 });
  expect(c.anova!.residualMeanSquare).toBeCloseTo(2, 12);
  expect(c.anova!.f).toBeCloseTo(4.5, 12);
  expect(c.versusControl[0]).toMatchObject({ name: 'A', percent: 150 });
  expect(c.versusControl[0]!.p).toBeCloseTo(c.anova!.p!, 9);
});

it('counts a unit once, however many samples it holds', () => {
  const rows = ['Water', 'A'].flatMap((t, k) =>
    [1, 2, 3].flatMap((u) => [0, 1, 2, 3].map((s) => row(t, 10 * k + u + s / 10, `${t}${u}`))),
  );
  const c = compared(rows);
  expect(c.treatments.map((t) => t.n)).toEqual([3, 3]);
  expect(c.anova!.dfResidual).toBe(4);
});

describe('one unit per treatment', () => {
  const c = compared([row('Water', 1), row('A', 4), row('B', 5)]);
  it('gives numbers but no test, interval or letter', () => {
    expect(c.anova).toBeNull();
    expect(c.letters).toEqual({});
    expect(c.versusControl[0]).toEqual({
      name: 'A',
      difference: 3,
      percent: 300,
      low: null,
      high: null,
      p: null,
      percentLow: null,
      percentTogether: null,
      percentBack: null,
      percentHigh: null,
    });
    expect(c.treatments[0]).toMatchObject({ n: 1, sd: null, low: null });
  });
});

describe('without a spread that was seen there is no p and no winner', () => {
  const untested = (c: ReturnType<typeof compared>) => {
    expect(c.letters).toEqual({});
    expect(c.anova?.p ?? null).toBeNull();
    expect(c.anova?.f ?? null).toBeNull();
    for (const d of [...c.pairs, ...c.versusControl])
      expect(d).toMatchObject({ low: null, high: null, p: null });
    for (const t of c.treatments) expect(t).toMatchObject({ low: null, high: null });
  };
  it('units of a treatment read the same', () => {
    const c = compared([row('Water', 1), row('Water', 1), row('A', 4), row('A', 4)]);
    expect(c.spread).toBe('zero');
    expect(c.versusControl[0]!.difference).toBe(3);
    untested(c);
  });
  it('tastes 4, 3 against 5, 4 in two blocks: the blocks explain all there is', () => {
    const c = compared([
      row('Water', 4, 'w1', '1'),
      row('Water', 3, 'w2', '2'),
      row('A', 5, 'a1', '1'),
      row('A', 4, 'a2', '2'),
    ]);
    expect(c.spread).toBe('zero');
    expect(c.versusControl[0]).toMatchObject({ difference: expect.closeTo(1, 12) });
    untested(c);
  });
  it('no degrees of freedom are left after blocks', () => {
    const c = compared([row('Water', 4, 'w1', '1'), row('A', 5, 'a1', '1'), row('A', 7, 'a2', '2')]);
    expect(c.spread).toBe('noFreedom');
    untested(c);
  });
  it('a residual below what rounding gives isn’t spread', () => {
    const rows = [row('Water', 10), row('Water', 10.1), row('A', 12), row('A', 12)];
    expect(compared(rows).spread).toBe('shown');
    const asked = compareTreatments({ rows, control: 'Water', leastVariance: 1 / 12 });
    expect(asked.ok && asked.value.spread).toBe('zero');
  });
});

it('shares a letter exactly when Tukey’s p is at least alpha', () => {
  const value = fc.double({ min: -50, max: 50, noNaN: true });
  const groups = fc.array(fc.array(value, { minLength: 2, maxLength: 5 }), { minLength: 2, maxLength: 5 });
  fc.assert(
    fc.property(groups, (g) => {
      const c = compared(
        g.flatMap((values, i) => values.map((v) => row(`t${i}`, v))),
        't0',
      );
      // Without spread nothing is tested, and there are no letters.
      if (c.spread !== 'shown') {
        expect(c.letters).toEqual({});
        return;
      }
      for (const { a, b, p } of c.pairs) {
        expect([...c.letters[a]!].some((l) => c.letters[b]!.includes(l))).toBe(p! >= 0.05);
      }
    }),
    { numRuns: 60 },
  );
});

it('doesn’t depend on the order of rows, and shifts with an added constant', () => {
  const value = fc.integer({ min: 0, max: 99 });
  fc.assert(
    fc.property(
      fc.array(value, { minLength: 12, maxLength: 12 }),
      fc.integer({ min: -5, max: 5 }),
      (v, shift) => {
        const rows = v.map((x, i) => row(['Water', 'A', 'B'][i % 3]!, x, undefined, `b${Math.floor(i / 3)}`));
        const base = compared(rows);
        const moved = compared([...rows].reverse().map((x) => ({ ...x, value: x.value + shift })));
        for (const d of base.versusControl) {
          const other = moved.versusControl.find((x) => x.name === d.name)!;
          expect(other.difference).toBeCloseTo(d.difference, 8);
          expect(other.p!).toBeCloseTo(d.p!, 8);
        }
      },
    ),
    { numRuns: 40 },
  );
});

describe('what is wrong with the data is said in one line', () => {
  it.each([
    [[], 'Water', 'noRows'],
    [[row('Water', 1), row('Water', 2)], 'Water', 'oneTreatment'],
    [[row('A', 1), row('B', 2)], 'Water', 'unknownControl'],
    [[row('Water', 1, 'u1'), row('A', 2, 'u1')], 'Water', 'unitInTwoTreatments'],
    [[row('Water', 1, 'u1', 'x'), row('Water', 2, 'u1', 'y'), row('A', 2)], 'Water', 'unitInTwoBlocks'],
    [[row('Water', 1, 'u1', 'x'), row('A', 2, 'u2', 'y')], 'Water', 'disconnected'],
    [[row('Water', NaN), row('A', 2)], 'Water', 'notFinite'],
  ])('%#', (rows, control, tag) => {
    const result = compareTreatments({ rows, control });
    expect(result).toMatchObject({ ok: false, error: { tag } });
    if (!result.ok) expect(describeComparisonError(result.error)).toMatch(/^[^\n]+\.$/);
  });
});
