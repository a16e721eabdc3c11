import { describe, expect, it } from 'vitest';
import { plan } from '../testing/trial';
import type { Plan } from '../model/plan';
import { balanceSearch } from './balance';
import { layOut, positionsOf } from './layOut';
import { exposureSpreadPercent, meanExposure } from './rotation';

const base = plan({ treatments: ['Water', 'A', 'B', 'C'], replicates: 4 });
const lit: Plan = {
  ...base,
  gradient: {
    name: 'Light',
    unit: 'µmol m⁻² s⁻¹',
    readings: positionsOf(base.areas).map((c) => ({
      position: { areaId: base.areas[0]!.id, row: c.row, column: c.column },
      value: 150 + 12 * c.row + 7 * c.column,
    })),
  },
};
const design = { kind: 'crd' as const, replicates: 4, seed: 12, settings: [] };

function search(seed: number, candidates = 400) {
  const s = balanceSearch(lit, { ...design, seed }, candidates);
  if (!s.ok) throw new Error(s.error.tag);
  while (!s.value.step(100));
  return s.value.result();
}

describe('balanced re-randomisation', () => {
  it('reaches the balance it reports, with the seed it reports', () => {
    const found = search(12);
    const units = layOut(lit, { ...design, seed: found.seed, balance: null });
    if (!units.ok) throw new Error(units.error.tag);
    const spread = exposureSpreadPercent(meanExposure({ ...lit, units: units.value }));
    expect(spread).toBeCloseTo(found.balance.spreadPercent, 9);
    expect(found.balance.candidates).toBe(400);
  });
  it('is far more alike than first draws are, on the average of 30 seeds', () => {
    const found = Array.from({ length: 30 }, (_, i) => search(i, 200));
    const mean = (xs: number[]) => xs.reduce((s, x) => s + x, 0) / xs.length;
    expect(mean(found.map((f) => f.balance.spreadPercent))).toBeLessThan(
      mean(found.map((f) => f.firstSpreadPercent)) / 2,
    );
  });
  it('is the same for the same seed, and leaves chance its say over seeds', () => {
    expect(search(5)).toEqual(search(5));
    expect(new Set([1, 2, 3, 4, 5, 6].map((s) => search(s).seed)).size).toBe(6);
  });
  it('needs a reading at every position it may use', () => {
    const bare = balanceSearch({ ...lit, gradient: null }, design, 10);
    expect(bare).toEqual({ ok: false, error: { tag: 'noReadings' } });
    const half = { ...lit.gradient!, readings: lit.gradient!.readings.slice(3) };
    expect(balanceSearch({ ...lit, gradient: half }, design, 10)).toMatchObject({
      error: { tag: 'unread', positions: 3 },
    });
  });
});
