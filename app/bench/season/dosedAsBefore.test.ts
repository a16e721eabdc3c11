import { expect, it } from 'vitest';
import type { PackId, ProductId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { plan, product, use as dose } from '~core/testing/trial';
import { dosedAsBefore } from './dosedAsBefore';

const prova = product({ id: 'a' as ProductId, name: 'A' });
const tried = (startDate: string, amount: number) => {
  const p = plan({ treatments: ['Water', 'A'] });
  const uses = [dose({ productId: prova.id, packId: 'pack' as PackId, amount })];
  return {
    ...p,
    startDate,
    products: [prova],
    treatments: p.treatments.map((t, i) => ({ ...t, products: i === 0 ? [] : uses })),
  };
};
const bare = { ...plan({ treatments: ['Water', 'A', 'B'] }), products: [] };
const dosesOf = (p: Plan) => p.treatments.map((t) => t.products.map((u) => u.amount));

it('takes the dose of the newest trial a contender stood in; the control and what nobody dosed stay as they are', () => {
  const made = dosedAsBefore(bare, [tried('2026-01-05', 3), tried('2026-02-02', 4)], []);
  expect(dosesOf(made)).toEqual([[], [4], []]);
  expect(made.products).toEqual([prova]);
});

it('goes by the library where the product is there, and takes no pack that it lacks', () => {
  const own = { ...prova, packs: [] };
  const made = dosedAsBefore(bare, [tried('2026-01-05', 3)], [own]);
  expect(made.products).toEqual([own]);
  expect(made.treatments[1]!.products[0]!.packId).toBeNull();
});

it('leaves a dose by the label alone', () => {
  const labelled = tried('2026-03-02', 9);
  expect(dosesOf(dosedAsBefore(labelled, [tried('2026-01-05', 3)], []))).toEqual([[], [9]]);
});
