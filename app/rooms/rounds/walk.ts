import { walkOrder } from '~core/design/layOut';
import type { TrialState } from '~core/log/state';
import type { RoundId, UnitId } from '~core/model/ids';
import type { Round, Trait, Unit } from '~core/model/plan';
import { firstOpenSample } from '~core/schedule/rounds';

/** The place in a round that comes next: which unit, which sample of it. */
export interface WalkStep {
  unitId: UnitId;
  /** null when the unit is measured as a whole */
  sample: number | null;
}

/** Living units in the order they are walked. */
export function walkOf(state: TrialState): Unit[] {
  return walkOrder(state.plan.units, state.positions).filter((u) => !state.deaths.has(u.id));
}

/** What was written for a trait taken in words, newest. */
export function remarkOf(state: TrialState, unitId: UnitId, trait: Trait, roundId: RoundId): string | null {
  return (
    state.notes.findLast((n) => n.unitId === unitId && n.traitId === trait.id && n.roundId === roundId)
      ?.text ?? null
  );
}

/**
 * Where the walk goes next: the first place without a value after a unit, then from the start again.
 * @param after the unit just done; null starts at the beginning
 * @returns null when every unit has its value
 */
export function nextStep(
  state: TrialState,
  trait: Trait,
  round: Round,
  after: UnitId | null,
): WalkStep | null {
  const walk = walkOf(state);
  const from = after === null ? 0 : walk.findIndex((u) => u.id === after);
  for (let i = 0; i < walk.length; i++) {
    const unit = walk[(Math.max(0, from) + i) % walk.length]!;
    const sample = firstOpenSample(state, unit.id, trait, round.id);
    if (sample !== undefined) return { unitId: unit.id, sample };
  }
  return null;
}
