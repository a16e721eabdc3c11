import { kitUses, sayKit } from '../cost/kits';
import { type Money, formatMoney, inCurrency } from '../quantity/money';
import { productCost } from '../cost/treatmentCost';
import { type Plan, doseAmount } from '../model/plan';
import { planIndex } from '../plan/planIndex';
import { thingOf, thingWords, wordsOfPlan } from '../account/thing';
import { amountWords, plural } from '../quantity/format';
import { formatDay } from '../quantity/region';
import { cellText } from './cell';
import { type Block, type Cell, type TableBlock, column, numbers, text } from './block';

/**
 * How far each pack goes, contender by contender: feeds in it, and what a feed, a litre of solution, a week and a square
 * metre of ground cost, by the planned doses. Null where no contender has a product with a price.
 */
export function packTable(plan: Plan, nameOf: (id: string) => string): TableBlock | null {
  const { one } = wordsOfPlan(plan);
  const days = Math.max(0, ...plan.rounds.map((r) => r.day));
  const money = (each: Money, times: number | null): Cell => {
    const here = inCurrency(each, plan.currency, plan.mixing.exchange) ?? each;
    return times === null || !Number.isFinite(times)
      ? text('–')
      : { type: 'money', money: { ...here, minor: here.minor * times } };
  };
  const rows = plan.treatments.flatMap((t) =>
    t.products.flatMap((use) => {
      const product = planIndex(plan).product(use.productId);
      const cost = product ? productCost(use, product) : null;
      if (!product || !cost?.ok) return [];
      const { pack, perDose, perUnit, wholeDoses } = cost.value;
      const { areaPerUnitCm2, plantsPerUnit } = t.conditions;
      const cells: Cell[] = [
        { type: 'treatment', name: nameOf(t.id), order: planIndex(plan).treatmentOrder(t.id) },
        text(product.name),
        text(
          `${amountWords(pack.size, pack.unit)} for ${formatMoney({ minor: pack.priceMinor, currency: pack.currency })}${pack.kit ? `, its share of ${pack.kit.name}` : ''}`,
        ),
        wholeDoses < 1 ? text('less than one') : { type: 'figure', value: wholeDoses, decimals: 0 },
        money(perDose, 1),
        money(perDose, use.solutionLPerUnit && doseAmount(use) > 0 ? 1 / use.solutionLPerUnit : null),
        money(perUnit, days > 0 && thingWords[thingOf(use, product)].repeats ? 7 / days : null),
        money(perUnit, plantsPerUnit && plantsPerUnit > 1 ? 1 / plantsPerUnit : null),
        money(perUnit, areaPerUnitCm2 ? 10_000 / areaPerUnitCm2 : null),
      ];
      return [{ cells }];
    }),
  );
  if (rows.length === 0) return null;
  const columns = [
    column('contender'),
    column('product'),
    column('pack'),
    numbers(`${plural(one)} in a pack`),
    numbers(`a ${one}`),
    numbers('a litre of solution'),
    numbers('a week'),
    numbers('a plant'),
    numbers('a square metre'),
  ];
  // A column nothing is known for is left out.
  const hasCells = columns.map((_, i) => rows.some(({ cells }) => cellText(cells[i]!) !== '–'));
  return {
    type: 'table',
    columns: columns.filter((_, i) => hasCells[i]),
    rows: rows.map(({ cells }) => ({ cells: cells.filter((_, i) => hasCells[i]) })),
  };
}

/** What the table of packs is reckoned by. */
export const packCaption = (plan: Plan): string =>
  `One ${plan.unitNoun}’s ${plural(wordsOfPlan(plan).one)}, by the plan.`;

/** What kits of several bottles do, a sentence each. */
export const kitLines = (plan: Plan, nameOf: (id: string) => string): string[] =>
  plan.treatments.flatMap((t) => kitUses(t, plan.products).map((k) => sayKit(nameOf(t.id), k)));

/**
 * When and where packs were bought, product by product, as far as it was written down.
 * @example pricesPaid(plan) // ['Prova: 1 L for €10.00, garden centre, Italy, 2026-03-01.']
 */
export function pricesPaid(plan: Plan): string[] {
  const used = new Set(
    plan.treatments.flatMap((t) => t.products.map((u) => `${u.productId}/${u.packId ?? ''}`)),
  );
  return [...used].flatMap((key) => {
    const [productId, packId] = key.split('/');
    const product = plan.products.find((p) => p.id === productId);
    const pack = product?.packs.find((k) => k.id === packId) ?? product?.packs[0];
    if (!product || !pack) return [];
    const shop = pack.shop === 'maker' ? 'from the maker' : pack.shop;
    const where = [shop, pack.country, pack.boughtOn && formatDay(pack.boughtOn)].filter(Boolean);
    if (where.length === 0) return [];
    const price = formatMoney({ minor: pack.priceMinor, currency: pack.currency });
    return [`${product.name}: ${amountWords(pack.size, pack.unit)} for ${price}, ${where.join(', ')}.`];
  });
}

/** How far the packs go, in the review; nothing where nothing has a price. */
export function packBlocks(plan: Plan, nameOf: (id: string) => string): Block[] {
  const table = packTable(plan, nameOf);
  const kits = kitLines(plan, nameOf);
  const paid = pricesPaid(plan);
  if (!table) return [];
  return [
    { type: 'heading', level: 2, text: 'How far a pack goes' },
    table,
    ...(kits.length + paid.length > 0 ? [{ type: 'list' as const, items: [...kits, ...paid] }] : []),
    { type: 'paragraph', tone: 'small', text: packCaption(plan) },
  ];
}
