import { type Result, err, ok } from '../model/result';
import { readQuantity } from './quantity';
import { parseRate } from './rate';
import { type MeasureSystem, areaUnits, measureWorth } from './units';

/**
 * Litres of a volume as people write it, more than none; a bare figure is litres.
 *
 * @param measures whose gallons and cups are meant
 * @returns L, or a line that says what is wrong
 * @example parseVolume('1 gal', usMeasures) // { ok: true, value: 3.785411784 }
 */
export function parseVolume(text: string, measures: MeasureSystem): Result<number, string> {
  const read = readQuantity(text, 'volume', measures);
  return read.ok && !(read.value > 0) ? err('More than 0 L.') : read;
}

/**
 * Litres for one unit, as a volume or as so much for an area of ground.
 *
 * @param areaM2 ground of the unit, m²; null when not known
 * @returns L, or a line that says what is wrong
 * @example parseVolumePerUnit('2 L/m²', usMeasures, 0.5) // { ok: true, value: 1 }
 */
export function parseVolumePerUnit(
  text: string,
  measures: MeasureSystem,
  areaM2: number | null,
): Result<number, string> {
  const volume = parseVolume(text, measures);
  if (volume.ok) return volume;
  const parsed = parseRate(text);
  const rate = parsed.ok ? parsed.value : null;
  if (
    rate?.kind !== 'amount' ||
    rate.of.kind !== 'measure' ||
    rate.low !== rate.high ||
    rate.per?.kind !== 'area'
  )
    return err(volume.error.replace(/\.$/, ', or 2 L/m².'));
  const { dimension, base } = measureWorth(rate.of.measure, measures);
  if (dimension !== 'volume') return err(volume.error);
  return areaM2 === null
    ? err('How large is a unit? Give its area under “The same everything else”.')
    : ok(((rate.low * base) / 1000 / rate.per.amount / areaUnits[rate.per.unit]) * areaM2);
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
