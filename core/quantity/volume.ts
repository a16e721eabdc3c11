import { parseDecimal } from './decimal';
import { type Result, err, ok } from '../model/result';
import { type MeasureSystem, areaUnits, measureWorth } from './measure';
import { describeRateError, parseRate } from './rate';

const EXAMPLE = 'a volume, such as 1 gal or 2.3 L';

/**
 * Litres of a volume as people write it; a bare figure is litres.
 *
 * @param measures whose gallons and cups are meant
 * @returns L, or a line that says what is wrong
 * @example parseVolume('1 gal', usMeasures) // { ok: true, value: 3.785411784 }
 */
export const parseVolume = (text: string, measures: MeasureSystem): Result<number, string> =>
  readLitres(text, measures, EXAMPLE, null);

/**
 * Litres for one unit, as a volume or as so much for an area of ground.
 *
 * @param areaM2 ground of the unit, m²; null when not known
 * @returns L, or a line that says what is wrong
 * @example parseVolumePerUnit('2 L/m²', usMeasures, 0.5) // { ok: true, value: 1 }
 */
export const parseVolumePerUnit = (
  text: string,
  measures: MeasureSystem,
  areaM2: number | null,
): Result<number, string> => readLitres(text, measures, `${EXAMPLE}, or 2 L/m²`, { areaM2 });

function readLitres(
  text: string,
  measures: MeasureSystem,
  example: string,
  ground: { areaM2: number | null } | null,
): Result<number, string> {
  const bare = parseDecimal(text);
  if (bare !== null) return bare > 0 ? ok(bare) : err('More than 0 L.');
  const parsed = parseRate(text);
  if (!parsed.ok)
    return err(parsed.error.tag === 'empty' ? `Give ${example}.` : describeRateError(parsed.error));
  const rate = parsed.value;
  const unlike = () => err(`“${text.trim()}” isn’t ${example}.`);
  if (rate.kind !== 'amount' || rate.of.kind !== 'measure' || rate.low !== rate.high) return unlike();
  const worth = measureWorth(rate.of.measure, measures);
  if (worth.dimension !== 'volume') return unlike();
  const litres = (rate.low * worth.base) / 1000;
  if (rate.per === null) return ok(litres);
  if (!ground || rate.per.kind !== 'area') return unlike();
  return ground.areaM2 === null
    ? err('How large is a unit? Give its area under “The same everything else”.')
    : ok((litres * ground.areaM2) / (rate.per.amount * areaUnits[rate.per.unit]));
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
