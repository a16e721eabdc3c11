import pluralize from 'pluralize';
import { moneyLocale, withMark } from './region';

/** A figure with a fixed number of decimals and a true minus sign. @example formatFigure(-3.14159, 2) // '−3.14' */
export function formatFigure(value: number, decimals: number): string {
  const text = value.toFixed(decimals);
  return withMark(Number(text) === 0 ? text.replace('-', '') : text.replace('-', '−'));
}

/**
 * A whole number with its thousands apart, as the region writes them.
 * @example inFigures('de-CH', () => formatCount(12000)) // '12’000'
 */
export const formatCount = (n: number): string => new Intl.NumberFormat(moneyLocale()).format(n);

/** A figure that always shows its sign. @example formatSigned(5.2, 0) // '+5' */
export function formatSigned(value: number, decimals: number): string {
  const text = formatFigure(value, decimals);
  return value > 0 && /[1-9]/.test(text) ? `+${text}` : text;
}

/** A p-value as it is printed: three decimals, never “0.000”. */
export function formatP(p: number): string {
  return p < 0.001 ? `< ${withMark('0.001')}` : withMark(p.toFixed(3));
}

/** A p-value in a sentence. @example sayP(0.0004) // 'p < 0.001' */
export const sayP = (p: number): string => `p ${p < 0.001 ? '' : '= '}${formatP(p)}`;

/** A figure to so many significant digits, without trailing noughts. @example formatSignificant(0.2, 4) // '0.2' */
export const formatSignificant = (value: number, digits: number): string =>
  withMark(String(Number(value.toPrecision(digits))).replace('-', '−'));

const words = [
  'no',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];

/** A small count as a word. @example countWord(4) // 'four' */
export const countWord = (n: number): string => words[n] ?? String(n);

/** Names joined as in a sentence. @example listNames(['A', 'B', 'C']) // 'A, B and C' */
export const listNames = (names: readonly string[]): string => inAList.format(names);
const inAList = new Intl.ListFormat('en-GB', { type: 'conjunction' });

/**
 * Plural of an English noun a person typed for the unit.
 * @example plural('leaf') // 'leaves'
 */
export const plural = (noun: string): string => pluralize(noun);

/** One of what a plural names. @example singular('leaves') // 'leaf' */
export const singular = (noun: string): string => pluralize.singular(noun);

/** So many of a noun. @example countOf(1, 'leaf') // '1 leaf'; countOf(3, 'leaf') // '3 leaves' */
export const countOf = (n: number, noun: string): string => `${n} ${n === 1 ? noun : plural(noun)}`;

/** From so many on a larger unit is said. */
const LARGE = 10_000;
const larger: Record<string, string> = { mL: 'L', g: 'kg' };

/**
 * So much of a pack or a dose, with as many figures as a scale shows and in a unit a person would say.
 * @example amountWords(15.39998904, 'g') // '15.4 g'; amountWords(12000, 'mL') // '12 L'; amountWords(2, 'piece') // '2 pieces'
 */
export function amountWords(amount: number, unit: string): string {
  if (unit === 'piece') return countOf(Number(amount.toPrecision(4)), 'piece');
  const up = Math.abs(amount) >= LARGE ? larger[unit] : undefined;
  return up ? `${formatSignificant(amount / 1000, 4)} ${up}` : `${formatSignificant(amount, 4)} ${unit}`;
}

/**
 * Residual degrees of freedom as a grower would say them: values beyond those that the means and blocks take up.
 * @example sayDf(2) // '2 values over to judge chance by'
 */
export const sayDf = (df: number): string => `${df} ${df === 1 ? 'value' : 'values'} over to judge chance by`;

/** First letter as a capital. */
export const sentenceCase = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A sentence's words where they go on within another; names in capitals stay. @example inSentence('Set the trays apart') // 'set the trays apart' */
export const inSentence = (text: string): string =>
  /^\p{Lu}\p{Ll}/u.test(text) ? text.charAt(0).toLowerCase() + text.slice(1) : text;
