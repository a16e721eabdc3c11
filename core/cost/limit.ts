import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import { mean, sd } from '../stats/moments';

/** What a limit on cost comes to: kept or passed with its whole interval, or open because the limit lies within it. */
export interface LimitSeen {
  seen: 'kept' | 'passed' | 'open';
  estimate: number;
  /** ends of the interval; both null where there is no spread to make one of */
  low: number | null;
  high: number | null;
}

/** A cost with its interval held against a limit; at the limit is kept. A side that is open has no end. */
export function againstLimit(
  estimate: number,
  interval: { low: number; high: number } | null,
  limit: number,
): LimitSeen {
  if (interval === null)
    return { seen: estimate <= limit ? 'kept' : 'passed', estimate, low: null, high: null };
  const { low, high } = interval;
  const seen = high <= limit ? 'kept' : low > limit ? 'passed' : 'open';
  return { seen, estimate, low, high };
}

/**
 * What units cost, each on its own, held against a limit for one: by the mean's interval from Student's t.
 *
 * @param each cost of every unit, minor units
 * @param confidence of the interval, 0 to 1
 * @returns without an interval where there is one unit, or all took the same
 * @example unitsAgainstLimit([28, 30, 29, 31], 30, 0.95).seen // 'open': 29.5, between 27.4 and 31.6
 */
export function unitsAgainstLimit(each: readonly number[], limit: number, confidence: number): LimitSeen {
  const centre = mean(each);
  const spread = each.length > 1 ? sd(each) : 0;
  // Sums of shares differ by rounding alone: that is no spread.
  if (spread <= 1e-9 * Math.abs(centre)) return againstLimit(centre, null, limit);
  const half = (tQuantile(1 - (1 - confidence) / 2, each.length - 1) * spread) / Math.sqrt(each.length);
  return againstLimit(centre, { low: centre - half, high: centre + half }, limit);
}
