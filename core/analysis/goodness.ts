import type { Trait } from '../model/plan';

/**
 * What is compared of a value: itself when higher or lower is better; for a wanted band the distance outside it
 * (0 inside), where less is better.
 *
 * @example comparedValue({ direction: 'band', bandLow: 6, bandHigh: 9 }, 11) // 2
 */
export function comparedValue(
  { direction, bandLow, bandHigh }: Pick<Trait, 'direction' | 'bandLow' | 'bandHigh'>,
  value: number,
): number {
  if (direction !== 'band' || bandLow === null || bandHigh === null) return value;
  if (value < bandLow) return bandLow - value;
  if (value > bandHigh) return value - bandHigh;
  return 0;
}

/** Whether more of what is compared is better. */
export const moreIsBetter = (trait: Pick<Trait, 'direction'>): boolean => trait.direction === 'higher';
