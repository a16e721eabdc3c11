/**
 * p of “all of these groups are alike”, of a test that looks at these groups alone; null where it can't be tested.
 * @param groups two or more, by their numbers
 */
export type SetTest = (groups: readonly number[]) => number | null;

/** So many groups have a thousand sets: above, p is shared out over all comparisons (Bonferroni). */
const MOST_GROUPS = 11;

/** Every set of these that has so many or more. */
function subsetsOf(items: readonly number[], least: number): number[][] {
  const all: number[][] = [[]];
  for (const item of items) for (const s of [...all]) all.push([...s, item]);
  return all.filter((s) => s.length >= least);
}

/** The test of a set, worked out once, whatever its order. */
function remembered(test: SetTest): SetTest {
  const known = new Map<string, number | null>();
  return (groups) => {
    const sorted = [...groups].sort((a, b) => a - b);
    const key = sorted.join();
    let p = known.get(key);
    if (p === undefined) known.set(key, (p = test(sorted)));
    return p;
  };
}

/**
 * Several groups against one by closed testing (Marcus, Peritz and Gabriel 1976): one differs where every set that holds
 * both is refuted. Each set is tested at the whole level, and the chance of any false difference stays at it.
 *
 * @returns adjusted p of each of the others, null where the two alone can't be tested
 * @example closedAgainst(0, [1, 2], test).get(1) // the larger of test([0, 1]) and test([0, 1, 2])
 */
export function closedAgainst(
  control: number,
  others: readonly number[],
  test: SetTest,
): Map<number, number | null> {
  const of = remembered(test);
  const sets = others.length < MOST_GROUPS ? subsetsOf(others, 1) : others.map((o) => [o]);
  const shared = others.length < MOST_GROUPS ? 1 : others.length;
  return new Map(
    others.map((o) => {
      const alone = of([control, o]);
      const p = sets
        .filter((s) => s.includes(o))
        .map((s) => of([control, ...s]))
        .reduce<number>((most, x) => Math.max(most, x ?? 0), 0);
      return [o, alone === null ? null : Math.min(1, p * shared)];
    }),
  );
}

/**
 * Every pair of equals by closed testing: two differ where every set that holds both is refuted; a set of fewer than all
 * but one gets its share of the level (Ryan 1960; Einot and Gabriel 1975; Welsch 1977), as other sets may be alike beside it.
 *
 * @returns adjusted p of a pair, null where the two alone can't be tested
 * @example closedPairs([0, 1, 2], test)(0, 1) // the larger of test([0, 1]) and test([0, 1, 2])
 */
export function closedPairs(
  groups: readonly number[],
  test: SetTest,
): (a: number, b: number) => number | null {
  const of = remembered(test);
  const m = groups.length;
  if (m >= MOST_GROUPS)
    return (a, b) => {
      const p = of([a, b]);
      return p === null ? null : Math.min(1, (p * m * (m - 1)) / 2);
    };
  const sets = subsetsOf(groups, 2);
  const share = (p: number, size: number) => (size > m - 2 ? p : 1 - (1 - p) ** (m / size));
  return (a, b) => {
    if (of([a, b]) === null) return null;
    return sets
      .filter((s) => s.includes(a) && s.includes(b))
      .map((s) => share(of(s) ?? 0, s.length))
      .reduce((most, x) => Math.max(most, x), 0);
  };
}
