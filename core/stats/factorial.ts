import fCdf from '@stdlib/stats-base-dists-f-cdf';
import { type Result, err, ok } from '../model/result';

/** A unit of a factorial. */
export interface FactorialRow {
  /** level of each factor, in the order of the factors */
  levels: readonly string[];
  /** additive; left out: no blocks */
  block?: string;
  /** whole plot, where a factor was given to whole plots; its name counts within its block */
  plot?: string;
  value: number;
}

/** A main effect or an interaction. */
export interface FactorialTerm {
  /** factors joined by a colon: A, A:B */
  term: string;
  /** nulls where the error it is tested against is nothing to speak of */
  f: number | null;
  df1: number;
  df2: number;
  p: number | null;
}

type FactorialError =
  | { tag: 'fewFactors' }
  | { tag: 'oneLevel'; factor: string }
  | { tag: 'emptyCell'; levels: string[] }
  | { tag: 'noResidual' }
  | { tag: 'noPlotResidual' }
  /** a whole plot has two levels of the main factor */
  | { tag: 'plotTwoLevels'; plot: string; levels: [string, string] }
  | { tag: 'unevenPlots'; plot: string; cell: string[]; units: number; others: number };

export function describeFactorialError(e: FactorialError, main = ''): string {
  switch (e.tag) {
    case 'fewFactors':
      return 'Two factors or three are needed.';
    case 'oneLevel':
      return `Factor “${e.factor}” has one level only.`;
    case 'emptyCell':
      return `No value for ${e.levels.join(' with ')}: every combination needs one.`;
    case 'noResidual':
      return 'No degree of freedom is left for the residual: more units are needed.';
    case 'noPlotResidual':
      return `No degree of freedom is left to test ${main} against: more whole plots of each level are needed.`;
    case 'plotTwoLevels':
      return `Plot “${e.plot}” is listed under two levels of ${main}: ${e.levels.join(' and ')}.`;
    case 'unevenPlots':
      return `Plot “${e.plot}” has ${e.units} of ${e.cell.join(' with ')} where others have ${e.others}: the same number is needed in every plot.`;
  }
}

/** The span of some columns, as orthonormal vectors. */
class Span {
  private readonly basis: Float64Array[] = [];

  get rank(): number {
    return this.basis.length;
  }

  /** The span with more columns in it; those that earlier ones make up already change nothing. */
  with(columns: readonly Float64Array[]): Span {
    const grown = new Span();
    grown.basis.push(...this.basis);
    for (const column of columns) grown.add(column);
    return grown;
  }

  private add(column: Float64Array): void {
    const left = this.residual(column);
    const size = norm(left);
    if (size <= 1e-8 * norm(column)) return;
    this.basis.push(left.map((x) => x / size));
  }

  /** What the span doesn't make up; taken off twice, so that rounding doesn't come back in. */
  residual(y: Float64Array): Float64Array {
    const left = y.slice();
    for (let again = 0; again < 2; again++) {
      for (const b of this.basis) {
        let dot = 0;
        for (let i = 0; i < left.length; i++) dot += b[i]! * left[i]!;
        for (let i = 0; i < left.length; i++) left[i]! -= dot * b[i]!;
      }
    }
    return left;
  }
}

const norm = (x: Float64Array): number => Math.sqrt(x.reduce((s, v) => s + v * v, 0));
const squares = (x: Float64Array): number => x.reduce((s, v) => s + v * v, 0);

/** A column of ones and noughts for each name, in the order of first appearance. */
function indicators(names: readonly string[]): Float64Array[] {
  return [...new Set(names)].map((name) => Float64Array.from(names, (n) => (n === name ? 1 : 0)));
}

/** Every set of factors but the empty one, the smaller first, each in the order of the factors. */
function termsOf(factors: number): number[][] {
  const sets = Array.from({ length: 2 ** factors - 1 }, (_, i) =>
    Array.from({ length: factors }, (_, f) => f).filter((f) => ((i + 1) >> f) & 1),
  );
  return sets.sort((a, b) => a.length - b.length || a.join().localeCompare(b.join()));
}

const key = (parts: readonly string[]) => JSON.stringify(parts);

function emptyCell(rows: readonly FactorialRow[], levels: readonly string[][]): string[] | null {
  const seen = new Set(rows.map((r) => key(r.levels)));
  const cells = levels.reduce<string[][]>((all, own) => all.flatMap((c) => own.map((l) => [...c, l])), [[]]);
  return cells.find((c) => !seen.has(key(c))) ?? null;
}

/** Whether every whole plot has one level of the main factor, and the same number of units in every cell of the others. */
function plotFault(
  rows: readonly FactorialRow[],
  main: number,
  plots: readonly string[],
  levels: readonly string[][],
): FactorialError | null {
  const mainOf = new Map<string, string>();
  for (const [i, r] of rows.entries()) {
    const known = mainOf.get(plots[i]!);
    if (known !== undefined && known !== r.levels[main]) {
      return { tag: 'plotTwoLevels', plot: r.plot ?? '', levels: [known, r.levels[main]!] };
    }
    mainOf.set(plots[i]!, r.levels[main]!);
  }
  const others = levels.filter((_, f) => f !== main);
  const cells = others.reduce<string[][]>((all, own) => all.flatMap((c) => own.map((l) => [...c, l])), [[]]);
  const cellOf = (r: FactorialRow) => key(r.levels.filter((_, f) => f !== main));
  const first = rows.filter((r, i) => plots[i] === plots[0] && cellOf(r) === key(cells[0]!)).length;
  for (const plot of new Set(plots)) {
    for (const cell of cells) {
      const units = rows.filter((r, i) => plots[i] === plot && cellOf(r) === key(cell)).length;
      const name = rows[plots.indexOf(plot)]!.plot ?? '';
      if (units !== first) return { tag: 'unevenPlots', plot: name, cell, units, others: first };
    }
  }
  return null;
}

/**
 * F tests of a factorial by type II sums of squares (Yates 1934): each term after all others that don't contain it, so
 * that unbalanced data are judged rightly. Blocks are additive. Where one factor was given to whole plots it is tested
 * against plots of its own levels (after blocks), everything else against the residual within plots.
 *
 * @param names of the factors, two or three
 * @param rows one a unit
 * @param main place of the factor that was given to whole plots; null: none was
 * @returns main effects, then interactions; an error where a cell is empty or nothing is left to test against
 * @example factorial(['base', 'additive'], rows).value[2].term // 'base:additive'
 */
export function factorial(
  names: readonly string[],
  rows: readonly FactorialRow[],
  main: number | null = null,
): Result<FactorialTerm[], FactorialError> {
  if (names.length < 2 || names.length > 3) return err({ tag: 'fewFactors' });
  const levels = names.map((_, f) => [...new Set(rows.map((r) => r.levels[f]!))]);
  const single = levels.findIndex((l) => l.length < 2);
  if (single >= 0) return err({ tag: 'oneLevel', factor: names[single]! });
  const empty = emptyCell(rows, levels);
  if (empty) return err({ tag: 'emptyCell', levels: empty });
  const plots = rows.map((r) => key([r.block ?? '', r.plot ?? '']));
  const uneven = main === null ? null : plotFault(rows, main, plots, levels);
  if (uneven) return err(uneven);

  const middle = rows.reduce((s, r) => s + r.value, 0) / rows.length;
  const y = Float64Array.from(rows, (r) => r.value - middle);
  const base = new Span().with([
    new Float64Array(rows.length).fill(1),
    ...indicators(rows.map((r) => r.block ?? '')),
  ]);
  const terms = termsOf(names.length);
  const columnsOf = (term: readonly number[]) =>
    indicators(rows.map((r) => key(term.map((f) => r.levels[f]!))));
  const within = main === null ? base : base.with(indicators(plots));
  const full = terms.reduce((span, t) => span.with(columnsOf(t)), within);
  const dfResidual = rows.length - full.rank;
  if (dfResidual < 1) return err({ tag: 'noResidual' });
  const residual = squares(full.residual(y));
  const scale = squares(y);

  const test = (ss: number, df1: number, error: number, df2: number): Omit<FactorialTerm, 'term'> => {
    // An error that is rounding alone tests nothing; a term that blocks make up already has nothing to test.
    if (df1 === 0 || error <= 1e-14 * scale) return { f: null, df1, df2, p: null };
    const f = Math.max(0, ss) / df1 / (error / df2);
    // The upper tail as the lower one of 1/F: small p keep their digits.
    return { f, df1, df2, p: f > 0 ? fCdf(1 / f, df2, df1) : 1 };
  };
  const out: FactorialTerm[] = [];
  for (const term of terms) {
    const called = term.map((f) => names[f]!).join(':');
    if (main !== null && term.length === 1 && term[0] === main) {
      const withMain = base.with(columnsOf(term));
      const df2 = within.rank - withMain.rank;
      if (df2 < 1) return err({ tag: 'noPlotResidual' });
      const error = squares(withMain.residual(y)) - squares(within.residual(y));
      const ss = squares(base.residual(y)) - squares(withMain.residual(y));
      out.push({ term: called, ...test(ss, withMain.rank - base.rank, error, df2) });
      continue;
    }
    const contains = (other: readonly number[]) => term.every((f) => other.includes(f));
    const before = terms.filter((t) => !contains(t)).reduce((s, t) => s.with(columnsOf(t)), within);
    const after = before.with(columnsOf(term));
    const ss = squares(before.residual(y)) - squares(after.residual(y));
    out.push({ term: called, ...test(ss, after.rank - before.rank, residual, dfResidual) });
  }
  return ok(out);
}
