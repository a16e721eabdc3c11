import { numberAt } from './number';
import { type AreaUnit, type LengthUnit, type Measure, measureAt, unitAt, wordAt } from './units';

/** A word of a rate, as the parser sees it. `text` is what was written. */
export type Word = { text: string } & (
  | { kind: 'number'; value: number; ambiguous: { comma: string; thousands: string } | null }
  | { kind: 'to' }
  | { kind: 'colon' }
  | { kind: 'percent' }
  | { kind: 'basis'; basis: 'w/v' | 'v/v' }
  | { kind: 'per' }
  | { kind: 'measure'; measure: Measure }
  | { kind: 'area'; unit: AreaUnit }
  | { kind: 'length'; unit: LengthUnit }
  | { kind: 'tank' }
  | { kind: 'unit'; noun: string }
  | { kind: 'own'; name: string }
  | { kind: 'unknown' }
);

const own: [name: string, pattern: string][] = [
  ['cap', 'caps?|capfuls?'],
  ['pump stroke', 'pump strokes?|pumps?|strokes?'],
  ['scoop', 'scoops?|scoopfuls?'],
  ['drop', 'drops?'],
  ['squirt', 'squirts?|sprays?'],
  ['sachet', 'sachets?|packets?'],
  ['dropper', 'droppers?|pipettes?|pipettefuls?'],
];
const nouns =
  'pots?|plants?|trays?|units?|bags?|pods?|baskets?|holes?|cuttings?|seedlings?|trees?|cups? of soil';

const word = wordAt;
const rules = {
  own: own.map(([name, p]) => [name, word(p)] as const),
  tank: word('tanks?|reservoirs?|fillings?|fills?|devices?|bowls?'),
  unit: word(nouns),
  /** said without changing anything */
  filler: word('of|water|the|a|an|one|each|every|level|slightly rounded|solution|feed|nutrient'),
  per: word('per|for|in|into|to'),
  to: word('to'),
};

/** Numbers in words, where a rate begins or a range goes on: “half a teaspoon”, “one to two caps”. */
const spelled: [value: number, pattern: RegExp][] = [
  ...['one', 'two', 'three', 'four', 'five'].map(
    (n, i) => [i + 1.5, word(`${n} and a half`)] as [number, RegExp],
  ),
  [0.5, word('half(?: an?)?')],
  [0.25, word('(?:an? )?quarter(?: of an?)?')],
  [0.75, word('three[ -]quarters?(?: of an?)?')],
  [1, word('an?|one')],
  ...['two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'].map(
    (n, i) => [i + 2, word(n)] as [number, RegExp],
  ),
];
/** How directions begin: “Use 5 mL per litre”. */
const opening = word('use|add|mix|apply|give|take|dose|dissolve|dilute');
/** One part in so many: said with parts, or with “in” alone. */
const parts = /^(\d[\d.,]*) (?:parts? (?:to|in|per)|in) (\d[\d.,]*)(?: parts?)?(?=$| of\b| water\b)/i;

const escaped = (name: string) => name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/\s+/g, '\\s+');

/**
 * Splits a rate into words. Fillers (“of water”, “each”) are dropped; what isn't known stays as `unknown`.
 *
 * @param ownMeasures further names of one's own measures, in the singular
 */
export function readWords(text: string, ownMeasures: readonly string[]): Word[] {
  const named = [...ownMeasures]
    .filter((name) => name.trim() !== '')
    .sort((a, b) => b.length - a.length)
    .map((name) => [name, word(`${escaped(name)}(?:e?s)?`)] as const);
  const words: Word[] = [];
  // “2 teaspoons (10 mL) per gallon”: labels say the same twice; the first counts.
  let rest = text
    .replace(/\([^)]*\)/g, ' ')
    .replace(/[‐‑‒–—−]/g, '-')
    .replace(/\s+/g, ' ')
    .trim()
    .replace(parts, '$1:$2');
  while (rest !== '') {
    const { taken, found } = nextWord(rest, named, words);
    if (found) words.push(found);
    rest = rest.slice(taken).trimStart();
  }
  return words;
}

type Named = readonly (readonly [string, RegExp])[];

function nextWord(
  rest: string,
  named: Named,
  before: readonly Word[],
): { taken: number; found: Word | null } {
  const last = before[before.length - 1];
  const as = (found: Word) => ({ taken: found.text.length, found });
  const match = (pattern: RegExp) => pattern.exec(rest)?.[0];
  const basis = /^(w\/v|v\/v)(?!\w)/i.exec(rest)?.[0];
  if (basis) return as({ text: basis, kind: 'basis', basis: basis.toLowerCase() as 'w/v' | 'v/v' });
  const n = numberAt(rest);
  if (n) return as({ kind: 'number', ...n });
  if (!last || last.kind === 'to' || last.kind === 'per') {
    for (const [value, pattern] of spelled) {
      const text = match(pattern);
      if (text) return as({ text, kind: 'number', value, ambiguous: null });
    }
    const begins = last?.kind === 'per' ? undefined : match(opening);
    if (begins) return { taken: begins.length, found: null };
  }
  if (rest.startsWith('-')) return as({ text: '-', kind: 'to' });
  if (rest.startsWith(':')) return as({ text: ':', kind: 'colon' });
  if (rest.startsWith('%')) return as({ text: '%', kind: 'percent' });
  if (rest.startsWith('/')) return as({ text: '/', kind: 'per' });
  const percent = match(word('percent|per cent'));
  if (percent) return as({ text: percent, kind: 'percent' });
  // “1 to 2 tsp” is a range, “1 tsp to 4 L” is what the dose is given to.
  const to = match(rules.to);
  if (to && last?.kind === 'number') return as({ text: to, kind: 'to' });
  for (const [name, pattern] of named) {
    const own = match(pattern);
    if (own) return as({ text: own, kind: 'own', name });
  }
  const area = unitAt(rest, ['area']);
  if (area) return as({ text: area.text, kind: 'area', unit: area.name });
  // “every 6 inches”: a length counts only as a distance, after what is given at it.
  const apart =
    last?.kind === 'number' && before.some((w) => w.kind === 'per') ? unitAt(rest, ['length']) : null;
  if (apart) return as({ text: apart.text, kind: 'length', unit: apart.name });
  const measure = measureAt(rest);
  if (measure) return as({ ...measure, kind: 'measure' });
  for (const [name, pattern] of rules.own) {
    const word = match(pattern);
    if (word) return as({ text: word, kind: 'own', name });
  }
  // “each litre” after a measure is “per litre”; after “per” it says nothing more.
  const each = match(word('each|every|an?'));
  if (each && (last?.kind === 'measure' || last?.kind === 'own')) return as({ text: each, kind: 'per' });
  const per = match(rules.per);
  if (per) return as({ text: per, kind: 'per' });
  const tank = match(rules.tank);
  if (tank) return as({ text: tank, kind: 'tank' });
  const unit = match(rules.unit);
  if (unit) return as({ text: unit, kind: 'unit', noun: unit.toLowerCase().replace(/s$/, '') });
  const filler = match(rules.filler);
  if (filler) return { taken: filler.length, found: null };
  const unknown = /^[^\s/:%\d]+/u.exec(rest)?.[0] ?? rest[0]!;
  return as({ text: unknown, kind: 'unknown' });
}
