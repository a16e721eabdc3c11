import { listNames } from '../quantity/format';
import type { Finding } from './finding';

/** Why a treatment has no figure. @example 'died' */
export function absenceOf({ leftOut }: Pick<Finding, 'leftOut'>, treatmentId: string): string {
  const own = leftOut.filter((u) => u.treatmentId === treatmentId);
  if (own.length === 0) return 'no units';
  const whys = [...new Set(own.map((u) => u.why))];
  return listNames(whys.map((w) => ({ died: 'died', excluded: 'left out', notMeasured: 'not measured' })[w]));
}
