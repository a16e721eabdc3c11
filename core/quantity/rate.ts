import { type Result, err, ok } from '../model/result';
import { type AreaUnit, type Measure, lengthUnits, measureName } from './units';
import { type Word, readWords } from './rateWords';

/** What a dose is given to: so much water, so much ground, one filling of a tank, one plant or pot. */
export type RateBase =
  | { kind: 'volume'; amount: number; measure: Measure }
  | { kind: 'area'; amount: number; unit: AreaUnit }
  | { kind: 'tank' }
  | { kind: 'unit'; noun: string; amount: number };

/** A dose as a label prints it or a person writes it. `low` and `high` are equal but for a range. */
export type Rate =
  | {
      kind: 'amount';
      low: number;
      high: number;
      /** a measure, or the name of one's own: cap, pump stroke */
      of: { kind: 'measure'; measure: Measure } | { kind: 'own'; name: string };
      /** null: the amount as it is */
      per: RateBase | null;
    }
  /** so many parts in so many parts of solution, e.g. 1:250 */
  | { kind: 'ratio'; parts: number; inParts: number }
  | { kind: 'percent'; low: number; high: number; basis: 'w/v' | 'v/v' | null };

export type RateError =
  | { tag: 'empty' }
  | { tag: 'noNumber'; text: string }
  | { tag: 'notPositive'; text: string }
  | { tag: 'ambiguousNumber'; text: string; comma: string; thousands: string }
  | { tag: 'rangeTurned'; low: number; high: number }
  | { tag: 'noUnit'; text: string }
  | { tag: 'unknownUnit'; word: string }
  | { tag: 'noBase'; after: string }
  | { tag: 'leftOver'; text: string };

/** The error as it stands at a field. */
export function describeRateError(e: RateError): string {
  switch (e.tag) {
    case 'empty':
      return 'Write a rate, such as 5 mL/L or 1 tsp/gal.';
    case 'noNumber':
      return `“${e.text}” doesn’t begin with a number.`;
    case 'notPositive':
      return `“${e.text}” isn’t more than nothing.`;
    case 'ambiguousNumber':
      return `“${e.text}” can be read as ${e.comma} or as ${e.thousands}: write the one you mean.`;
    case 'rangeTurned':
      return `The range goes down, from ${e.low} to ${e.high}.`;
    case 'noUnit':
      return `${e.text} of what? Add g, mL, tsp, cap …`;
    case 'unknownUnit':
      return `“${e.word}” isn’t a measure known here.`;
    case 'noBase':
      return `After “${e.after}” comes what the dose is given to: L, 5 gal, tank, pot, 1000 sq ft.`;
    case 'leftOver':
      return `“${e.text}” wasn’t understood.`;
  }
}

/** Walks through the words of a rate. */
class Reader {
  private at = 0;
  constructor(private readonly words: readonly Word[]) {}
  peek = (): Word | undefined => this.words[this.at];
  next = (): Word | undefined => this.words[this.at++];
  /** takes the next word when it is of this kind */
  take<K extends Word['kind']>(kind: K): Extract<Word, { kind: K }> | undefined {
    const word = this.peek();
    if (word?.kind !== kind) return undefined;
    this.at += 1;
    return word as Extract<Word, { kind: K }>;
  }
  rest = (): string =>
    this.words
      .slice(this.at)
      .map((w) => w.text)
      .join(' ');
}

type Read<T> = Result<T, RateError>;

function readRange(r: Reader): Read<{ low: number; high: number; text: string }> {
  const first = r.take('number');
  if (!first) return err({ tag: 'noNumber', text: r.rest() });
  let last = first;
  if (r.take('to')) {
    const second = r.take('number');
    if (!second) return err({ tag: 'noNumber', text: r.rest() || '–' });
    last = second;
  }
  for (const n of [first, last]) {
    if (n.ambiguous) return err({ tag: 'ambiguousNumber', text: n.text, ...n.ambiguous });
    if (!(n.value > 0)) return err({ tag: 'notPositive', text: n.text });
  }
  if (last.value < first.value) return err({ tag: 'rangeTurned', low: first.value, high: last.value });
  return ok({
    low: first.value,
    high: last.value,
    text: first === last ? first.text : `${first.text}–${last.text}`,
  });
}

function readBase(r: Reader, after: string): Read<RateBase> {
  const number = r.take('number');
  if (number?.ambiguous) return err({ tag: 'ambiguousNumber', text: number.text, ...number.ambiguous });
  if (number && !(number.value > 0)) return err({ tag: 'notPositive', text: number.text });
  const amount = number?.value ?? 1;
  const word = r.next();
  if (!word) return err({ tag: 'noBase', after });
  switch (word.kind) {
    case 'measure':
      if (!['mL', 'cL', 'L', 'cup', 'fl oz', 'pt', 'qt', 'gal', 'tsp', 'tbsp'].includes(word.measure.unit)) {
        return err({ tag: 'noBase', after });
      }
      return ok({ kind: 'volume', amount, measure: word.measure });
    case 'area':
      return ok({ kind: 'area', amount, unit: word.unit });
    // A distance both ways: one to each square of it.
    case 'length':
      return ok({ kind: 'area', amount: (amount * lengthUnits[word.unit]) ** 2, unit: 'm²' });
    case 'tank':
      return amount === 1
        ? ok({ kind: 'tank' })
        : err({ tag: 'leftOver', text: `${number!.text} ${word.text}` });
    case 'unit':
      return ok({ kind: 'unit', noun: word.noun, amount });
    case 'own':
    case 'unknown':
      return err({ tag: 'unknownUnit', word: word.text });
    default:
      return err({ tag: 'noBase', after });
  }
}

function readRate(r: Reader): Read<Rate> {
  const range = readRange(r);
  if (!range.ok) return range;
  const { low, high, text } = range.value;
  if (r.take('colon')) {
    const inParts = r.take('number');
    if (!inParts) return err({ tag: 'noNumber', text: r.rest() || ':' });
    if (inParts.ambiguous) return err({ tag: 'ambiguousNumber', text: inParts.text, ...inParts.ambiguous });
    if (!(inParts.value > 0)) return err({ tag: 'notPositive', text: inParts.text });
    if (low !== high) return err({ tag: 'leftOver', text });
    return ok({ kind: 'ratio', parts: low, inParts: inParts.value });
  }
  if (r.take('percent')) {
    const basis = r.take('basis');
    return ok({ kind: 'percent', low, high, basis: basis?.basis ?? null });
  }
  const word = r.next();
  if (!word) return err({ tag: 'noUnit', text });
  if (word.kind === 'unknown') return err({ tag: 'unknownUnit', word: word.text });
  if (word.kind !== 'measure' && word.kind !== 'own') return err({ tag: 'noUnit', text });
  const of =
    word.kind === 'own'
      ? ({ kind: 'own', name: word.name } as const)
      : ({ kind: 'measure', measure: word.measure } as const);
  const per = r.take('per');
  if (!per) return ok({ kind: 'amount', low, high, of, per: null });
  const base = readBase(r, per.text);
  return base.ok ? ok({ kind: 'amount', low, high, of, per: base.value }) : base;
}

/**
 * Reads a rate as labels print it and people write it, with decimal comma or point, fractions and ranges.
 *
 * @param ownMeasures names of one's own measures beside the usual ones (cap, pump stroke, scoop, drop)
 * @returns the rate, or an error that names what wasn't understood
 * @example parseRate('1–2 tsp per gallon')
 * // { ok: true, value: { kind: 'amount', low: 1, high: 2, of: tsp, per: { kind: 'volume', amount: 1, gal } } }
 */
export function parseRate(text: string, ownMeasures: readonly string[] = []): Read<Rate> {
  if (text.trim() === '') return err({ tag: 'empty' });
  const r = new Reader(readWords(text, ownMeasures));
  const rate = readRate(r);
  if (!rate.ok) return rate;
  return r.peek() ? err({ tag: 'leftOver', text: r.rest() }) : rate;
}

/** A number as it is printed in a rate: a point, no thousands mark, no dust. */
const rateNumber = (value: number): string => {
  const tidy = Number(value.toPrecision(12));
  return Math.abs(tidy) >= 1e-6 && Math.abs(tidy) < 1e15
    ? tidy.toFixed(12).replace(/\.?0+$/, '')
    : String(tidy);
};

function printBase(base: RateBase): string {
  const times = (n: number) => (n === 1 ? '' : `${rateNumber(n)} `);
  switch (base.kind) {
    case 'volume':
      return times(base.amount) + measureName(base.measure);
    case 'area':
      return times(base.amount) + base.unit;
    case 'tank':
      return 'tank';
    case 'unit':
      return base.amount === 1 ? base.noun : `${times(base.amount)}${base.noun}s`;
  }
}

/**
 * The rate as Palazzo prints it; reads back as the same.
 * @example printRate(…) // '1–2 tsp/gal'
 */
export function printRate(rate: Rate): string {
  const range = (low: number, high: number) =>
    low === high ? rateNumber(low) : `${rateNumber(low)}–${rateNumber(high)}`;
  switch (rate.kind) {
    case 'ratio':
      return `${rateNumber(rate.parts)}:${rateNumber(rate.inParts)}`;
    case 'percent':
      return `${range(rate.low, rate.high)} %${rate.basis ? ` ${rate.basis}` : ''}`;
    case 'amount': {
      const of = rate.of.kind === 'own' ? rate.of.name : measureName(rate.of.measure);
      return `${range(rate.low, rate.high)} ${of}${rate.per ? `/${printBase(rate.per)}` : ''}`;
    }
  }
}
