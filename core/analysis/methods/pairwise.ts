import { type Result, err, ok } from '../../model/result';
import type { AnalysisError, AnalysisInput } from '../analysis';
import { type Contrast, turned } from '../contrast';

/** The contenders that have values, in the plan's order, the control among them; or why nothing can be compared. */
export function comparedNames({ order, rows, control }: AnalysisInput): Result<string[], AnalysisError> {
  const names = order.filter((t) => rows.some((r) => r.treatment === t));
  if (!names.includes(control)) return err({ tag: 'unknownControl', control, known: names });
  return names.length < 2 ? err({ tag: 'oneTreatment', treatment: names[0]! }) : ok(names);
}

/** Pairs of n. */
const pairsOf = (n: number): number => (n * (n - 1)) / 2;

/** Comparisons that share the error: those with the control; every pair among equals. */
export const familyOf = (names: readonly string[], peers: boolean | undefined): number =>
  peers ? pairsOf(names.length) : names.length - 1;

/**
 * Every contrast once, each at its share of the error (Bonferroni): those with the control in one family, those between
 * the others in another; among equals all pairs in one.
 *
 * @param make works out one contrast; `family` is how many share the error
 */
export function contrastsOf(
  names: readonly string[],
  { control, peers }: Pick<AnalysisInput, 'control' | 'peers'>,
  make: (a: string, b: string, family: number) => Contrast,
): { versusControl: Contrast[]; pairs: Contrast[] } {
  const others = names.filter((n) => n !== control);
  const family = familyOf(names, peers);
  const between = peers ? family : Math.max(1, pairsOf(others.length));
  const versusControl = others.map((n) => make(n, control, family));
  const pairs = names.flatMap((a, i) =>
    names.slice(i + 1).map((b) => {
      if (b === control) return versusControl.find((c) => c.a === a)!;
      if (a === control) return turned(versusControl.find((c) => c.a === b)!);
      return make(a, b, between);
    }),
  );
  return { versusControl, pairs };
}

/** How many comparisons share the error, in words. @example byBonferroni(3) // 'by Bonferroni over 3 comparisons' */
export const byBonferroni = (family: number): string =>
  `by Bonferroni over ${family} ${family === 1 ? 'comparison' : 'comparisons'}`;

/** Whether every unit stands in a block. */
export const inBlocks = (rows: AnalysisInput['rows']): boolean => rows.every((r) => r.block !== null);
