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
  const ways = new Set(uses.map((u) => u.way));
  // A spray never meets what is watered.
  if (ways.size > 1) {
    const met = new Map([...ways].flatMap((way) => pairsOf(uses.filter((u) => u.way === way))));
    return uses.map((u) => met.get(u)!);
  }
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

const pairsOf = (uses: readonly ProductUse[]): [ProductUse, ProductUse][] =>
  joined(uses).map((met, i) => [uses[i]!, met]);

/**
 * What a unit has got once solutions were given one after the other: in all their water together.
 * @example inAllWater([2 mL/L in 0.5 L, 2 mL/L in 0.5 L after it]) // 1 mL/L in 1 L each
 */
export function inAllWater(uses: readonly ProductUse[]): ProductUse[] {
  const litresOf = (way: ProductUse['way']) =>
    Math.max(0, ...uses.filter((u) => u.way === way).map((u) => u.solutionLPerUnit ?? 0));
  const [first, after] = [litresOf(undefined), litresOf('after')];
  if (first === 0 || after === 0) return [...uses];
  return uses.map((u) =>
    u.solutionLPerUnit === null
      ? u
      : {
          ...u,
          amount: Number(
            ((u.amount * (u.way === 'after' ? after : first)) / (first + after)).toPrecision(12),
          ),
          solutionLPerUnit: first + after,
        },
  );
}
