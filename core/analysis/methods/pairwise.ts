import { type Result, err, ok } from '../../model/result';
import type { AnalysisError, AnalysisInput } from '../analysis';
import { type SetTest, closedAgainst, closedPairs } from '../../stats/closedTesting';
import { type Scored, leastOf } from '../../stats/swapping';
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

/**
 * p of every pair by closed testing. Against the control every set with it is refuted before one is told from it; two
 * others are told apart by closed testing once all are told from the control, before that at a share of the level
 * (Bonferroni). Equals are one family.
 *
 * @param test of groups by their place among the names
 * @returns null where the two alone can't be tested
 */
export function closedP(
  names: readonly string[],
  { control, peers, alpha }: Pick<AnalysisInput, 'control' | 'peers' | 'alpha'>,
  test: SetTest,
): (a: string, b: string) => number | null {
  const at = (name: string) => names.indexOf(name);
  if (peers) {
    const pairs = closedPairs(
      names.map((_, i) => i),
      test,
    );
    return (a, b) => pairs(at(a), at(b));
  }
  const others = names.flatMap((n, i) => (n === control ? [] : [i]));
  const against = closedAgainst(at(control), others, test);
  const all = others.every((o) => (against.get(o) ?? 1) <= alpha);
  const between = all ? closedPairs(others, test) : null;
  return (a, b) => {
    if (b === control) return against.get(at(a))!;
    if (a === control) return against.get(at(b))!;
    if (between) return between(at(a), at(b));
    const p = test([at(a), at(b)]);
    return p === null ? null : Math.min(1, p * pairsOf(others.length));
  };
}

/** Whether swapping units could tell a pair at all, p as closed testing shares it. */
export function canTell(
  units: readonly Pick<Scored, 'group' | 'block'>[],
  names: readonly string[],
  { control, peers, alpha }: Pick<AnalysisInput, 'control' | 'peers' | 'alpha'>,
): (a: number, b: number) => boolean {
  const base = names.indexOf(control);
  const equals = peers ? names.length : names.length - 1;
  return (a, b) => {
    const least = leastOf(units, a, b);
    const alone = (!peers && (a === base || b === base)) || equals < 4;
    return (alone ? least : 1 - (1 - least) ** (equals / 2)) <= alpha;
  };
}

/** How p of several is shared, in words. */
export const byClosedTesting = 'closed testing over all sets that hold both';
