import type { Unit } from '../model/plan';
import { unitNamedIn } from '../plan/matchUnit';
import { describeNumberFault, readNumber } from '../quantity/number';

/** So many lines are looked through: more than any trial has units. */
export const MOST_PASTED = 2_000;
/** Bytes of a column: more than any has. */
export const MOST_PASTED_TEXT = 200_000;

/** A code and its figure are no longer than so many letters. */
const LONGEST_SPACED = 100;

/** A line of a pasted column, and what will be taken of it. */
export interface PastedRow {
  /** as it was pasted */
  text: string;
  unit: Pick<Unit, 'id' | 'code'> | null;
  value: number | null;
  /** why it isn't taken; null: it is */
  why: string | null;
}

/**
 * A column as it comes from a spreadsheet or a file: values alone, in the order of the walk, or each with the code of its
 * unit before or behind it. A heading is passed over; nothing is guessed. Lines behind the `MOST_PASTED`th aren't looked at.
 *
 * @param units in walking order
 * @param fault why a value can't be one of the trait; null when it can
 * @example pastedRows('11.2\n10.8', walk, () => null).map((r) => r.value) // [11.2, 10.8]
 */
export function pastedRows(
  text: string,
  units: readonly Pick<Unit, 'id' | 'code'>[],
  fault: (value: number) => string | null,
): PastedRow[] {
  const lines = text
    .slice(0, MOST_PASTED_TEXT)
    .split(/\r\n|\n|\r/, MOST_PASTED)
    .map((l) => l.trim());
  while (lines.at(-1) === '') lines.pop();
  const cellsOf = (line: string) => line.split(/[\t;]|,(?=\s)|,(?=[^\d])|(?<=[^\d]),/).map((c) => c.trim());
  const asCells = (texts: readonly string[]) =>
    texts.map((text) => ({ text, unit: unitNamedIn(units, text) }));
  const read = lines.map((line) => {
    const cells = asCells(cellsOf(line));
    // “MYC-01 5.5”: a code set off by a space alone is no part of the figure.
    const words = cells.length === 1 && line.length < LONGEST_SPACED ? line.split(/\s+/) : [];
    if (words.length < 2) return cells;
    const ends = [
      [words[0]!, words.slice(1).join(' ')],
      [words.slice(0, -1).join(' '), words.at(-1)!],
    ].map(asCells);
    // The code is the word at the one end or the other.
    return ends.find(([a, b], i) => [a, b][i]!.unit && ![b, a][i]!.unit) ?? cells;
  });
  const named = read.some((cells) => cells.some((c) => c.unit));
  const seen = new Set<string>();
  let next = 0;
  return lines.flatMap((line, i): PastedRow[] => {
    const cells = read[i]!;
    const unit = (named ? cells.find((c) => c.unit)?.unit : units[next]) ?? null;
    const rest = cells.filter((c) => !c.unit).map((c) => c.text);
    const numbers = rest.map((c) => readNumber(c));
    const figures = numbers.flatMap((n) => (n.ok ? [n.value] : []));
    const [twofold] = numbers.flatMap((n) => (!n.ok && n.error.tag === 'ambiguousNumber' ? [n.error] : []));
    const value = figures.length === 1 ? figures[0]! : null;
    // A line of words at the top is the heading.
    if (i === 0 && figures.length === 0 && !twofold && (!named || unit === null) && line !== '') return [];
    if (!named) next += 1;
    const why =
      unit === null
        ? named
          ? 'names no unit that is walked'
          : 'more lines than units'
        : rest.every((c) => c === '' || c === 'NA')
          ? 'no value: stays open'
          : twofold
            ? describeNumberFault(twofold)
            : figures.length > 1
              ? 'more than one figure'
              : value === null
                ? 'not a number'
                : seen.has(unit.code)
                  ? `${unit.code} has a line already`
                  : fault(value);
    if (why === null) seen.add(unit!.code);
    return [{ text: line, unit, value, why }];
  });
}
