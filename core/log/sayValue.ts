import type { Trait } from '../model/plan';
import { kindOf } from '../model/traitKinds';
import { formatFigure } from '../quantity/format';

/** A value as it was written down. */
export interface Written {
  value: number;
  /** n of a k-of-n value, where it was said with the value */
  outOf?: number | null | undefined;
  notYet?: boolean | undefined;
}

/**
 * A value as a person would say it, whatever its kind.
 * @example sayValue({ value: 5 }, rooted) // '5 of 5'
 * @example sayValue({ value: 6, notYet: true }, daysUntilUp) // 'not yet on day 6'
 */
export function sayValue({ value, outOf, notYet }: Written, trait: Trait): string {
  if (notYet) return `not yet on day ${value}`;
  if (trait.kind === 'yesno') return value === 1 ? 'yes' : 'no';
  const n = outOf ?? trait.outOf;
  if (kindOf(trait).observes === 'kOfN' && n !== null) return `${value} of ${n}`;
  return `${formatFigure(value, trait.decimals)}${trait.unit && ` ${trait.unit}`}`;
}
