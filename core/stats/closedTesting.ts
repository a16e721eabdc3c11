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
  const few = others.length < MOST_GROUPS;
  const most = new Map<number, number | null>(
    others.map((o) => [o, test([control, o].sort((a, b) => a - b))]),
  );
  for (const set of few ? subsetsOf(others, 2) : []) {
    const p = test([control, ...set].sort((a, b) => a - b)) ?? 0;
    for (const o of set) {
      const known = most.get(o)!;
      if (known !== null && known < p) most.set(o, p);
    }
  }
  return new Map(
    others.map((o) => [
      o,
      few || most.get(o) === null ? most.get(o)! : Math.min(1, most.get(o)! * others.length),
    ]),
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
  const share = (p: number, size: number) => (size > m - 2 ? p : 1 - (1 - p) ** (m / size));
  const sets = subsetsOf(groups, 2).map((s) => ({ of: new Set(s), p: share(of(s) ?? 0, s.length) }));
  return (a, b) => {
    if (of([a, b]) === null) return null;
    return sets.reduce((most, s) => (s.p > most && s.of.has(a) && s.of.has(b) ? s.p : most), 0);
  };
}
