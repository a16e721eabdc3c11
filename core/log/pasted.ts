import type { Result } from '../model/result';
import { err, ok } from '../model/result';
import type { Unit } from '../model/plan';
import { unitNamedIn } from '../plan/matchUnit';
import { describeNumberFault, readNumber } from '../quantity/number';

/** So many lines are looked through: more than any trial has units. */
export const MOST_PASTED = 2_000;
/** Bytes of a column: more than any has. */
export const MOST_PASTED_TEXT = 200_000;

/** A code and its figures set off by spaces are no longer than so many letters. */
const LONGEST_SPACED = 200;

type Named = Pick<Unit, 'id' | 'code'>;

/** What is taken of every unit: the value, one of its plants or crops, the pieces of a grade. */
export interface PastedColumn {
  /** what it is called, and what else a heading may call it */
  names: readonly [string, ...string[]];
  read: (text: string) => Result<number, string>;
  /** why a value can't be the unit's; left out: any can */
  fault?: (value: number, unit: Named) => string | null;
}

/** A figure of a pasted line, and what is taken of it. */
interface PastedCell {
  /** which column it is for */
  column: number;
  text: string;
  /** null where it is none, or isn't taken */
  value: number | null;
  /** why it isn't taken; null: it is */
  why: string | null;
}

/** A line of a pasted column or table. */
interface PastedRow<U extends Named = Named> {
  /** as it was pasted */
  text: string;
  unit: U | null;
  cells: PastedCell[];
  /** why nothing of it is taken; null: see the cells */
  why: string | null;
}

/** A plain figure. */
export function readFigure(text: string): Result<number, string> {
  const read = readNumber(text);
  if (read.ok) return read;
  return err(read.error.tag === 'ambiguousNumber' ? describeNumberFault(read.error) : 'not a number');
}

/** “4 of 5” or “4/5” where five are counted; a bare 4 as well. @example readCountOf(5)('4/5') // { ok: true, value: 4 } */
export const readCountOf =
  (outOf: number) =>
  (text: string): Result<number, string> => {
    const match = /^(\d+)\s*(?:\/|of)\s*(\d+)$/i.exec(text.trim());
    if (!match) return readFigure(text);
    return Number(match[2]) === outOf ? ok(Number(match[1])) : err(`not of ${outOf}`);
  };

const yes = new Set(['yes', 'y', 'x', 'true', '1']);
const no = new Set(['no', 'n', 'false', '0']);
/** Yes or no, as people write it down. */
export function readYesNo(text: string): Result<number, string> {
  const word = text.trim().toLowerCase();
  return yes.has(word) ? ok(1) : no.has(word) ? ok(0) : err('neither yes nor no');
}

const OPEN = 'no value: stays open';
const isOpen = (text: string) => text === '' || /^(NA|n\/a|[-–—])$/i.test(text);

/** A line apart by tabs, semicolons, or commas that aren't a decimal mark. */
const cellsOf = (line: string) => line.split(/[\t;]|,(?=\s)|,(?=[^\d])|(?<=[^\d]),/).map((c) => c.trim());

/** A line apart by spaces; “14 3/4” stays one figure. */
const wordsOf = (line: string) =>
  line.split(/\s+/).reduce<string[]>((words, w) => {
    const fraction = /^\d+\/\d+$/.test(w) && /^\d+$/.test(words.at(-1) ?? '');
    return fraction ? [...words.slice(0, -1), `${words.at(-1)} ${w}`] : [...words, w];
  }, []);

/** The words of a line, the code of its unit being the first or the last of them; null where neither is one. */
function spaced<U extends Named>(line: string, units: readonly U[], oneFigure: boolean): string[] | null {
  const words = line.length < LONGEST_SPACED ? wordsOf(line) : [];
  if (words.length < 2) return null;
  const named = (text: string) => unitNamedIn(units, text) !== undefined;
  const [first, last, after, before] = [words[0]!, words.at(-1)!, words.slice(1), words.slice(0, -1)];
  const joined = (rest: string[]) => (oneFigure ? [rest.join(' ')] : rest);
  if (named(first) && !after.some(named)) return [first, ...joined(after)];
  if (named(last) && !before.some(named)) return [...joined(before), last];
  return oneFigure || !words.every((w) => isOpen(w) || /^[\d.,/ ]+$/.test(w)) ? null : words;
}

const plain = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, ' ')
    .trim();

/** Which cell of a line is for which column, as a heading says; null where it names none. */
function headed(cells: readonly string[], columns: readonly PastedColumn[]): (number | null)[] | null {
  const at = cells.map((c) => {
    const i = columns.findIndex(({ names }) => names.some((n) => plain(n) === plain(c)));
    return i < 0 ? null : i;
  });
  return at.some((i) => i !== null) ? at : null;
}

/**
 * A column or a table as it comes from a spreadsheet or a file: figures alone, in the order of the walk, or each line with the
 * code of its unit; one figure a line, or one for each of several columns in their order or that of a heading. Nothing is
 * guessed. Lines behind the `MOST_PASTED`th aren't looked at.
 *
 * @param units in walking order
 * @param columns what is taken of a unit, in order
 * @example pastedRows('11.2\n10.8', walk, [{ names: ['height'], read: readFigure }]).map((r) => r.cells[0]?.value) // [11.2, 10.8]
 */
export function pastedRows<U extends Named>(
  text: string,
  units: readonly U[],
  columns: readonly PastedColumn[],
): PastedRow<U>[] {
  const lines = text
    .slice(0, MOST_PASTED_TEXT)
    .split(/\r\n|\n|\r/, MOST_PASTED)
    // A tab at the end is an empty cell.
    .map((l) => l.replace(/^ +| +$/g, ''));
  while (lines.at(-1)?.trim() === '') lines.pop();
  const one = columns.length === 1;
  const read = lines.map((line) => {
    const apart = cellsOf(line);
    const cells = apart.length > 1 ? apart : (spaced(line, units, one) ?? apart);
    return cells.map((text) => ({ text, unit: unitNamedIn(units, text) }));
  });
  const named = read.some((cells) => cells.some((c) => c.unit));
  const isFigure = (text: string) => columns.some((c) => c.read(text).ok) || readNumber(text).ok;
  const top = read[0]?.map((c) => c.text) ?? [];
  const order = read[0]?.some((c) => c.unit) ? null : headed(top, columns);
  const ofWords = read[0]?.every((c) => !c.unit && !isFigure(c.text) && !/\d[.,]\d/.test(c.text));
  const isHeading = (i: number) =>
    i === 0 && lines[0]!.trim() !== '' && ((named && order !== null) || ofWords === true);
  /** the columns a unit has in lines before */
  const takenSamples = new Map<string, Set<number>>();
  let next = 0;
  return lines.flatMap((line, i): PastedRow<U>[] => {
    if (isHeading(i)) return [];
    const all = read[i]!;
    const unit = (named ? all.find((c) => c.unit)?.unit : units[next]) ?? null;
    if (unit === null) {
      const why = named ? 'names no unit that is walked' : 'more lines than units';
      return [{ text: line, unit, cells: [], why }];
    }
    const had = takenSamples.get(unit.id) ?? new Set<number>();
    takenSamples.set(unit.id, had);
    const rest = all.flatMap((c, at) => (c.unit ? [] : [{ text: c.text, at }]));
    const placed =
      order && isHeading(0)
        ? rest.flatMap(({ text, at }) => (order[at] == null ? [] : [{ text, column: order[at] }]))
        : placedIn(
            rest.map((c) => c.text),
            columns,
            had,
          );
    if (typeof placed === 'string') {
      if (!named) next += 1;
      return [{ text: line, unit, cells: [], why: placed }];
    }
    const cells = placed.map(({ text, column }): PastedCell => {
      const nothing = { column, text, value: null };
      // The next figure of the unit is of its next plant, whatever becomes of this one.
      const again = had.has(column);
      if (!one) had.add(column);
      if (isOpen(text)) return { ...nothing, why: OPEN };
      const value = columns[column]!.read(text);
      if (!value.ok) return { ...nothing, why: value.error };
      const why = again
        ? `${unit.code} has ${one ? 'a line' : columns[column]!.names[0]} already`
        : (columns[column]!.fault?.(value.value, unit) ?? null);
      if (why !== null) return { ...nothing, why };
      had.add(column);
      return { column, text, value: value.value, why: null };
    });
    // Figures alone, one a line: the next line is the unit's next column, then the next unit.
    const full = cells.length > 1 || (cells[0]?.column ?? 0) === columns.length - 1;
    if (!named && full) next += 1;
    return [{ text: line, unit, cells, why: cells.length === 0 ? OPEN : null }];
  });
}

/** The column of each figure of a line without a heading; words why it can't be said. */
function placedIn(
  texts: readonly string[],
  columns: readonly PastedColumn[],
  had: ReadonlySet<number>,
): { text: string; column: number }[] | string {
  const [first] = columns;
  if (columns.length === 1) {
    if (texts.every(isOpen)) return OPEN;
    // A note beside the figure is passed over.
    const figures = texts.filter((t) => first!.read(t).ok);
    if (figures.length > 1) return 'more than one figure';
    const text =
      figures[0] ?? texts.find((t) => !isOpen(t) && readNumber(t).ok) ?? texts.find((t) => !isOpen(t))!;
    return [{ text, column: 0 }];
  }
  if (texts.length === 1) {
    const column = columns.findIndex((_, i) => !had.has(i));
    return column < 0 ? `more than ${columns.length} figures` : [{ text: texts[0]!, column }];
  }
  const beyond = texts.slice(columns.length).find((t) => !isOpen(t));
  if (beyond !== undefined) return `more than ${columns.length} figures`;
  return texts.slice(0, columns.length).map((text, column) => ({ text, column }));
}
