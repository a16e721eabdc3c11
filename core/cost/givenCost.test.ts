import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import type { ProductId, TreatmentId } from '../model/ids';
import type { Plan } from '../model/plan';
import { entry, harvest, plan, product, unitId, use } from '../testing/trial';
import { paidOf } from '../account/paid';
import { findingOf } from '../account/findingInput';
import { makeVerdict } from '../verdict/verdict';
import { givenCost } from './givenCost';

/** Planned: five times 10 mL into each of three trays; a litre costs 10.00. */
const p: Plan = {
  ...plan({ replicates: 3 }),
  products: [product()],
  treatments: plan().treatments.map((t, i) =>
    i === 1 ? { ...t, products: [use({ amount: 10, solutionLPerUnit: 1, timesPerUnit: 5 })] } : t,
  ),
};
const a = p.treatments[1]!;
const mix = (batch: string, amount: number, fromStock?: string) =>
  entry({
    kind: 'mix',
    treatmentId: 'A' as TreatmentId,
    batch,
    volumeL: 4,
    amounts: [{ productId: 'feed' as ProductId, amount, unit: 'mL', ...(fromStock ? { fromStock } : {}) }],
  });
const feed = (batch: string, volumeLPerUnit: number) =>
  entry({ kind: 'feed', unitIds: [0, 1, 2].map((i) => unitId('A', i)), batch, volumeLPerUnit });
const perUnit = (...log: Parameters<typeof deriveState>[1]) => {
  const cost = givenCost(deriveState(p, log), a);
  return cost?.ok ? cost.value.perUnit.minor : cost;
};

describe('what was given, by the log', () => {
  it('nothing in the log is no figure, not nought', () => {
    expect(perUnit()).toBeNull();
  });
  it('a batch without its feeding was all given: 60 mL are 0.60, 0.20 a tray', () => {
    expect(perUnit(mix('A1', 60))).toBeCloseTo(20, 9);
  });
  it('of a batch of 4 L with 3 L fed three quarters are counted', () => {
    expect(perUnit(mix('A1', 60), feed('A1', 1))).toBeCloseTo(15, 9);
  });
  it('one bucket for two feedings is paid once', () => {
    const once = perUnit(mix('A1', 60), feed('A1', 0.5));
    const twice = perUnit(mix('A1', 60), feed('A1', 0.5), feed('A1', 0.5));
    expect([once, twice]).toEqual([expect.closeTo(7.5, 9), expect.closeTo(15, 9)]);
  });
  it('from a stock solution it is what was dissolved in it', () => {
    const stock = entry({
      kind: 'stock',
      productId: 'feed',
      batch: 'S1',
      amount: 100,
      unit: 'mL',
      volumeL: 1,
    });
    // 300 mL of a stock with 100 mL in a litre hold 30 mL: 0.30, 0.10 a tray.
    expect(perUnit(stock, mix('A1', 300, 'S1'))).toBeCloseTo(10, 9);
  });
});

describe('which unit got how much', () => {
  const each = (...log: Parameters<typeof deriveState>[1]) => {
    const cost = givenCost(deriveState(p, log), a);
    if (!cost?.ok) throw new Error('no cost');
    return cost.value.byUnit === null
      ? null
      : [0, 1, 2].map((i) => cost.value.byUnit!.get(unitId('A', i)) ?? 0);
  };
  const one = (i: number, batch: string, volumeLPerUnit: number) =>
    entry({ kind: 'feed', unitIds: [unitId('A', i)], batch, volumeLPerUnit });
  it('by litres fed: 60 mL in 4 L are 0.15 a litre', () => {
    const got = each(mix('A1', 60), one(0, 'A1', 1), one(1, 'A1', 2), one(0, 'A1', 0.5));
    [22.5, 30, 0].forEach((x, i) => expect(got![i]).toBeCloseTo(x, 9));
  });
  it('more than was mixed is no more than the batch', () => {
    // 4 and 4 L of a batch of 4 L: half of its 60 cents each.
    const got = each(mix('A1', 60), one(0, 'A1', 4), one(1, 'A1', 4));
    [30, 30, 0].forEach((x, i) => expect(got![i]).toBeCloseTo(x, 9));
  });
  it('isn’t known where one batch has no feeding in the log', () => {
    expect(each(mix('A1', 60), mix('A2', 60), one(0, 'A1', 1))).toBeNull();
  });
  it('adds up to what all got together', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(2), fc.integer({ min: 1, max: 30 })), { minLength: 1, maxLength: 12 }),
        (feeds) => {
          const log = [mix('A1', 60), ...feeds.map(([i, dL]) => one(i, 'A1', dL / 10))];
          const sum = each(...log)!.reduce((s, x) => s + x, 0);
          expect(sum / 3).toBeCloseTo(perUnit(...log) as number, 9);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('the verdict’s cost', () => {
  const finding = (log: Parameters<typeof deriveState>[1]) => {
    const f = findingOf(deriveState(p, log), p.traits[0]!);
    if (!f.ok) throw new Error(f.error.tag);
    return f.value;
  };
  const harvested = harvest({ Water: [50, 51, 52], A: [60, 61, 62] });
  const verdictOf = (log: Parameters<typeof deriveState>[1]) =>
    makeVerdict(p, finding(log), (id) => id, { state: deriveState(p, log) });
  const costOfA = (log: Parameters<typeof deriveState>[1]) => {
    const { cost } = verdictOf(log).lines.find((l) => l.treatment.id === 'A')!;
    return cost.ok ? cost.value.perUnit.minor : NaN;
  };
  it('is of what was given where the log knows it: the dose was doubled half-way', () => {
    // 150 mL were planned for the three; 180 were mixed: 1.80, 0.60 a tray.
    const log = [mix('A1', 60), mix('A2', 120), ...harvested];
    expect(costOfA(log)).toBeCloseTo(60, 9);
    expect(verdictOf(log).costBasis?.text).toBe('Products as given, by the log: A 2 batches.');
  });
  it('is the planned one where one batch of five is in the log, and says of how many days it tells', () => {
    const log = [mix('A1', 30), ...harvested];
    expect(costOfA(log)).toBeCloseTo(50, 9);
    expect(verdictOf(log).costBasis?.text).toBe(
      'Products as planned, for all: the log tells of too little to go by it (A on 1 of 5 days).',
    );
  });
  it('is on one basis for all: a contender that is logged in full goes by the plan beside one that isn’t', () => {
    const two: Plan = {
      ...plan({ treatments: ['Water', 'A', 'B'] }),
      products: [product()],
      treatments: plan({ treatments: ['Water', 'A', 'B'] }).treatments.map((t, i) =>
        i === 0 ? t : { ...t, products: [use({ amount: 10, solutionLPerUnit: 1, timesPerUnit: 5 })] },
      ),
    };
    const log = [mix('A1', 180)];
    const paid = paidOf(deriveState(two, log));
    expect(paid.basis).toBe('plan');
    expect(paid.notLogged).toEqual([{ treatmentId: 'B', product: 'Prova', days: 0, planned: 5 }]);
    const minors = ['A', 'B'].map((id) => {
      const { cost } = paid.lines.get(id)!;
      return cost.ok ? cost.value.perUnit.minor : NaN;
    });
    expect(minors).toEqual([50, 50]);
  });
  it('counts batches whole for all where one has no feeding: nobody’s spare is left out', () => {
    const log = [mix('A1', 100), mix('A2', 50), feed('A1', 1)];
    // 150 mL are 1.50, 0.50 a tray, though of the first batch 3 of 4 L are written down as fed.
    const { cost } = paidOf(deriveState(p, log)).lines.get('A')!;
    expect(cost.ok && cost.value.perUnit.minor).toBeCloseTo(50, 9);
  });
  it('is the planned one without batches, and says so', () => {
    expect(costOfA(harvested)).toBeCloseTo(50, 9);
    expect(verdictOf(harvested).costBasis?.text).toBe('Products as planned; no batch is in the log.');
  });
});
