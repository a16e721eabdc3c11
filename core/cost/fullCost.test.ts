// Plain arithmetic, line by line.
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { type CostSettings, noCosts } from '../model/judgement';
import type { Plan } from '../model/plan';
import { entry, plan, unitId } from '../testing/trial';
import { breakEven, fullCost, priceFactor } from './fullCost';

const base = plan({ treatments: ['Water', 'A'], replicates: 2 });
const lit: Plan = {
  ...base,
  treatments: base.treatments.map((t) => ({
    ...t,
    conditions: { ...t.conditions, lampW: 50, lampHours: 16 },
  })),
};
const fed = [0, 1].map((r) =>
  entry({ kind: 'feed', unitIds: [unitId('A', r)], batch: '', volumeLPerUnit: 2 + 2 * r, purpose: 'topUp' }),
);
const of = (settings: Partial<CostSettings>, treatment = 'A') =>
  fullCost(
    deriveState(lit, fed),
    lit.treatments.find((t) => t.name === treatment)!,
    { minor: 40, currency: 'EUR' },
    { ...noCosts, ...settings },
    30,
  );

describe('all that a unit took', () => {
  it('products alone where nothing else is counted', () => {
    expect(of({})).toMatchObject({
      perUnit: { minor: 40 },
      outlay: { minor: 0 },
      running: { minor: 40 },
      unknown: [],
    });
  });
  it('water by the log, electricity by lamp and days, work by the hour', () => {
    // (2 + 4)/2 = 3 L at 1; 50 W × 16 h × 30 d = 24 kWh at 30; 15 min at 2,000 an hour.
    const cost = of({ waterMinorPerL: 1, kWhMinor: 30, minutesPerUnit: 15, hourMinor: 2000 });
    expect(cost.lines.map((l) => [l.name, l.minor])).toEqual([
      ['products', 40],
      ['water', 3],
      ['electricity', 720],
      ['work', 500],
    ]);
    expect(cost.perUnit.minor).toBe(1263);
  });
  it('what isn’t known is named, not taken for nothing', () => {
    expect(of({ waterMinorPerL: 1 }, 'Water').unknown).toEqual(['water']);
  });
  it('a container that lasts ten seasons, a device that four units share, for one contender alone', () => {
    const lines = [
      { id: 'c', name: 'container', minor: 500, sharedBy: 1, seasons: 10, treatmentIds: [] },
      { id: 'd', name: 'device', minor: 8000, sharedBy: 4, seasons: 20, treatmentIds: ['A'] },
      { id: 'm', name: 'medium', minor: 60, sharedBy: 1, seasons: 1, treatmentIds: [] },
    ];
    const a = of({ lines });
    // 40 + 50 + 100 + 60; laid out 500 + 2,000; every time 40 + 60.
    expect([a.perUnit.minor, a.outlay.minor, a.running.minor]).toEqual([250, 2500, 100]);
    expect(of({ lines }, 'Water').lines.map((l) => l.name)).toEqual(['products', 'container', 'medium']);
  });
});

describe('break-even and threshold', () => {
  it('3,000 more at the start and 210 less every time: after 15 times', () => {
    expect(breakEven({ outlay: 3000, running: 10 }, { outlay: 0, running: 220 })).toBe(15);
    expect(breakEven({ outlay: 420, running: 10 }, { outlay: 0, running: 220 })).toBe(2);
  });
  it('never, where it saves nothing or costs no more', () => {
    expect(breakEven({ outlay: 3000, running: 220 }, { outlay: 0, running: 220 })).toBeNull();
    expect(breakEven({ outlay: 0, running: 10 }, { outlay: 0, running: 220 })).toBeNull();
  });
  it('20 for 10 g more is 2 a gram; at twice the price it is the 4 of the other', () => {
    expect(priceFactor({ rest: 0, products: 20, gain: 10 }, 4)).toBe(2);
    expect(priceFactor({ rest: 10, products: 20, gain: 10 }, 4)).toBe(1.5);
    expect(priceFactor({ rest: 0, products: 0, gain: 10 }, 4)).toBeNull();
    expect(priceFactor({ rest: 50, products: 20, gain: 10 }, 4)).toBeNull();
  });
});
