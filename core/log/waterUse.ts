import type { UnitId } from '../model/ids';
import { type TrialState, ofKind } from './state';

/** What went into one unit: every feeding, change and top-up, oldest first. */
export interface Filling {
  at: string;
  volumeL: number;
  purpose: 'feed' | 'topUp' | 'change' | 'flush';
  batch: string;
}

/** What went into every unit, each oldest first. */
export function fillingsByUnit(log: Pick<TrialState, 'byKind'>): Map<UnitId, Filling[]> {
  const byUnit = new Map<UnitId, Filling[]>();
  for (const { body, at } of ofKind(log, 'feed')) {
    const filling: Filling = {
      at,
      volumeL: body.volumeLPerUnit,
      purpose: body.purpose ?? 'feed',
      batch: body.batch,
    };
    for (const unitId of body.unitIds) {
      const list = byUnit.get(unitId);
      if (list) list.push(filling);
      else byUnit.set(unitId, [filling]);
    }
  }
  return byUnit;
}

/**
 * Water a vessel loses in a day, from its top-ups: topped up to the same mark, what goes in is what was lost.
 * Counted from the filling before the first top-up to the last top-up.
 *
 * @returns L a day; null before there has been a filling and a top-up on a later hour
 * @example waterLossPerDay([filled 8 L on day 0, topped up 1 L on day 2 and 1.5 L on day 5]) // 0.5
 */
export function waterLossPerDay(fillings: readonly Filling[]): number | null {
  const first = fillings.findIndex((f) => f.purpose === 'topUp');
  const start = fillings[first - 1];
  const tops = fillings.filter((f) => f.purpose === 'topUp');
  const end = tops[tops.length - 1];
  if (!start || !end) return null;
  const days = (Date.parse(end.at) - Date.parse(start.at)) / 86_400_000;
  return days < 1 / 24 ? null : tops.reduce((s, f) => s + f.volumeL, 0) / days;
}
