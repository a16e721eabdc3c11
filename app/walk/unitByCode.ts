import type { Unit } from '~core/model/plan';

/** The unit whose label says this: the whole code, or its number with or without zeros in front. */
export function unitByCode(units: readonly Unit[], typed: string): Unit | null {
  const wanted = typed.trim().toUpperCase();
  if (wanted === '') return null;
  const number = (code: string) => Number(code.replace(/^[A-Z]+-/, ''));
  return (
    units.find((u) => u.code.toUpperCase() === wanted) ??
    (/^\d+$/.test(wanted) ? units.find((u) => number(u.code) === Number(wanted)) : undefined) ??
    null
  );
}
