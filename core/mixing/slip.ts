import type { BatchLine } from './batch';

/** An amount this far off what was wanted is asked about before it is written down, % (practice). */
const SLIP_LIMIT = 25;

/**
 * How much was measured out against what was wanted, in words, where it is so far off that it may be a slip of the pen.
 *
 * @param given what went in, in the unit of `wanted`
 * @param wanted what the recipe asks for
 * @returns null within `limit` per cent, and where nothing was wanted
 * @example farFromWanted(44, 4.4) // '10 times as much'
 * @example farFromWanted(0.4, 4.4) // '9.1 % of it'
 * @example farFromWanted(4.5, 4.4) // null
 */
export function farFromWanted(given: number, wanted: number, limit = SLIP_LIMIT): string | null {
  if (wanted <= 0 || Math.abs(given / wanted - 1) <= limit / 100 + 1e-9) return null;
  if (given === 0) return 'nothing of it';
  const times = given / wanted;
  return times > 1
    ? `${Number(times.toPrecision(2))} times as much`
    : `${Number((100 * times).toPrecision(2))} % of it`;
}

type Measured = Pick<BatchLine, 'name' | 'unit' | 'wanted' | 'measured'> & {
  stock: { take: Pick<BatchLine, 'wanted' | 'measured'> } | null;
};

/**
 * What is odd about amounts typed for a batch, in a sentence each: it is asked about before it is written down. Ten
 * times too much is a slip of the pen more often than of the hand; what coarse steps make of a recipe is no slip.
 *
 * @param typed amounts by line; null where the recipe stands, below 0 where the field itself says what is wrong
 */
export const sayDoubts = (lines: readonly Measured[], typed: readonly (number | null)[]): string[] =>
  lines.flatMap((line, i) => {
    const given = typed[i] ?? null;
    if (given === null || given < 0) return [];
    const { wanted, measured } = line.stock?.take ?? line;
    const far = farFromWanted(given, wanted);
    if (far === null || farFromWanted(given, measured) === null) return [];
    const unit = line.stock ? ' mL' : line.unit === 'piece' ? '' : ` ${line.unit}`;
    return [`${line.name}: ${given}${unit} for ${Number(wanted.toPrecision(4))}${unit} is ${far}.`];
  });
