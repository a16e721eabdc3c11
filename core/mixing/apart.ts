import type { ProductUse } from '../model/plan';

/**
 * Parts that are dissolved apart, each in water of its own, as they meet: the waters add up, and each part is in
 * all of it. Half a quart with a part A and half a quart with a part B are a quart with half of each.
 *
 * @param uses what a treatment is given at one time
 * @returns the same uses, those dissolved apart per litre of the joined solution
 * @example joined([2 mL/L in 0.5 L, 2 mL/L in 0.5 L]) // 1 mL/L in 1 L each
 */
export function joined(uses: readonly ProductUse[]): ProductUse[] {
  const apart = uses.filter((u) => u.apart && u.solutionLPerUnit !== null);
  if (apart.length < 2) return [...uses];
  const litres = apart.reduce((sum, u) => sum + u.solutionLPerUnit!, 0);
  return uses.map((u) =>
    apart.includes(u)
      ? {
          ...u,
          amount: Number(((u.amount * u.solutionLPerUnit!) / litres).toPrecision(12)),
          solutionLPerUnit: Number(litres.toPrecision(12)),
        }
      : u,
  );
}
