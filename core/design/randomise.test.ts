import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plan } from '../testing/trial';
import type { UnitId } from '../model/ids';
import type { Area } from '../model/plan';
import { layOut, movesFor, positionsOf, walkOrder } from './layOut';
import { completelyRandomised, randomisedCompleteBlocks, serpentine } from './randomise';
import { seededRandom } from '../stats/random';

const grid = (rows: number, columns: number, area = 'shelf') =>
  Array.from({ length: rows * columns }, (_, i) => ({
    area,
    row: Math.floor(i / columns),
    column: i % columns,
  }));

/** Upper 0.1 % points of chi-square, from common tables (memory). */
const chiSquareLimit: Record<number, number> = { 5: 20.515, 23: 49.728 };

describe('the seeded generator', () => {
  it('is MT19937: its 10,000th number from seed 5489 is 4123659995 (C++ standard, [rand.predef])', () => {
    const r = seededRandom(5489);
    let last = 0;
    for (let i = 0; i < 10_000; i++) last = r.uniform();
    expect(last * 2 ** 32).toBe(4123659995);
  });
  it('gives the same draws for the same seed and others for another', () => {
    const draws = (seed: number) => {
      const r = seededRandom(seed);
      return Array.from({ length: 20 }, () => r.int(0, 1000));
    };
    expect(draws(7)).toEqual(draws(7));
    expect(draws(7)).not.toEqual(draws(8));
  });
  it('shuffles so that each of the 24 orders of four is equally likely (chi-square over 24,000 seeds)', () => {
    const counts = new Map<string, number>();
    for (let seed = 0; seed < 24_000; seed++) {
      const order = seededRandom(seed).shuffle(['a', 'b', 'c', 'd']).join('');
      counts.set(order, (counts.get(order) ?? 0) + 1);
    }
    expect(counts.size).toBe(24);
    const chi = [...counts.values()].reduce((s, n) => s + (n - 1000) ** 2 / 1000, 0);
    expect(chi).toBeLessThan(chiSquareLimit[23]!);
  });
  it('draws normal values of mean 0 and variance 1, within four standard errors', () => {
    const r = seededRandom(3);
    const n = 50_000;
    const x = Array.from({ length: n }, () => r.normal());
    const m = x.reduce((s, v) => s + v, 0) / n;
    const variance = x.reduce((s, v) => s + (v - m) ** 2, 0) / n;
    expect(Math.abs(m)).toBeLessThan(4 / Math.sqrt(n));
    expect(Math.abs(variance - 1)).toBeLessThan(4 * Math.sqrt(2 / n));
  });
});

it('completely random: each of the six layouts of two and two is equally likely', () => {
  const counts = new Map<string, number>();
  for (let seed = 0; seed < 6000; seed++) {
    const placed = completelyRandomised({ treatments: ['A', 'B'], replicates: 2, cells: grid(2, 2), seed });
    if (!placed.ok) throw new Error(placed.error.tag);
    const key = placed.value.map((c) => c.treatment).join('');
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  expect(counts.size).toBe(6);
  const chi = [...counts.values()].reduce((s, n) => s + (n - 1000) ** 2 / 1000, 0);
  expect(chi).toBeLessThan(chiSquareLimit[5]!);
});

const sizes = fc.record({
  k: fc.integer({ min: 1, max: 6 }),
  replicates: fc.integer({ min: 1, max: 6 }),
  columns: fc.integer({ min: 1, max: 8 }),
  seed: fc.nat(2 ** 32 - 1),
});

it('every design uses each treatment as often as asked, on positions of its own', () => {
  fc.assert(
    fc.property(sizes, ({ k, replicates, columns, seed }) => {
      const treatments = Array.from({ length: k }, (_, i) => i);
      const cells = grid(Math.ceil((k * replicates) / columns), columns);
      for (const design of [completelyRandomised, randomisedCompleteBlocks]) {
        const placed = design({ treatments, replicates, cells, seed });
        if (!placed.ok) throw new Error(placed.error.tag);
        expect(new Set(placed.value.map((c) => `${c.row}/${c.column}`)).size).toBe(k * replicates);
        for (const t of treatments)
          expect(placed.value.filter((c) => c.treatment === t)).toHaveLength(replicates);
      }
    }),
  );
});

it('complete blocks hold every treatment once, and keep to whole rows where rows hold them', () => {
  const placed = randomisedCompleteBlocks({
    treatments: ['A', 'B', 'C'],
    replicates: 4,
    cells: grid(4, 4),
    seed: 5,
  });
  if (!placed.ok) throw new Error(placed.error.tag);
  for (let b = 1; b <= 4; b++) {
    const block = placed.value.filter((c) => c.block === b);
    expect(block.map((c) => c.treatment).sort()).toEqual(['A', 'B', 'C']);
    expect(new Set(block.map((c) => c.row)).size).toBe(1);
  }
});

it('says what is missing', () => {
  const input = { treatments: ['A', 'B'], replicates: 3, cells: grid(1, 5), seed: 1 };
  expect(completelyRandomised(input)).toEqual({
    ok: false,
    error: { tag: 'tooFewPositions', wanted: 6, available: 5 },
  });
  expect(randomisedCompleteBlocks({ ...input, treatments: [] })).toMatchObject({
    error: { tag: 'noTreatments' },
  });
});

it('walks every other row backwards', () => {
  expect(serpentine(grid(2, 3)).map((c) => c.column)).toEqual([0, 1, 2, 2, 1, 0]);
});

const plain = { settings: [], balance: null };

describe('laying out a plan', () => {
  const empty = { ...plan({ treatments: ['Water', 'A', 'B'], replicates: 4 }), units: [] };
  it('numbers the labels along the walk', () => {
    const units = layOut(empty, { kind: 'rcbd', replicates: 4, seed: 9, ...plain });
    if (!units.ok) throw new Error(units.error.tag);
    const walked = walkOrder(units.value, new Map());
    expect(walked.map((u) => u.code)).toEqual(
      Array.from({ length: 12 }, (_, i) => `TST-${String(i + 1).padStart(2, '0')}`),
    );
  });
  it('is the same for the same seed', () => {
    const arms = (seed: number) => {
      const units = layOut(empty, { kind: 'crd', replicates: 4, seed, ...plain });
      return units.ok ? units.value.map((u) => u.treatmentId) : [];
    };
    expect(arms(4)).toEqual(arms(4));
    expect(arms(4)).not.toEqual(arms(5));
  });
  it('puts treatments side by side when placed by hand', () => {
    const units = layOut(empty, { kind: 'hand', replicates: 2, seed: 0, ...plain });
    expect(units.ok && units.value.map((u) => u.treatmentId)).toEqual(['Water', 'Water', 'A', 'A', 'B', 'B']);
  });
});

it('moving onto another unit swaps the two; anywhere, no unit is lost and none doubled', () => {
  const p = plan({ replicates: 3 });
  const cells = positionsOf(p.areas as Area[]);
  const start = new Map(p.units.map((u) => [u.id, u.position]));
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(p.units.length - 1), fc.nat(cells.length - 1))), (steps) => {
      const now = new Map(start);
      for (const [u, c] of steps) {
        const cell = cells[c]!;
        const to = {
          areaId: cell.area as (typeof p.areas)[number]['id'],
          row: cell.row,
          column: cell.column,
        };
        for (const m of movesFor(now, p.units[u]!.id as UnitId, to)) now.set(m.unitId, m.to);
      }
      expect(new Set([...now.values()].map((x) => `${x.row}/${x.column}`)).size).toBe(p.units.length);
    }),
  );
});
