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
