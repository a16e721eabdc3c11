import { type PickTotals, dayPicks, gradesOf, pickTotals } from '~core/log/picks';
import type { TrialState } from '~core/log/state';
import type { Unit } from '~core/model/plan';

/** One unit's harvest so far, as the screen lists it. */
interface UnitHarvest {
  unit: Unit;
  totals: PickTotals | null;
  /** yield added up day by day: grams where all was weighed, else pieces */
  curve: { x: number; y: number }[];
}

/** Whether everything that counts was weighed: else pieces are shown. */
export const allWeighed = (state: TrialState): boolean => {
  const grades = gradesOf(state.plan);
  return [...dayPicks(state).values()].every((own) => pickTotals(own, grades)?.weightG !== null);
};

/** What every unit gave so far, in the order of the plan. */
export function harvests(state: TrialState): UnitHarvest[] {
  const grades = gradesOf(state.plan);
  const picks = dayPicks(state);
  const weighed = allWeighed(state);
  return state.plan.units.map((unit) => {
    const own = picks.get(unit.id) ?? [];
    return {
      unit,
      totals: pickTotals(own, grades),
      curve: own.map((p, i) => {
        const upTo = pickTotals(own.slice(0, i + 1), grades)!;
        return { x: p.day, y: (weighed ? upTo.weightG : upTo.count) ?? 0 };
      }),
    };
  });
}
