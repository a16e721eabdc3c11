import type { Area, Gradient, Position, ReservedCell } from './area';

/** A position as a key of maps and sets. */
export const positionKey = (p: Position): string => `${p.areaId}/${p.row}/${p.column}`;

/** Readings by position key. */
export const readingsOf = (gradient: Gradient | null): Map<string, number> =>
  new Map((gradient?.readings ?? []).map((r) => [positionKey(r.position), r.value]));

/** What stands in a place that isn't for units: blocked, guard, or null where a unit may stand. */
export const reservedUse = (area: Area, row: number, column: number): ReservedCell['use'] | null =>
  area.reserved.find((c) => c.row === row && c.column === column)?.use ?? null;
