import { type Result, err, ok } from '../model/result';
import { decimalMark } from './region';

const signs: Record<string, number> = {
  ...{ '¼': 1 / 4, '½': 1 / 2, '¾': 3 / 4, '⅓': 1 / 3, '⅔': 2 / 3 },
  ...{ '⅛': 1 / 8, '⅜': 3 / 8, '⅝': 5 / 8, '⅞': 7 / 8 },
};
const signed = Object.keys(signs).join('');

/** Thousands are set apart by one mark throughout; figures without it have one decimal mark at most. */
const GROUPED = "\\d{1,3}(?:([.,’'\\u00a0\\u202f ])\\d{3})(?:\\1\\d{3})*(?!\\d)(?:[.,]\\d+)?";
const PLAIN = '\\d+(?:[.,]\\d+)?|[.,]\\d+';
/** 1½ · 1 1/2 · 1-1/2 · 1/2 · ½ · 1,000 · 1.5 · 1,5 */
const NUMBER = new RegExp(
  `^(?:(\\d+) ?([${signed}])|(\\d+)[ -](\\d+)/(\\d+)|(\\d+)/(\\d+)|([${signed}])|(${GROUPED}|${PLAIN}))`,
  'u',
);

/** A number at the beginning of a text; with two readings where a comma may set apart decimals or thousands. */
interface NumberAt {
  text: string;
  value: number;
  ambiguous: { comma: string; thousands: string } | null;
}

/** What a comma with three figures behind it is: the region's decimal mark, or a mark that may be either. */
function plainValue(text: string, mark: '.' | ','): Omit<NumberAt, 'text'> {
  const sure = (figure: string) => ({ value: Number(figure), ambiguous: null });
  const spaced = text.replace(/[’'\u00a0\u202f ]/g, '');
  const marks = [...spaced.matchAll(/[.,]/g)].map((m) => m[0]);
  const [first] = marks;
  if (first === undefined) return sure(spaced);
  const last = marks.at(-1)!;
  // Of two marks the last one begins the decimals; one mark several times sets thousands apart.
  if (first !== last) return sure(spaced.replaceAll(first, '').replace(',', '.'));
  if (marks.length > 1) return sure(spaced.replaceAll(first, ''));
  const [whole, behind] = spaced.split(first) as [string, string];
  const either = first === ',' && mark === '.' && /^[1-9]\d{0,2}$/.test(whole) && behind.length === 3;
  if (spaced !== text || !either) return sure(`${whole}.${behind}`);
  // Nobody writes three noughts behind a decimal comma where a point is the mark.
  if (behind === '000') return sure(whole + behind);
  return { value: NaN, ambiguous: { comma: `${whole}.${behind}`, thousands: whole + behind } };
}

/**
 * The number a text begins with, as people write it: 12.5, 12,5, 1 250, 1’250, 1,250,000, ½, 5 1/4, 14¾.
 * @param mark the region's decimal mark
 * @returns null where it doesn't begin with one
 * @example numberAt('5 1/4 in')?.value // 5.25
 */
export function numberAt(text: string, mark = decimalMark()): NumberAt | null {
  const match = NUMBER.exec(text);
  if (!match) return null;
  const [all, whole, sign, mixed, above, below, over, under, alone, plain] = match;
  const as = (value: number) => ({ text: all, value, ambiguous: null });
  if (whole !== undefined) return as(Number(whole) + signs[sign!]!);
  if (mixed !== undefined) return as(Number(mixed) + Number(above) / Number(below));
  if (over !== undefined) return as(Number(over) / Number(under));
  if (alone !== undefined) return as(signs[alone]!);
  return { text: all, ...plainValue(plain!, mark) };
}

export type NumberFault =
  | { tag: 'noNumber'; text: string }
  | { tag: 'ambiguousNumber'; text: string; comma: string; thousands: string };

/** The fault as it stands at a field. */
export const describeNumberFault = (e: NumberFault): string =>
  e.tag === 'noNumber'
    ? `“${e.text}” isn’t a number.`
    : `“${e.text}” can be read as ${e.comma} or as ${e.thousands}: write the one you mean.`;

/**
 * Reads a number as people type it, with a sign or an exponent; one that has two readings is refused with both.
 * @example readNumber('12,5') // { ok: true, value: 12.5 }
 */
export function readNumber(typed: string, mark = decimalMark()): Result<number, NumberFault> {
  const text = typed.trim();
  const fault = () => err({ tag: 'noNumber' as const, text });
  const [, sign, rest] = /^([-−+]?)(.*)$/s.exec(text)!;
  const one = /^[\d.,]+$/.test(rest!) || !/e/i.test(rest!) ? null : fileNumber(rest!);
  const numeral = one === null ? numberAt(rest!, mark) : { text: rest!, value: one, ambiguous: null };
  if (!numeral) return fault();
  // A point may end a figure while it is typed.
  if (numeral.text !== rest && `${numeral.text}.` !== rest) return fault();
  if (numeral.ambiguous) return err({ tag: 'ambiguousNumber', text, ...numeral.ambiguous });
  return Number.isFinite(numeral.value)
    ? ok(sign === '-' || sign === '−' ? -numeral.value : numeral.value)
    : fault();
}

/** The number a text is; null where it isn't one, or may be two. @example numberIn('1,250') // null */
export function numberIn(text: string): number | null {
  const read = readNumber(text);
  return read.ok ? read.value : null;
}

/**
 * Both texts a typed one may stand for, where a comma in it may set apart decimals or thousands.
 * @example readingsOf('1,250 mL/L') // ['1.250 mL/L', '1250 mL/L']
 */
export function readingsOf(text: string): [string, string] | null {
  for (let at = 0; at < text.length; at++) {
    if (!/[\d.,¼-¾⅐-⅞]/u.test(text[at]!)) continue;
    const numeral = numberAt(text.slice(at));
    if (!numeral) continue;
    const { ambiguous } = numeral;
    if (ambiguous) {
      const [before, after] = [text.slice(0, at), text.slice(at + numeral.text.length)];
      return [before + ambiguous.comma + after, before + ambiguous.thousands + after];
    }
    at += numeral.text.length - 1;
  }
  return null;
}

/**
 * A number of a file, whose marks the file itself makes plain: a single comma begins decimals; no fractions, no thousands.
 * @returns null where the text isn't one
 * @example fileNumber('12,5') // 12.5
 */
export function fileNumber(text: string): number | null {
  const t = text.trim().replace('−', '-').replace(/^\+/, '');
  const normal = /^-?\d*,\d+$/.test(t) ? t.replace(',', '.') : t;
  if (!/^-?(\d+\.?\d*|\.\d+)(e[-+]?\d+)?$/i.test(normal)) return null;
  const value = Number(normal);
  return Number.isFinite(value) ? value : null;
}
