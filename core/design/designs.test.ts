import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { layoutResidualDf } from '../fairness/unitRules';
import { plan } from '../testing/trial';
import { interleaved } from './interleave';
import { layOut } from './layOut';
import { latinSquares, randomLatinSquare } from './latinSquare';
import { describeLayoutError } from './randomise';
import { seededRandom } from '../stats/random';
import { splitPlots } from './splitPlot';

const grid = (rows: number, columns: number, area = 'shelf') =>
  Array.from({ length: rows * columns }, (_, i) => ({
    area,
    row: Math.floor(i / columns),
    column: i % columns,
  }));
const letters = (k: number) => Array.from({ length: k }, (_, i) => String.fromCharCode(65 + i));

/** Upper 0.1 % point of chi-square by Wilson and Hilferty's cube-root approximation (1931, memory). */
const limit = (df: number) => df * (1 - 2 / (9 * df) + 3.0902 * Math.sqrt(2 / (9 * df))) ** 3;

function chiSquare(counts: Map<string, number>, cells: number): number {
  const total = [...counts.values()].reduce((s, n) => s + n, 0);
  const expected = total / cells;
  const seen = [...counts.values()].reduce((s, n) => s + (n - expected) ** 2 / expected, 0);
  return seen + (cells - counts.size) * expected;
}

describe('Latin squares', () => {
  it.each(Array.from({ length: 11 }, (_, i) => i + 2))(
    'of order %d hold each symbol once a row and column',
    (n) => {
      for (let seed = 0; seed < 20; seed++) {
        const square = randomLatinSquare(n, seededRandom(seed));
        const all = letters(n).map((_, i) => i);
        for (let i = 0; i < n; i++) {
          expect([...square[i]!].sort((a, b) => a - b)).toEqual(all);
          expect(square.map((row) => row[i]!).sort((a, b) => a - b)).toEqual(all);
        }
      }
    },
  );
  // Numbers of Latin squares: 2, 12, 576 (OEIS A002860, memory).
  it.each([
    [2, 2, 4000],
    [3, 12, 12_000],
    [4, 576, 17_280],
  ])('of order %d: all %d are equally likely (chi-square over %d seeds)', (n, squares, draws) => {
    const counts = new Map<string, number>();
    for (let seed = 0; seed < draws; seed++) {
      const key = randomLatinSquare(n, seededRandom(seed)).flat().join('');
      counts.set(key, (counts.get(key) ?? 0) + 1);
    }
    expect(counts.size).toBe(squares);
    expect(chiSquare(counts, squares)).toBeLessThan(limit(squares - 1));
  });
  it('stand in windows of free positions, side by side or over the levels of a shelf', () => {
    const twoLevels = [...grid(2, 4, 'one'), ...grid(2, 4, 'two')];
    const over = latinSquares({ treatments: letters(4), replicates: 4, cells: twoLevels, seed: 3 });
    expect(over.ok && new Set(over.value.map((c) => c.area)).size).toBe(2);
    const two = latinSquares({ treatments: letters(3), replicates: 6, cells: grid(3, 7), seed: 3 });
    if (!two.ok) throw new Error(two.error.tag);
    expect(new Set(two.value.map((c) => c.block))).toEqual(new Set([1, 2, 3, 4, 5, 6]));
    for (let b = 1; b <= 6; b++) {
      for (const key of ['block', 'columnBlock'] as const) {
        expect(
          two.value
            .filter((c) => c[key] === b)
            .map((c) => c.treatment)
            .sort(),
        ).toEqual(letters(3));
      }
    }
    expect(new Set(two.value.map((c) => `${c.row}/${c.column}`)).size).toBe(18);
  });
  it('step aside for a blocked corner', () => {
    const cells = grid(3, 4).filter((c) => !(c.row === 0 && c.column === 0));
    const placed = latinSquares({ treatments: letters(3), replicates: 3, cells, seed: 1 });
    expect(placed.ok && Math.min(...placed.value.map((c) => c.column))).toBe(1);
  });
  it('say why they can’t', () => {
    const input = { treatments: letters(3), replicates: 4, cells: grid(4, 4), seed: 1 };
    const uneven = latinSquares(input);
    expect(!uneven.ok && describeLayoutError(uneven.error)).toMatch(/3 units of each, or a multiple; not 4/);
    const narrow = latinSquares({ ...input, replicates: 3, cells: grid(8, 2) });
    expect(!narrow.ok && describeLayoutError(narrow.error)).toMatch(/3 × 3 free positions/);
  });
});

const shape = fc.record({
  k: fc.integer({ min: 1, max: 6 }),
  replicates: fc.integer({ min: 1, max: 5 }),
  settings: fc.integer({ min: 0, max: 3 }),
  columns: fc.integer({ min: 1, max: 8 }),
  seed: fc.nat(2 ** 32 - 1),
});

describe('split plots', () => {
  it('hold every treatment once in each main plot, every setting once in each replicate', () => {
    fc.assert(
      fc.property(shape, ({ k, replicates, settings, columns, seed }) => {
        const mains = replicates * Math.max(1, settings);
        const placed = splitPlots({
          treatments: letters(k),
          settings: letters(settings).map((s) => `lamp ${s}`),
          replicates,
          cells: grid(Math.ceil((k * mains) / columns) + 1, columns),
          seed,
        });
        if (!placed.ok) throw new Error(placed.error.tag);
        for (let m = 1; m <= mains; m++) {
          const main = placed.value.filter((c) => c.block === m);
          expect(main.map((c) => c.treatment).sort()).toEqual(letters(k));
          expect(new Set(main.map((c) => c.setting)).size).toBe(1);
        }
        for (let s = 0; s < settings; s++) {
          const with_ = placed.value.filter((c) => c.setting === `lamp ${letters(settings)[s]}`);
          expect(with_).toHaveLength(replicates * k);
        }
      }),
    );
  });
  it('give each order of settings the same chance (chi-square over 6,000 seeds)', () => {
    const counts = new Map<string, number>();
    for (let seed = 0; seed < 6000; seed++) {
      const placed = splitPlots({
        treatments: ['A'],
        settings: ['x', 'y', 'z'],
        replicates: 1,
        cells: grid(1, 3),
        seed,
      });
      if (!placed.ok) throw new Error(placed.error.tag);
      const key = placed.value.map((c) => c.setting).join('');
      counts.set(key, (counts.get(key) ?? 0) + 1);
    }
    expect(chiSquare(counts, 6)).toBeLessThan(limit(5));
  });
  it('need room for every main plot', () => {
    const placed = splitPlots({
      treatments: letters(3),
      settings: ['x', 'y'],
      replicates: 2,
      cells: grid(2, 5),
      seed: 1,
    });
    expect(placed).toEqual({ ok: false, error: { tag: 'tooFewPositions', wanted: 12, available: 10 } });
  });
});

describe('interleaving', () => {
  it('runs A B C A B C as it says, in no blocks, and ignores the seed', () => {
    fc.assert(
      fc.property(shape, ({ k, replicates, columns, seed }) => {
        const cells = grid(Math.ceil((k * replicates) / columns), columns);
        const placed = interleaved({ treatments: letters(k), replicates, cells, seed });
        if (!placed.ok) throw new Error(placed.error.tag);
        expect(placed.value.map((c) => c.treatment).join('')).toBe(letters(k).join('').repeat(replicates));
        expect(placed.value.every((c) => c.block === null)).toBe(true);
        expect(interleaved({ treatments: letters(k), replicates, cells, seed: 1 })).toEqual(placed);
      }),
    );
  });
  it('two trays of each of two stand A B A B and leave two degrees of freedom', () => {
    const p = plan({ treatments: ['A', 'B'], replicates: 2 });
    const shelf = { ...p, areas: [{ ...p.areas[0]!, rows: 1, columns: 4 }], units: [] };
    const design = { kind: 'interleave' as const, replicates: 2, seed: 1, settings: [], balance: null };
    const units = layOut(shelf, design);
    if (!units.ok) throw new Error(units.error.tag);
    const walk = [...units.value].sort((x, y) => x.position.column - y.position.column);
    expect(walk.map((u) => u.treatmentId).join('')).toBe('ABAB');
    expect(layoutResidualDf({ ...shelf, design, units: units.value })).toBe(2);
  });
});
