import type { ChartColumn, ChartUse, FeedingChart } from './feedingChart';

type Charted = Omit<ChartUse, 'fromDay' | 'everyDays'> & { fromDay: number | null; everyDays: number | null };

/**
 * The chart a programme can be written as, to go on with it.
 *
 * @returns null where one chart can’t say it: doses without days, different rhythms, one product twice on a
 * day, or strengths that differ between products at a time
 */
export function chartOfUses(uses: readonly Charted[]): FeedingChart | null {
  if (uses.length === 0) return null;
  const rhythms = new Set(uses.filter((u) => u.timesPerUnit > 1).map((u) => u.everyDays));
  const everyDays = rhythms.size === 0 ? (uses[0]!.everyDays ?? 7) : [...rhythms][0]!;
  if (rhythms.size > 1 || everyDays === null) return null;
  const dated = uses.flatMap((u) =>
    u.fromDay === null
      ? []
      : [{ ...u, first: u.fromDay, last: u.fromDay + (u.timesPerUnit - 1) * everyDays }],
  );
  const origin = Math.min(...dated.map((u) => u.first));
  if (dated.length < uses.length || dated.some((u) => (u.first - origin) % everyDays !== 0)) return null;
  const end = Math.max(...dated.map((u) => u.last));
  const starts = [...new Set(dated.flatMap((u) => [u.first, u.last + everyDays]))]
    .filter((d) => d <= end)
    .sort((a, b) => a - b);
  const at = (day: number) => dated.filter((u) => u.first <= day && day <= u.last);
  const columns = starts.map((fromDay): ChartColumn | null => {
    const own = at(fromDay);
    const strengths = new Set(own.map((u) => u.strengthPercent));
    const products = new Set(own.map((u) => u.productId));
    if (strengths.size > 1 || products.size < own.length) return null;
    const stages = own.map((u) => u.stage).sort((a, b) => a.length - b.length);
    return { stage: stages[0] ?? '', fromDay, strengthPercent: own[0]?.strengthPercent ?? 100 };
  });
  if (columns.includes(null)) return null;
  return {
    columns: columns as ChartColumn[],
    rows: [...new Set(uses.map((u) => u.productId))].map((productId) => ({
      productId,
      cells: starts.map((day) => at(day).find((u) => u.productId === productId)?.amount ?? ''),
    })),
    everyDays,
    lastDay: end,
  };
}
