/** Seedlings of one unit that came up on a day. */
interface NewlyUp {
  day: number;
  count: number;
}

export interface Germination {
  /** per cent of sown */
  percent: number;
  /** Σ n·d / Σ n; null where nothing came up */
  meanTime: number | null;
  /** when half of those that came up were up; null where nothing did */
  t50: number | null;
  /** spread of the days; null where fewer than two came up */
  sdTime: number | null;
}

/**
 * Germination of one unit: share, mean time, time to half of the final number, and spread of time.
 *
 * t50 is that of Coolbear et al. (1984) as modified by Farooq et al. (2005): the cumulative count comes to N/2, found
 * by a straight line between the days around it, counting from 0 at day 0.
 *
 * @param up days with the number newly come up; a day may stand more than once
 * @param sown more than 0
 * @example germination([{ day: 3, count: 4 }, { day: 5, count: 6 }], 12).meanTime // 4.2
 */
export function germination(up: readonly NewlyUp[], sown: number): Germination {
  const days = new Map<number, number>();
  for (const { day, count } of up) days.set(day, (days.get(day) ?? 0) + count);
  const sorted = [...days].sort(([a], [b]) => a - b);
  const total = sorted.reduce((s, [, n]) => s + n, 0);
  const percent = (100 * total) / sown;
  if (total === 0) return { percent, meanTime: null, t50: null, sdTime: null };
  const meanTime = sorted.reduce((s, [d, n]) => s + n * d, 0) / total;
  const squares = sorted.reduce((s, [d, n]) => s + n * (d - meanTime) ** 2, 0);
  return {
    percent,
    meanTime,
    t50: halfTime(sorted, total / 2),
    sdTime: total < 2 ? null : Math.sqrt(squares / (total - 1)),
  };
}

function halfTime(sorted: readonly (readonly [number, number])[], half: number): number {
  let [day, up] = [0, 0];
  for (const [d, n] of sorted) {
    if (up + n >= half) return up + n === half ? d : day + ((half - up) * (d - day)) / n;
    [day, up] = [d, up + n];
  }
  return day;
}
