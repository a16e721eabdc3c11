import type { UnitId } from '../model/ids';
import type { Plan, Position } from '../model/plan';
import { positionKey, readingsOf } from '../model/positions';
import { walkOrder } from './layOut';

/** One turn of the rotation: from this day on, every unit stands here. */
export interface Turn {
  /** 0 is the start, where chance put the units */
  number: number;
  /** day of the trial */
  day: number;
  positions: Map<UnitId, Position>;
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

/** Steps along the walk that bring a unit to every one of n positions before any comes twice. */
const strides = (n: number): number[] =>
  Array.from({ length: Math.max(1, n - 1) }, (_, i) => i + 1).filter((s) => n === 1 || gcd(s, n) === 1);

/** Spread of the units' mean readings over the turns, when all move `stride` on at each. */
function exposureSpread(readings: readonly number[], stride: number, turns: number): number {
  const n = readings.length;
  const means = readings.map((_, i) => {
    let sum = 0;
    for (let t = 0; t < turns; t++) sum += readings[(i + stride * t) % n]!;
    return sum / turns;
  });
  return Math.max(...means) - Math.min(...means);
}

/** The stride whose exposures are most alike; without readings, the one that strides the walk most evenly. */
function bestStride(readings: readonly number[] | null, n: number, turns: number): number {
  const even = n / Math.min(turns, n);
  const cost = (s: number) =>
    readings ? exposureSpread(readings, s, turns) : Math.min(Math.abs(s - even), Math.abs(n - s - even));
  return strides(n).reduce((best, s) => (cost(s) < cost(best) - 1e-12 ? s : best));
}

/**
 * Who moves where on which day, so that each unit spends equal time at each position as far as the numbers
 * allow: all units of a group go round its positions by the same step, and no unit comes to a position
 * twice before it was at all of them.
 *
 * @param plan its rotation, rounds (the last one ends it) and units where they stand at the start
 * @returns the turns, the start included; empty without a rotation
 * @example with 4 units, a rotation every 2 days and the last round on day 8: turns on days 0, 2, 4 and 6
 */
export function rotationPlan(plan: Pick<Plan, 'rotation' | 'rounds' | 'units' | 'gradient'>): Turn[] {
  const { rotation, units } = plan;
  if (!rotation || units.length === 0) return [];
  const lastDay = Math.max(0, ...plan.rounds.map((r) => r.day));
  const count = Math.max(1, Math.ceil(lastDay / rotation.everyDays));
  const readings = readingsOf(plan.gradient);
  const walk = walkOrder(units, new Map());
  const groupOf = (u: (typeof units)[number]) =>
    rotation.within === 'block'
      ? String(u.block ?? 'all')
      : rotation.within === 'area'
        ? u.position.areaId
        : 'all';
  const groups = new Map<string, typeof walk>();
  for (const u of walk) groups.set(groupOf(u), [...(groups.get(groupOf(u)) ?? []), u]);
  const turns = Array.from({ length: count }, (_, number): Turn => ({
    number,
    day: number * rotation.everyDays,
    positions: new Map(),
  }));
  for (const group of groups.values()) {
    const n = group.length;
    const values = group.map((u) => readings.get(positionKey(u.position)));
    const known = values.every((v) => v !== undefined) ? (values as number[]) : null;
    const stride = bestStride(known, n, count);
    for (const turn of turns) {
      group.forEach((u, i) => turn.positions.set(u.id, group[(i + stride * turn.number) % n]!.position));
    }
  }
  return turns;
}

/** Mean reading of each treatment over all turns (over the start alone without a rotation). */
export function meanExposure(
  plan: Pick<Plan, 'rotation' | 'rounds' | 'units' | 'gradient'>,
): Map<string, number> {
  const readings = readingsOf(plan.gradient);
  const turns = rotationPlan(plan);
  const stays = turns.length > 0 ? turns.map((t) => t.positions) : [new Map<UnitId, Position>()];
  const sums = new Map<string, { total: number; n: number }>();
  for (const stay of stays) {
    for (const u of plan.units) {
      const value = readings.get(positionKey(stay.get(u.id) ?? u.position));
      if (value === undefined) continue;
      const sum = sums.get(u.treatmentId) ?? { total: 0, n: 0 };
      sums.set(u.treatmentId, { total: sum.total + value, n: sum.n + 1 });
    }
  }
  return new Map([...sums].map(([id, { total, n }]) => [id, total / n]));
}

/** Largest difference between treatments' mean readings, per cent of the grand mean; null without readings. */
export function exposureSpreadPercent(means: ReadonlyMap<string, number>): number | null {
  if (means.size < 2) return null;
  const values = [...means.values()];
  const grand = values.reduce((s, v) => s + v, 0) / values.length;
  return grand === 0 ? null : (100 * (Math.max(...values) - Math.min(...values))) / Math.abs(grand);
}
