import { inCurrency } from '../quantity/money';
import type { TrialState } from '../log/state';
import { formatDay } from '../quantity/region';
import type { PriceSet } from '../model/judgement';
import type { Plan } from '../model/plan';
import type { Finding } from '../account/finding';
import { type Verdict, makeVerdict } from './verdict';
import type { NameOf } from '../model/nameOf';

/**
 * The plan with prices of another place: a product's packs all cost as much more or less as its first does.
 * Products the set has no price for cost what they did. Prices in another currency are turned by the plan's rate; without
 * one they stay in it, and nothing is added up.
 */
export const withPriceSet = (plan: Plan, set: PriceSet): Plan => ({
  ...plan,
  products: plan.products.map((product) => {
    const price = set.prices[product.id];
    const first = product.packs[0];
    if (price === undefined || !first) return product;
    return {
      ...product,
      packs: product.packs.map((pack) => ({
        ...pack,
        currency: set.currency ?? plan.currency,
        priceMinor: first.priceMinor > 0 ? Math.round((pack.priceMinor * price) / first.priceMinor) : price,
      })),
    };
  }),
});

/** The best value with the prices of another place. */
interface Elsewhere {
  set: PriceSet;
  bestValue: Verdict['bestValue'];
  /** another contender, or none, gives the best value there */
  turns: boolean;
  /** its prices are in a currency the plan has no rate for */
  rateMissing: boolean;
}

/** What becomes of the best value with each set of prices; the finding itself doesn't know money. */
export function bestValueElsewhere(
  state: TrialState,
  finding: Finding,
  here: Verdict,
  sets: readonly PriceSet[],
  nameOf: NameOf,
): Elsewhere[] {
  return sets.map((set) => {
    const plan = withPriceSet(state.plan, set);
    const { bestValue } = makeVerdict(plan, finding, nameOf, { state: { ...state, plan } });
    const currency = set.currency ?? plan.currency;
    return {
      set,
      bestValue,
      turns: bestValue.treatmentId !== here.bestValue.treatmentId,
      rateMissing: inCurrency({ minor: 1, currency }, plan.currency, plan.mixing.exchange) === null,
    };
  });
}

/**
 * One sentence a set.
 * @example 'With the prices abroad (seen 2026-05-01) another gives the best value. A: 0.40 for each extra gram.'
 */
export const sayElsewhere = (all: readonly Elsewhere[]): string[] =>
  all.map(({ set, bestValue, turns, rateMissing }) => {
    const prices = Object.keys(set.prices).length;
    const when = set.seenOn ? ` (seen ${formatDay(set.seenOn)})` : '';
    if (prices === 0) return `No prices are known for ${set.name} yet.`;
    if (rateMissing)
      return `The prices of ${set.name} are in ${set.currency}: give the rate in Mixing, under Set-up, and they are compared.`;
    return `With the prices of ${set.name}${when} ${turns ? 'the best value is another' : 'the best value is the same'}. ${bestValue.text}`;
  });
