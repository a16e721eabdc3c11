// What isn't a fault isn't named: plans that seem to have one.
import { describe, expect, it } from 'vitest';
import type { ProductId } from '../model/ids';
import type { Plan, ProductUse } from '../model/plan';
import { plan, product, use } from '../testing/trial';
import { audit } from './audit';
import type { AuditInput } from './rule';

const input = (p: Plan): AuditInput => ({
  plan: p,
  labelsPrinted: true,
  disclosure: '',
  me: '',
  ecByTreatment: new Map(),
});
const fires = (p: Plan, rule: string) => audit(input(p)).some((f) => f.ruleId === rule);
const base = plan({ treatments: ['Water', 'A', 'B'], replicates: 4 });
const id = (x: string) => x as ProductId;
/** What Water, A and B are given, in their order. */
const given = (uses: ProductUse[][], over: Partial<Plan> = {}): Plan => ({
  ...base,
  products: [
    product({ id: id('a') }),
    product({ id: id('b') }),
    product({ id: id('plus'), category: 'additive' }),
    product({ id: id('part'), form: 'powder', labelRate: '1 g/L' }),
  ],
  treatments: base.treatments.map((t, i) => ({ ...t, products: uses[i] ?? [] })),
  ...over,
});
const a = use({ productId: id('a'), solutionLPerUnit: 1 });
const plus = use({ productId: id('plus'), solutionLPerUnit: 1 });

describe('the same treatment twice', () => {
  it('isn’t one that is fed three times beside one that is fed once', () => {
    expect(fires(given([[], [a], [a]]), 'same-treatment-twice')).toBe(true);
    expect(fires(given([[], [a], [{ ...a, timesPerUnit: 3 }]]), 'same-treatment-twice')).toBe(false);
  });
});

describe('an additive without its base', () => {
  it('isn’t one that all get, nor among equals', () => {
    const b = use({ productId: id('b'), solutionLPerUnit: 1 });
    expect(fires(given([[], [a, plus], [b]]), 'additive-without-base')).toBe(true);
    expect(fires(given([[plus], [a, plus], [b, plus]]), 'additive-without-base')).toBe(false);
    const equals = given([[a], [a, plus], [b, plus]], { peers: true });
    const peers = { ...equals, treatments: equals.treatments.map((t) => ({ ...t, role: 'test' as const })) };
    expect(fires(peers, 'additive-without-base')).toBe(false);
  });
});

describe('a dose above its label', () => {
  // 1.6 g/L in half a litre of its own; joined with another half litre it is 0.8 g/L, under the label's 1 g/L.
  const part = (over: Partial<ProductUse>) =>
    use({ productId: id('part'), amount: 1.6, unit: 'g', solutionLPerUnit: 0.5, ...over });
  it('is told of what plants get: parts dissolved apart have met', () => {
    expect(fires(given([[], [part({})], []]), 'above-label')).toBe(true);
    const other = use({ productId: id('a'), solutionLPerUnit: 0.5, apart: true });
    expect(fires(given([[], [part({ apart: true }), other], []]), 'above-label')).toBe(false);
  });
});

describe('differences that systems bring with them, and small ones', () => {
  const waters = {
    ...base,
    treatments: base.treatments.map((t, i) => ({ ...t, water: i === 1 ? 'rain' : 'tap' })),
  };
  it('whole systems have their own water', () => {
    expect(fires(waters, 'control-water')).toBe(true);
    expect(fires({ ...waters, wholeSystem: true }, 'control-water')).toBe(false);
  });
  it('20 L beside 21 L is asked about and breaks nothing; beside 30 L it does', () => {
    const pots = (litres: number): Plan => ({
      ...base,
      treatments: base.treatments.map((t, i) => ({
        ...t,
        conditions: { ...t.conditions, containerVolumeL: i === 1 ? litres : 20 },
      })),
    });
    const found = (l: number) => ['unequal-room', 'nearly-equal-room'].map((r) => fires(pots(l), r));
    expect(found(20)).toEqual([false, false]);
    expect(found(21)).toEqual([false, true]);
    expect(found(30)).toEqual([true, false]);
  });
});
