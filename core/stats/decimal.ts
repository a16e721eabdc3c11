/**
 * Exact subtraction of numbers as people write them.
 *
 * A balance reading 1000000000000.4 is stored as the nearest double, whose error is a thousandth of the
 * last digit; subtracting two such doubles keeps that error and loses the answer. A double's shortest
 * decimal form is what was typed, so the difference is taken there, in integers.
 */

interface Decimal {
  mantissa: bigint;
  /** power of ten, ≤ 0 */
  exponent: number;
}

function toDecimal(x: number): Decimal {
  const [head, power = '0'] = String(x).split('e') as [string, string?];
  const [whole, fraction = ''] = head.split('.') as [string, string?];
  let mantissa = BigInt(whole + fraction);
  let exponent = Number(power) - fraction.length;
  if (exponent > 0) {
    mantissa *= 10n ** BigInt(exponent);
    exponent = 0;
  }
  return { mantissa, exponent };
}

/**
 * x − origin, with both taken as the decimals a person wrote, rounded once at the end.
 *
 * @param x finite number
 * @param origin finite number
 * @example decimalDifference(1000000000000.4, 1000000000000) // 0.4
 */
export function decimalDifference(x: number, origin: number): number {
  const a = toDecimal(x);
  const b = toDecimal(origin);
  const exponent = Math.min(a.exponent, b.exponent);
  const scaled = (d: Decimal) => d.mantissa * 10n ** BigInt(d.exponent - exponent);
  return Number(`${scaled(a) - scaled(b)}e${exponent}`);
}

/**
 * Moves values so that they start near zero, without losing their last digits.
 *
 * The exact (slower) subtraction is used only where the offset is a thousand times the spread or more.
 *
 * @param values finite numbers, at least one
 * @returns the origin taken off and the centred values, in the order given
 * @example centre([1e12 + 0.5, 1e12]) // { origin: 1000000000000.5, centred: [0, -0.5] }
 */
export function centre(values: readonly number[]): { origin: number; centred: number[] } {
  const origin = values[0] ?? 0;
  let low = origin;
  let high = origin;
  for (const v of values) {
    if (v < low) low = v;
    if (v > high) high = v;
  }
  const exact = Math.max(Math.abs(low), Math.abs(high)) > 1e3 * (high - low) && high > low;
  return { origin, centred: values.map((v) => (exact ? decimalDifference(v, origin) : v - origin)) };
}
