import type { Unit } from '../model/plan';
import { unitNamedIn } from '../plan/matchUnit';
import { numberIn } from '../quantity/number';

/** So many lines are looked through: more than any trial has units. */
export const MOST_PASTED = 2_000;
/** Bytes of a column: more than any has. */
export const MOST_PASTED_TEXT = 200_000;

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
  const read = lines.map((line) => cellsOf(line).map((text) => ({ text, unit: unitNamedIn(units, text) })));
  const named = read.some((cells) => cells.some((c) => c.unit));
  const seen = new Set<string>();
  let next = 0;
  return lines.flatMap((line, i): PastedRow[] => {
    const cells = read[i]!;
    const unit = (named ? cells.find((c) => c.unit)?.unit : units[next]) ?? null;
    const rest = cells.filter((c) => !c.unit).map((c) => c.text);
    const figures = rest.map((c) => numberIn(c)).filter((n) => n !== null);
    const value = figures.length === 1 ? figures[0]! : null;
    // A line of words at the top is the heading.
    if (i === 0 && figures.length === 0 && (!named || unit === null) && line !== '') return [];
    if (!named) next += 1;
    const why =
      unit === null
        ? named
          ? 'names no unit that is walked'
          : 'more lines than units'
        : rest.every((c) => c === '' || c === 'NA')
          ? 'no value: stays open'
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
