import type { AmountUnit, Product, SpoonWeighing } from '../model/product';
import { type AmountError, convertAmount } from '../quantity/amount';
import type { Result } from '../model/result';

interface SpoonDensity {
  /** mean bulk density, g/mL */
  gPerMl: number;
  /** standard deviation between spoons, g/mL */
  sd: number;
  /** the same, per cent of the mean: how well a spoon measures this powder */
  cvPercent: number;
  spoons: number;
}

/**
 * Bulk density of a powder from level spoons that were weighed one by one.
 *
 * @param spoons volume of the spoon, mL, and what each held, g (at least two)
 * @example spoonDensity({ volumeMl: 5, massesG: [4.7, 4.8, 4.8, 4.7, 4.75] }).gPerMl // 0.95
 */
export function spoonDensity({ volumeMl, massesG }: SpoonWeighing): SpoonDensity {
  const n = massesG.length;
  const mean = massesG.reduce((s, m) => s + m, 0) / n;
  const variance = massesG.reduce((s, m) => s + (m - mean) ** 2, 0) / (n - 1);
  const sdG = Math.sqrt(variance);
  return { gPerMl: mean / volumeMl, sd: sdG / volumeMl, cvPercent: (100 * sdG) / mean, spoons: n };
}

/** Mass of a litre of the product as it is measured out, kg/L: its weighed spoons, else the density given. */
export function densityOf(product: Pick<Product, 'spoon' | 'densityKgPerL'>): number | null {
  // 1 g/mL is 1 kg/L.
  return product.spoon ? spoonDensity(product.spoon).gPerMl : product.densityKgPerL;
}

/** What has to be done before a product's volume can be weighed: a powder is weighed by the spoon. */
export const howDense = ({ form }: Pick<Product, 'form'>): string =>
  form === 'liquid' ? 'give its density (weigh 100 mL)' : 'weigh five level spoons of it';

/**
 * An amount of a product in another unit, through its bulk density or density where needed.
 * @example amountOf(powder, 5, 'mL', 'g') // 4.75 g at 0.95 g/mL
 */
export const amountOf = (
  product: Pick<Product, 'spoon' | 'densityKgPerL'>,
  amount: number,
  from: AmountUnit,
  to: AmountUnit,
): Result<number, AmountError> => convertAmount(amount, from, to, densityOf(product));
