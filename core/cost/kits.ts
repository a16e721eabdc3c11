import type { AmountUnit, Product } from '../model/product';
import type { Treatment } from '../model/treatment';
import { convertAmount } from '../quantity/amount';
import { formatFigure, listNames } from '../quantity/format';
import { type Money, formatMoney } from '../quantity/money';
import { productCost } from './treatmentCost';

/**
 * A kit's one price over its bottles: by how much is in each where all are weights or all are volumes, else in equal
 * shares. Whole minor units that add up to the price (largest remainder).
 *
 * @example kitShares(4900, [{ size: 1, unit: 'L' }, { size: 1, unit: 'L' }, { size: 500, unit: 'mL' }]) // [1960, 1960, 980]
 */
export function kitShares(
  priceMinor: number,
  bottles: readonly { size: number; unit: AmountUnit }[],
): number[] {
  const [first] = bottles;
  if (!first) return [];
  const sizes = bottles.map((b) => convertAmount(b.size, b.unit, first.unit, null));
  const parts = sizes.every((s) => s.ok) ? sizes.map((s) => (s.ok ? s.value : 0)) : bottles.map(() => 1);
  const all = parts.reduce((s, x) => s + x, 0);
  const exact = parts.map((x) => (priceMinor * x) / all);
  const shares = exact.map(Math.floor);
  const byRest = exact.map((x, i) => ({ i, rest: x - shares[i]! })).sort((a, b) => b.rest - a.rest);
  const missing = priceMinor - shares.reduce((s, x) => s + x, 0);
  for (const { i } of byRest.slice(0, missing)) shares[i]! += 1;
  return shares;
}

/** A kit and the products that came in it. */
export interface Kit {
  id: string;
  name: string;
  products: Product[];
}

/** Kits of a library: what came in one box is chosen as one. @example kitsOf(library).map((k) => k.name) // ['Trittico'] */
export function kitsOf(library: readonly Product[]): Kit[] {
  const kits = new Map<string, Kit>();
  for (const p of library) {
    const kit = p.packs.find((k) => k.kit)?.kit;
    if (!kit) continue;
    const known = kits.get(kit.id) ?? { id: kit.id, name: kit.name, products: [] };
    kits.set(kit.id, { ...known, products: [...known.products, p] });
  }
  return [...kits.values()].filter((k) => k.products.length > 1);
}

/** How far a kit goes in one contender's feeding. */
interface KitUse {
  name: string;
  price: Money;
  /** feeds until the first bottle is empty */
  feeds: number;
  wholeFeeds: number;
  emptyFirst: string;
  /** share of every other bottle that is left then, 0–1 */
  left: { product: string; share: number }[];
  /** a feed, when a new kit is bought as soon as one bottle is empty */
  perFeed: Money;
}

/**
 * Kits a contender feeds from. A bottle counts for what one dose takes of it; the kit is over when its first bottle is.
 * Bottles of the kit that the contender doesn't use aren't in it.
 */
export function kitUses(treatment: Treatment, products: readonly Product[]): KitUse[] {
  const bottles = treatment.products.flatMap((use) => {
    const product = products.find((p) => p.id === use.productId);
    const cost = product ? productCost(use, product) : null;
    return cost?.ok && cost.value.pack.kit ? [{ kit: cost.value.pack.kit, cost: cost.value }] : [];
  });
  return [...new Set(bottles.map((b) => b.kit.id))].map((id) => {
    const own = bottles.filter((b) => b.kit.id === id);
    const first = own.reduce((a, b) => (b.cost.dosesPerPack < a.cost.dosesPerPack ? b : a));
    const feeds = first.cost.dosesPerPack;
    const { currency } = first.cost.pack;
    return {
      name: first.kit.name,
      price: { minor: first.kit.priceMinor, currency },
      feeds,
      wholeFeeds: first.cost.wholeDoses,
      emptyFirst: first.cost.product.name,
      left: own
        .filter((b) => b !== first)
        .map((b) => ({ product: b.cost.product.name, share: 1 - feeds / b.cost.dosesPerPack })),
      perFeed: { minor: first.kit.priceMinor / feeds, currency },
    };
  });
}

/**
 * One sentence a kit.
 * @example 'A, from the kit Prova (€49.00): Bloom is empty first, after 50 feeds; of Grow 50 % is left then. €0.98 a feed if that is thrown away.'
 */
export const sayKit = (contender: string, kit: KitUse): string => {
  const left = kit.left.filter((l) => l.share > 0.005);
  const rest =
    left.length === 0
      ? ''
      : `; left then: ${listNames(left.map((l) => `${formatFigure(100 * l.share, 0)} % of ${l.product}`))}`;
  const whole = kit.wholeFeeds;
  const sentence =
    kit.left.length === 0 ? `${kit.emptyFirst} lasts` : `${kit.emptyFirst} is empty first, after`;
  return `${contender}, from the kit ${kit.name} (${formatMoney(kit.price)}): ${sentence} ${whole} ${whole === 1 ? 'feed' : 'feeds'}${rest}. ${formatMoney(kit.perFeed)} a feed if what is left is thrown away.`;
};
