import type { Contrast } from '../analysis/contrast';
import type { Finding } from '../account/finding';
import { differenceUnit } from '../say/sayContrast';

/** A change with its limits: per cent where that means something, else in the trait's unit. */
interface ReadChange {
  estimate: number;
  low: number;
  high: number;
  unit: string;
}

/**
 * A tested contrast as a reader would have it: per cent of what it is held against, by the finding's own limits, where the
 * finding has them; else in the trait's unit (of shares, per cent points).
 * @returns null for shares of pairs, without an interval, and where there is none of what it is held against
 */
export function readChange(c: Contrast, finding: Finding): ReadChange | null {
  if (c.low === null || c.high === null || c.scale === 'superiority') return null;
  if (c.percent && c.percent.low !== null && c.percent.high !== null)
    return { estimate: c.percent.estimate, low: c.percent.low, high: c.percent.high, unit: '%' };
  if (c.scale === 'ratio') return c.units ? { ...c.units, unit: differenceUnit(finding) } : null;
  return { estimate: c.estimate, low: c.low, high: c.high, unit: differenceUnit(finding) };
}
