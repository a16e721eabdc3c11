// Solutions given one after the other, sprays, and what is mixed into the medium.
import { expect, it } from 'vitest';
import type { ProductUse } from '../model/plan';
import { plan, product, use } from '../testing/trial';
import { inAllWater, joined } from './apart';
import { dueMixes } from './dueMixes';
import { usesAt } from './programme';

const part = (over: Partial<ProductUse>) => use({ amount: 2, solutionLPerUnit: 0.5, fromDay: 0, ...over });
const given = (...products: ProductUse[]) => {
  const base = plan({ treatments: ['Water', 'A'], replicates: 2 });
  return { ...base, treatments: base.treatments.map((t, i) => (i === 1 ? { ...t, products } : t)) };
};
const vessels = (p: ReturnType<typeof given>) =>
  dueMixes(p, 0, p.units).map((d) => [d.kind, d.way, d.perUnitL, d.uses.length]);

it('what comes after the other is a vessel of its own, and stands after it', () => {
  expect(vessels(given(part({ way: 'after' }), part({}), part({})))).toEqual([
    ['water', undefined, 0.5, 0],
    ['solution', undefined, 0.5, 2],
    ['solution', 'after', 0.5, 1],
  ]);
});
it('a spray is never in the watering can, nor in a unit’s own tank', () => {
  const p = { ...given(part({}), part({ way: 'spray', solutionLPerUnit: 0.05 })), unitNoun: 'machine' };
  expect(dueMixes(p, 0, p.units).map((d) => [d.way, d.perUnitL, d.tanks])).toEqual([
    [undefined, 0.5, 2],
    [undefined, 0.5, 2],
    ['spray', 0.05, null],
  ]);
});
it('what is mixed into the medium is given as it is', () => {
  expect(vessels(given(part({ way: 'medium', solutionLPerUnit: null })))).toEqual([
    ['direct', 'medium', null, 1],
  ]);
});
it('parts that meet never meet a spray', () => {
  const [a, spray, b] = joined([
    part({ apart: true }),
    part({ apart: true, way: 'spray' }),
    part({ apart: true }),
  ]);
  expect([a!.amount, a!.solutionLPerUnit]).toEqual([1, 1]);
  expect([b!.amount, b!.solutionLPerUnit]).toEqual([1, 1]);
  expect([spray!.amount, spray!.solutionLPerUnit]).toEqual([2, 0.5]);
});
it('as a unit has got it, two solutions are in all their water; a spray isn’t in it', () => {
  // 2 mL/L in half a litre, then 4 mL/L in a litre: 1 mL and 4 mL in 1.5 L.
  const [first, after] = inAllWater([part({}), part({ amount: 4, solutionLPerUnit: 1, way: 'after' })]);
  expect(first!.amount).toBeCloseTo(1 / 1.5, 10);
  expect(after!.amount).toBeCloseTo(4 / 1.5, 10);
  const p = given(part({}), part({ way: 'spray' }));
  expect(usesAt(p.treatments[1]!, 0).map((u) => u.way)).toEqual([undefined]);
  const sprayed = given(part({ way: 'spray' }));
  expect(usesAt(sprayed.treatments[1]!, 0).map((u) => u.way)).toEqual(['spray']);
});
it('what is stood in its place isn’t mixed, on no day; what is given beside it is', () => {
  const base = given(part({}), use({ productId: 'pole' as never, amount: 1, unit: 'piece' }));
  const pole = { ...product(), id: 'pole' as never, category: 'accessory' as const };
  const p = { ...base, products: [product(), pole] };
  expect(dueMixes(p, 0, p.units, true).flatMap((d) => d.uses.map((u) => u.productId))).toEqual(['feed']);
});
