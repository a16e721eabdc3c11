import { listNames } from '../quantity/format';
import type { Finding } from './finding';

/** Why a treatment has no figure, from the units that were left out. @example 'died' */
export function whyNoFigure({ leftOut }: Pick<Finding, 'leftOut'>, treatmentId: string): string {
  const own = leftOut.filter((u) => u.treatmentId === treatmentId);
  if (own.length === 0) return 'no units';
  const whys = [...new Set(own.map((u) => u.why))];
  return listNames(whys.map((w) => ({ died: 'died', excluded: 'left out', notMeasured: 'not measured' })[w]));
}

/** Why a treatment has no figure in a finding; null where it has one. */
export const absenceOf = ({ lost, absent }: Pick<Finding, 'lost' | 'absent'>, id: string): string | null =>
  [...lost, ...absent].find((l) => l.id === id)?.why ?? null;
