import type { Trait } from '../model/plan';
import { kindOf } from '../model/traitKinds';
import { formatFigure } from '../quantity/format';

/** A value as it was written down. */
export interface Written {
  value: number;
  /** n of a k-of-n value, where it was said with the value */
  outOf?: number | null | undefined;
  notYet?: boolean | undefined;
  /** beside k of n: so many more are borderline, and so many of k off type */
  borderline?: number | undefined;
  offType?: number | undefined;
}

/**
 * A value as a person would say it, whatever its kind.
 * @example sayValue({ value: 5 }, rooted) // '5 of 5'
 * @example sayValue({ value: 4, borderline: 1 }, rooted) // '4 of 5, 1 borderline'
 * @example sayValue({ value: 6, notYet: true }, daysUntilUp) // 'not yet on day 6'
 */
export function sayValue(written: Written, trait: Trait): string {
  const { value, outOf, notYet, borderline, offType } = written;
  if (notYet) return `not yet on day ${value}`;
  if (trait.kind === 'yesno') return value === 1 ? 'yes' : 'no';
  const n = outOf ?? trait.outOf;
  if (kindOf(trait).observes === 'kOfN' && n !== null)
    return [
      `${value} of ${n}`,
      ...(borderline ? [`${borderline} borderline`] : []),
      ...(offType ? [`${offType} of them off type`] : []),
    ].join(', ');
  return `${formatFigure(value, trait.decimals)}${trait.unit && ` ${trait.unit}`}`;
}
