import type { Product } from '../model/product';
import { type MeasureSystem, measureWorth, systemNames } from '../quantity/units';
import { amountOf, spoonDensity } from './density';

/** Level teaspoons above which an amount isn't said in spoons: some twenty tablespoons (practice). */
const MOST_SPOONS = 60;

/** An amount in a measure people have at hand. */
interface InMeasure {
  /** e.g. “US tsp”, “cap” */
  name: string;
  count: number;
  /** spread of level spoons of this powder, per cent; null where it wasn't weighed or is a liquid */
  spreadPercent: number | null;
}

/**
 * An amount in the user's own measures: the product's caps and strokes, and spoons where the powder's bulk
 * density is known or it is poured.
 *
 * @example inOwnMeasures(powder, 4.75, 'g', usMeasures)[0] // { name: 'US tsp', count: 1.01 } at 0.95 g/mL
 */
export function inOwnMeasures(
  product: Pick<Product, 'spoon' | 'densityKgPerL' | 'ownMeasures'>,
  amount: number,
  unit: 'g' | 'mL' | 'piece',
  measures: MeasureSystem,
): InMeasure[] {
  if (unit === 'piece') return [];
  const own = product.ownMeasures.flatMap((m): InMeasure[] => {
    const here = amountOf(product, amount, unit, m.unit);
    return here.ok ? [{ name: m.name, count: here.value / m.amount, spreadPercent: null }] : [];
  });
  const ml = amountOf(product, amount, unit, 'mL');
  if (!ml.ok) return own;
  const spread = product.spoon ? spoonDensity(product.spoon).cvPercent : null;
  const inTsp = ml.value / measureWorth({ unit: 'tsp', system: null }, measures).base;
  // Nobody counts out hundreds of spoons.
  if (inTsp > MOST_SPOONS) return own;
  // A tablespoon from three teaspoons on, as cooks do.
  const spoon = inTsp >= 3 ? { unit: 'tbsp', count: inTsp / 3 } : { unit: 'tsp', count: inTsp };
  return [
    ...own,
    { name: `${systemNames[measures.spoon]} ${spoon.unit}`, count: spoon.count, spreadPercent: spread },
  ];
}

const quarters = ['', '¼', '½', '¾'];

/**
 * Level spoons in words, in quarters where it is some.
 * @param ml volume, mL
 * @example spoonsText(7.393, usMeasures) // '1½ US tsp'
 */
export function spoonsText(ml: number, measures: MeasureSystem): string {
  const count = ml / measureWorth({ unit: 'tsp', system: null }, measures).base;
  const inQuarters = Math.round(count * 4);
  const near = Math.abs(count * 4 - inQuarters) < 0.02;
  const whole = Math.floor(inQuarters / 4);
  const figure = near
    ? `${whole > 0 || inQuarters === 0 ? whole : ''}${quarters[inQuarters % 4]}`
    : String(Number(count.toPrecision(2)));
  return `${figure} ${systemNames[measures.spoon]} tsp`;
}

/** The parts of a level teaspoon that spoon sets have, mL. */
export const spoonSteps = (measures: MeasureSystem): { label: string; ml: number }[] => {
  const tsp = measureWorth({ unit: 'tsp', system: null }, measures).base;
  return [0.25, 0.5, 1].map((part) => ({ label: spoonsText(tsp * part, measures), ml: tsp * part }));
};
