import type { UnitId } from '~core/model/ids';

/** What is typed and isn't kept yet, unit by unit: what was typed for one never stands in the fields of another. */
export type TypedByUnit<T> = ReadonlyMap<UnitId, T>;

/** With a change at one unit; what is blank again isn't typed. */
export function withTyped<T>(
  all: TypedByUnit<T>,
  unitId: UnitId,
  typed: T,
  isBlank: (typed: T) => boolean,
): TypedByUnit<T> {
  const next = new Map(all);
  if (isBlank(typed)) next.delete(unitId);
  else next.set(unitId, typed);
  return next;
}

/** Without what was sent of a unit, unless something else was typed there since. */
export function withoutSent<T>(all: TypedByUnit<T>, unitId: UnitId, sent: T): TypedByUnit<T> {
  if (all.get(unitId) !== sent) return all;
  const next = new Map(all);
  next.delete(unitId);
  return next;
}
