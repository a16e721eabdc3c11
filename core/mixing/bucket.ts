import { numberIn } from '../quantity/number';
import type { MeasureSystem } from '../quantity/units';
import { type BucketUnit, litresOf } from '../quantity/volume';

/** What the bucket’s marks count, and whose gallons. */
export interface Bucket {
  unit: BucketUnit;
  measures: MeasureSystem;
}

const figure = (x: number) => String(Number(x.toPrecision(6)));

/** Litres as a field shows them in the bucket’s marks: to a thousandth of a gallon, never less than asked. */
export const toMarks = (litres: number, { unit, measures }: Bucket): string =>
  figure(unit === 'L' ? litres : Math.ceil((litres / litresOf(unit, measures)) * 1000 - 1e-6) / 1000);

/** Litres of a figure in the bucket’s marks; null for what isn’t a figure over 0. */
export function fromMarks(text: string, { unit, measures }: Bucket): number | null {
  const marks = numberIn(text);
  return marks === null || marks <= 0 ? null : Number((marks * litresOf(unit, measures)).toPrecision(6));
}
