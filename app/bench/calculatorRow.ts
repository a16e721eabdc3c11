import { numberIn } from '~core/quantity/number';
import { blankProduct } from '~core/model/blankProduct';
import { emptyAnalysis, parseAnalysis } from '~core/mixing/analysisText';
import { aroundProduct, readRate } from '~core/mixing/resolveRate';
import { amountOf } from '~core/mixing/density';
import type { ProductId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import type { ProductUse } from '~core/model/plan';
import type { Product } from '~core/model/product';
import { ok } from '~core/model/result';
import type { MeasureSystem } from '~core/quantity/units';

/** A product of the calculator as typed: from the library, or from a label in hand. */
export interface CalculatorRow {
  key: string;
  productId: string;
  analysis: string;
  form: 'powder' | 'liquid';
  density: string;
  rate: string;
}

export const emptyRow = (): CalculatorRow => ({
  key: newId(),
  productId: '',
  analysis: '',
  form: 'powder',
  density: '',
  rate: '',
});

/** What the calculator opens with: a rate off a label, as an example. */
export const exampleRow = (): CalculatorRow => ({
  ...emptyRow(),
  analysis: '12-6-18, 4, 1.5',
  rate: '12 g / 5 gal',
});

export interface RowRead {
  dose: { product: Product; use: ProductUse } | null;
  errors: { analysis?: string; density?: string; rate?: string };
  /** how the rate was taken where it leaves a choice */
  note: string;
}

const typedProduct = (
  row: CalculatorRow,
  analysis: Product['analysis'],
  density: number | null,
): Product => ({
  ...blankProduct(row.key as ProductId, `Product ${row.analysis}`.trim()),
  form: row.form,
  analysis,
  densityKgPerL: density,
});

/**
 * Reads a row; what is empty says nothing, what is wrong says so at its field.
 * @param tankL the batch, for rates by the tank
 */
export function readRow(
  row: CalculatorRow,
  library: readonly Product[],
  measures: MeasureSystem,
  tankL: number | null,
): RowRead {
  const errors: RowRead['errors'] = {};
  const analysis = row.analysis.trim() === '' ? ok(emptyAnalysis) : parseAnalysis(row.analysis);
  const density = row.density.trim() === '' ? null : numberIn(row.density);
  const picked = library.find((p) => p.id === row.productId);
  if (!picked && !analysis.ok) errors.analysis = analysis.error;
  if (!picked && row.density.trim() !== '' && (density === null || density <= 0 || density > 25)) {
    errors.density = 'kg/L, such as 1.12.';
  }
  const product =
    picked ?? typedProduct(row, analysis.ok && row.analysis.trim() !== '' ? analysis.value : null, density);
  if (row.rate.trim() === '' || Object.keys(errors).length > 0) return { dose: null, errors, note: '' };
  const rate = readRate(row.rate, aroundProduct(product, measures, { tankL, areaM2: null }));
  if (!rate.ok) return { dose: null, errors: { rate: rate.error }, note: '' };
  const { low, high, unit, per } = rate.value;
  if (per !== 'L' && tankL === null) return { dose: null, errors, note: '' };
  if (unit === 'mL' && product.form !== 'liquid' && !amountOf(product, 1, 'mL', 'g').ok) {
    const typed = picked
      ? { rate: 'Dry, and by the spoon: weigh five spoons of it and enter them in the library.' }
      : { density: 'Dry, and by the spoon: what does a litre of it weigh?' };
    return { dose: null, errors: typed, note: '' };
  }
  return {
    errors,
    note:
      low === high
        ? ''
        : `A range: reckoned with its middle, ${Number(((low + high) / 2).toPrecision(3))} ${unit}${per === 'L' ? '/L' : ''}.`,
    dose: {
      product,
      use: {
        productId: product.id,
        packId: null,
        amount: ((low + high) / 2) * (per === 'L' ? 1 : 1 / tankL!),
        unit,
        solutionLPerUnit: 1,
        timesPerUnit: 1,
        rateText: row.rate,
        fromDay: null,
        everyDays: null,
        strengthPercent: 100,
        stage: '',
      },
    },
  };
}
