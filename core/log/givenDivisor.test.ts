import { describe, expect, it } from 'vitest';
import type { Trait } from '../model/plan';
import { noConditions } from '../model/treatment';
import { analysis, entry, heightTrait, height, plan, product, unitId, use } from '../testing/trial';
import { rowsOf } from '../analysis/rows';
import { givenDivisor, kilowattHours } from './givenDivisor';
import { deriveState } from './state';

const base = plan({ replicates: 2 });
const lit = {
  ...base,
  unitWidthCm: 50,
  unitDepthCm: 40,
  treatments: base.treatments.map((t) => ({
    ...t,
    conditions: { ...noConditions, lampW: 60, lampHours: 16, ppfd: 200 },
  })),
};
const unit = (p = lit) => p.units.find((u) => u.id === unitId('A', 0))!;
const of = (per: Trait['per'], day = 30, p = lit, log: Parameters<typeof deriveState>[1] = []) =>
  givenDivisor(deriveState(p, log), unit(p), { ...(per && { per }) }, day);

describe('what results are divided by, from plan and log', () => {
  it('kWh of the lamp, and mol of light on the ground, until that day', () => {
    expect(kilowattHours(60, 16, 30)).toBeCloseTo(28.8, 12);
    expect(of('energy')).toBeCloseTo(28.8, 12);
    // 200 µmol at 16 h is 11.52 mol a m² and day (trade.md); 0.2 m² for 30 days.
    expect(of('light')).toBeCloseTo(11.52 * 0.2 * 30, 9);
    expect(of('energy', 0)).toBeNull();
    expect(of('light', 30, { ...lit, unitWidthCm: null } as unknown as typeof lit)).toBeNull();
  });
  it('light as it was read at the unit’s own position goes first', () => {
    const { position } = unit();
    const read = {
      ...lit,
      gradient: { name: 'light', unit: 'µmol m⁻² s⁻¹', readings: [{ position, value: 100 }] },
    };
    expect(of('light', 30, read)).toBeCloseTo((11.52 / 2) * 0.2 * 30, 9);
    const lux = { ...lit, gradient: { ...read.gradient, unit: 'lux' } };
    expect(of('light', 30, lux)).toBeCloseTo(11.52 * 0.2 * 30, 9);
  });
  it('litres that went in by the log, whatever for; none is no divisor', () => {
    const feed = (litres: number, purpose?: 'topUp') =>
      entry({
        kind: 'feed',
        unitIds: [unitId('A', 0)],
        batch: 'B1',
        volumeLPerUnit: litres,
        ...(purpose && { purpose }),
      });
    expect(of('water', 30, lit, [feed(8), feed(1.5, 'topUp')])).toBe(9.5);
    expect(of('water')).toBeNull();
  });
  it('days since the start', () => {
    expect(of('day', 12)).toBe(12);
    expect(of('day', 0)).toBeNull();
  });
  it('grams of nitrogen by the products’ labels, in the rows of an analysis', () => {
    const fed = {
      ...base,
      products: [product({ form: 'powder', analysis: analysis({ nPercent: 10 }) })],
      treatments: base.treatments.map((t) =>
        t.name === 'A' ? { ...t, products: [use({ amount: 4, unit: 'g', timesPerUnit: 5 })] } : t,
      ),
    };
    const trait = { ...heightTrait(), per: 'nitrogen' as const };
    const log = [height(unitId('A', 0), 10, 'r2'), height(unitId('Water', 0), 10, 'r2')].map((b) => entry(b));
    const { rows, leftOut } = rowsOf(deriveState(fed, log), trait);
    expect(rows.map((r) => r.unit)).toEqual(['A-0']);
    // Five times 4 g at 10 %: 2 g.
    expect(rows[0]!.divisor).toBeCloseTo(2, 12);
    // Water got none: nothing can be divided by it, and that is said.
    expect(leftOut.find((u) => u.unitId === 'Water-0')?.reason).toMatch(/nitrogen/);
  });
});
