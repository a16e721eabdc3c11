import fCdf from '@stdlib/stats-base-dists-f-cdf';
import { medianOf } from './ranks';
import { mean } from './moments';

interface FTest {
  /** null without spread within groups, or without freedom */
  f: number | null;
  df1: number;
  df2: number;
  p: number | null;
}

/**
 * The one-way analysis of variance of groups, as an F test.
 * @param size of the values the groups were made from: what rounding alone leaves of it is no spread
 */
function oneWayF(groups: readonly (readonly number[])[], size?: number): FTest {
  const all = groups.flat();
  const [df1, df2] = [groups.length - 1, all.length - groups.length];
  const grand = mean(all);
  let [between, within] = [0, 0];
  for (const g of groups) {
    const m = mean(g);
    between += g.length * (m - grand) ** 2;
    within += g.reduce((s, x) => s + (x - m) ** 2, 0);
  }
  const scale = (size ?? Math.max(...all.map(Math.abs), 0)) ** 2;
  if (df1 < 1 || df2 < 1 || within <= 1e-28 * scale * all.length || within === 0)
    return { f: null, df1, df2, p: null };
  const f = between / df1 / (within / df2);
  // The upper tail as the lower one of 1/F: small p keep their digits.
  return { f, df1, df2, p: f === 0 ? 1 : fCdf(1 / f, df2, df1) };
}

/**
 * Whether groups are equally even: Brown and Forsythe (1974), the one-way F on absolute deviations from each group's
 * median.
 */
export const brownForsythe = (groups: readonly (readonly number[])[]): FTest =>
  oneWayF(
    groups.map((g) => {
      const middle = medianOf(g);
      return g.map((x) => Math.abs(x - middle));
    }),
    Math.max(0, ...groups.flat().map(Math.abs)),
  );
