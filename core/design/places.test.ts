// What holds for every design: units stand on free places only, blocks are whole, and the same seed lays out
// the same.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { AreaId } from '../model/ids';
import { type Area, type DesignKind, Plan, designKinds } from '../model/plan';
import { positionKey, reservedUse } from '../model/positions';
import { plan as somePlan } from '../testing/trial';
import { balanceSearch } from './balance';
import { layOut, placeTreatments, positionsOf } from './layOut';
import { randomisedCompleteBlocks } from './randomise';
import { meanExposure, rotationPlan } from './rotation';

const anyAreas = fc
  .array(
    fc.record({
      rows: fc.integer({ min: 1, max: 7 }),
      columns: fc.integer({ min: 1, max: 7 }),
      reserved: fc.array(
        fc.record({
          row: fc.nat(6),
          column: fc.nat(6),
          use: fc.constantFrom('blocked' as const, 'guard' as const),
        }),
        { maxLength: 6 },
      ),
    }),
    { minLength: 1, maxLength: 3 },
  )
  .map((list): Area[] =>
    list.map((a, i) => ({
      id: `area-${i}` as AreaId,
      name: `Level ${i + 1}`,
      kind: 'shelf',
      widthCm: null,
      depthCm: null,
      ...a,
      reserved: a.reserved.filter(
        (c, n, all) =>
          c.row < a.rows &&
          c.column < a.columns &&
          all.findIndex((o) => o.row === c.row && o.column === c.column) === n,
      ),
    })),
  );

const anyLayout = fc.record({
  areas: anyAreas,
  kind: fc.constantFrom(...designKinds),
  k: fc.integer({ min: 2, max: 4 }),
  replicates: fc.integer({ min: 1, max: 4 }),
  settings: fc.constantFrom<string[]>([], ['x', 'y']),
  seed: fc.nat(2 ** 31),
});

const planOn = (areas: Area[], k: number): Plan => ({
  ...somePlan({ treatments: ['Water', 'A', 'B', 'C'].slice(0, k) }),
  areas,
  units: [],
  design: null,
});

describe('whatever the places and the design', () => {
  it('units stand on free places, each on its own, and every treatment as often as asked', () => {
    fc.assert(
      fc.property(anyLayout, ({ areas, kind, k, replicates, settings, seed }) => {
        const plan = planOn(areas, k);
        const design = { kind, replicates, seed, settings: kind === 'split' ? settings : [], balance: null };
        const units = layOut(plan, design);
        const each = replicates * (kind === 'split' ? Math.max(1, settings.length) : 1);
        if (!units.ok) {
          if (units.error.tag === 'tooFewPositions') {
            expect(positionsOf(areas).length).toBeLessThan(k * each);
          } else expect(['noRoomForSquare', 'notWholeSquares']).toContain(units.error.tag);
          return;
        }
        expect(units.value).toHaveLength(k * each);
        expect(new Set(units.value.map((u) => positionKey(u.position))).size).toBe(k * each);
        for (const u of units.value) {
          const area = areas.find((a) => a.id === u.position.areaId)!;
          expect(reservedUse(area, u.position.row, u.position.column)).toBeNull();
        }
        for (const t of plan.treatments) {
          expect(units.value.filter((u) => u.treatmentId === t.id)).toHaveLength(each);
        }
        expect(Plan.safeParse({ ...plan, design, units: units.value }).error).toBeUndefined();
      }),
      { numRuns: 300 },
    );
  });
  it('blocks hold every treatment once', () => {
    fc.assert(
      fc.property(anyLayout, ({ areas, kind, k, replicates, settings, seed }) => {
        const placed = placeTreatments(planOn(areas, k), {
          kind,
          replicates,
          seed,
          settings: kind === 'split' ? settings : [],
        });
        if (!placed.ok || kind === 'crd' || kind === 'hand' || kind === 'interleave') return;
        const blocks = new Map<number, string[]>();
        for (const c of placed.value) blocks.set(c.block!, [...(blocks.get(c.block!) ?? []), c.treatment]);
        for (const arms of blocks.values()) expect(new Set(arms).size).toBe(k);
        for (const arms of blocks.values()) expect(arms).toHaveLength(k);
      }),
      { numRuns: 200 },
    );
  });
  it('the same seed lays out the same, units of a code at a place', () => {
    fc.assert(
      fc.property(anyLayout, ({ areas, kind, k, replicates, settings, seed }) => {
        const design = { kind, replicates, seed, settings, balance: null };
        const told = () => {
          const units = layOut(planOn(areas, k), design);
          return units.ok ? units.value.map(({ id: _, ...u }) => u) : units.error;
        };
        expect(told()).toEqual(told());
      }),
      { numRuns: 60 },
    );
  });
});

it('each order inside a block is equally likely (chi-square over 6,000 seeds)', () => {
  const counts = new Map<string, number>();
  const cells = Array.from({ length: 6 }, (_, i) => ({ area: '', row: Math.floor(i / 3), column: i % 3 }));
  for (let seed = 0; seed < 6000; seed++) {
    const placed = randomisedCompleteBlocks({ treatments: ['A', 'B', 'C'], replicates: 2, cells, seed });
    if (!placed.ok) throw new Error(placed.error.tag);
    const key = placed.value.map((c) => c.treatment).join('');
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  // two blocks of six orders each: 36 layouts
  expect(counts.size).toBe(36);
  const expected = 6000 / 36;
  const chi = [...counts.values()].reduce((s, n) => s + (n - expected) ** 2 / expected, 0);
  // Upper 0.1 % point of chi-square with 35 degrees of freedom, from common tables (memory).
  expect(chi).toBeLessThan(66.62);
});

describe('gradients', () => {
  const lit = (kind: DesignKind, replicates: number) => {
    const area = { ...somePlan().areas[0]!, rows: 8, columns: 8, reserved: [] };
    const plan = {
      ...planOn([area], 4),
      gradient: {
        name: 'Light',
        unit: '',
        readings: Array.from({ length: 64 }, (_, i) => ({
          position: { areaId: area.id, row: Math.floor(i / 8), column: i % 8 },
          value: 100 + 9 * (i % 8) + 4 * Math.floor(i / 8),
        })),
      },
    };
    return { plan, design: { kind, replicates, seed: 3, settings: [] } };
  };
  it.each(['crd', 'rcbd', 'split'] as const)('%s can be balanced', (kind) => {
    const { plan, design } = lit(kind, 4);
    const search = balanceSearch(plan, design, 300);
    if (!search.ok) throw new Error(search.error.tag);
    search.value.step(300);
    const found = search.value.result();
    expect(found.balance.spreadPercent).toBeLessThanOrEqual(found.firstSpreadPercent);
    expect(search.value.done()).toBe(300);
  });
  it('a Latin square balances a plane by itself', () => {
    const { plan, design } = lit('latin', 4);
    const search = balanceSearch(plan, design, 20);
    if (!search.ok) throw new Error(search.error.tag);
    search.value.step(20);
    expect(search.value.result().balance.spreadPercent).toBeCloseTo(0, 9);
  });
  it('what can’t be laid out can’t be balanced', () => {
    const { plan, design } = lit('latin', 5);
    expect(balanceSearch(plan, design, 20)).toMatchObject({ error: { tag: 'notWholeSquares' } });
  });
  it('exposure over a rotation is the mean of what the turns give', () => {
    const { plan } = lit('crd', 2);
    const units = layOut(plan, { kind: 'crd', replicates: 2, seed: 4, settings: [], balance: null });
    if (!units.ok) throw new Error(units.error.tag);
    const turning = { ...plan, units: units.value, rotation: { everyDays: 2, within: 'all' as const } };
    const turns = rotationPlan(turning);
    const readings = new Map(plan.gradient.readings.map((r) => [positionKey(r.position), r.value]));
    const water = plan.treatments[0]!.id;
    const all = turns.flatMap((t) =>
      units.value
        .filter((u) => u.treatmentId === water)
        .map((u) => readings.get(positionKey(t.positions.get(u.id)!))!),
    );
    expect(meanExposure(turning).get(water)).toBeCloseTo(all.reduce((s, v) => s + v, 0) / all.length, 9);
  });
});
