import { parseDecimal } from '../formats/csv';
import { type Result, err, ok } from '../model/result';
import { type MeasureSystem, measureWorth } from './measure';
import { describeRateError, parseRate } from './rate';

const EXAMPLE = 'a volume, such as 1 gal or 2.3 L';

/**
 * Litres of a volume as people write it; a bare figure is litres.
 *
 * @param measures whose gallons and cups are meant
 * @returns L, or a line that says what is wrong
 * @example parseVolume('1 gal', usMeasures) // { ok: true, value: 3.785411784 }
 */
export function parseVolume(text: string, measures: MeasureSystem): Result<number, string> {
  const bare = parseDecimal(text);
  if (bare !== null) return bare > 0 ? ok(bare) : err('More than 0 L.');
  const parsed = parseRate(text);
  if (!parsed.ok)
    return err(parsed.error.tag === 'empty' ? `Give ${EXAMPLE}.` : describeRateError(parsed.error));
  const rate = parsed.value;
  if (rate.kind !== 'amount' || rate.of.kind !== 'measure' || rate.per !== null || rate.low !== rate.high) {
    return err(`“${text.trim()}” isn’t ${EXAMPLE}.`);
  }
  const worth = measureWorth(rate.of.measure, measures);
  return worth.dimension === 'volume'
    ? ok((rate.low * worth.base) / 1000)
    : err(`“${text.trim()}” isn’t ${EXAMPLE}.`);
}

/** What the marks of a bucket or can count. */
export const bucketUnits = ['L', 'gal'] as const;
export type BucketUnit = (typeof bucketUnits)[number];

/** Litres of one mark. @example litresOf('gal', usMeasures) // 3.785411784 */
export const litresOf = (unit: BucketUnit, measures: MeasureSystem): number =>
  measureWorth({ unit, system: null }, measures).base / 1000;

/**
 * A volume in words, in a bucket’s marks with the litres beside.
 *
 * @example volumeText(3.785411784, 'gal', usMeasures) // '1 gal (3.785 L)'
 */
export function volumeText(litres: number, unit: BucketUnit, measures: MeasureSystem): string {
  const figure = (x: number) => Number(x.toPrecision(4));
  return unit === 'L'
    ? `${figure(litres)} L`
    : `${figure(litres / litresOf(unit, measures))} ${unit} (${figure(litres)} L)`;
}
