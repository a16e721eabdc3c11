import type { Contrast } from '../analysis/contrast';
import { kindOf } from '../model/traitKinds';
import type { Finding } from '../account/finding';

/** A change with its limits: per cent where that means something, else in the trait's unit. */
export interface ReadChange {
  estimate: number;
  low: number;
  high: number;
  unit: string;
}

/**
 * A tested contrast as a reader would have it: per cent of what it is held against where the figure is an amount, per
 * cent points for shares, else the trait's unit.
 * @returns null for shares of pairs, or without an interval
 */
export function readChange(c: Contrast, { trait, analysis }: Finding): ReadChange | null {
  if (c.low === null || c.high === null || c.scale === 'superiority') return null;
  if (c.percent && c.percent.low !== null && c.percent.high !== null)
    return { estimate: c.percent.estimate, low: c.percent.low, high: c.percent.high, unit: '%' };
  if (c.scale === 'ratio')
    return { estimate: 100 * (c.estimate - 1), low: 100 * (c.low - 1), high: 100 * (c.high - 1), unit: '%' };
  const base = analysis.summaries.find((s) => s.name === c.b)!.estimate;
  const amount = kindOf(trait).observes === 'continuous' && trait.direction !== 'band' && base > 0;
  return amount
    ? {
        estimate: (100 * c.estimate) / base,
        low: (100 * c.low) / base,
        high: (100 * c.high) / base,
        unit: '%',
      }
    : { estimate: c.estimate, low: c.low, high: c.high, unit: trait.unit };
}
