import { walkOrder } from '~core/design/layOut';
import { type TrialState, observationsOf } from '~core/log/state';
import { samplesIn } from '~core/log/unitValues';
import type { RoundId, UnitId } from '~core/model/ids';
import type { Round, Trait, Unit } from '~core/model/plan';

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

/** The first sample of a unit that has no value yet in a round; undefined when all have. */
export function firstOpenSample(
  state: TrialState,
  unitId: UnitId,
  trait: Trait,
  roundId: RoundId,
): number | null | undefined {
  if (trait.kind === 'text') return remarkOf(state, unitId, trait, roundId) ? undefined : null;
  const done = new Set(observationsOf(state, unitId, trait.id, roundId).map((o) => o.sample));
  const samples = samplesIn(state.plan, trait);
  if (samples === 1) return done.size > 0 ? undefined : null;
  for (let s = 1; s <= samples; s++) if (!done.has(s)) return s;
  return undefined;
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
