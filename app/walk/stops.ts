import { walkOrder } from '~core/design/layOut';
import { type Observation, type TrialState, observationsOf } from '~core/log/state';
import type { RoundId, UnitId } from '~core/model/ids';
import { type Plan, type Round, type Trait, type Unit, kindOf } from '~core/model/plan';
import { type Written, sayValue } from '~core/log/sayValue';
import { samplesIn } from '~core/log/response';
import { firstOpenSample, wantedSamples } from '~core/log/asked';

/** The place in a round that comes next: which unit, which sample of it. */
export interface WalkStep {
  unitId: UnitId;
  /** null when the unit is measured as a whole */
  sample: number | null;
}

/** Units that a trait can be taken of, in the order they are walked: the living, and the dead where it can be seen of them. */
export function walkOf(
  { plan, positions, deaths }: Pick<TrialState, 'plan' | 'positions' | 'deaths'>,
  trait: Pick<Trait, 'evenDead'>,
): Unit[] {
  return walkOrder(plan.units, positions).filter((u) => trait.evenDead || !deaths.has(u.id));
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
  const walk = walkOf(state, trait);
  const from = after === null ? 0 : walk.findIndex((u) => u.id === after);
  for (let i = 0; i < walk.length; i++) {
    const unit = walk[(Math.max(0, from) + i) % walk.length]!;
    const sample = firstOpenSample(state, unit.id, trait, round.id);
    if (sample !== undefined) return { unitId: unit.id, sample };
  }
  return null;
}

/** Whether a round still wants a value of a trait from a living unit. */
export const hasOpenUnits = (state: TrialState, trait: Trait, round: Round): boolean =>
  nextStep(state, trait, round, null) !== null;

/**
 * The stop before or after one, done or not: the living samples of a unit in turn, then the next unit; round and
 * round.
 */
export function stepFrom(
  state: TrialState,
  trait: Trait,
  walk: readonly Unit[],
  { unitId, sample }: WalkStep,
  by: 1 | -1,
): WalkStep {
  const samples = wantedSamples(state, unitId, trait);
  const at = samples.indexOf(sample);
  if (at >= 0 && samples[at + by] !== undefined) return { unitId, sample: samples[at + by]! };
  // A sample that died since: the living one nearest in that direction.
  if (at < 0 && sample !== null) {
    const living = samples.filter((s) => s !== null && (by === 1 ? s > sample : s < sample));
    const near = by === 1 ? living[0] : living.at(-1);
    if (near !== undefined) return { unitId, sample: near };
  }
  const unit = walk[(walk.findIndex((u) => u.id === unitId) + by + walk.length) % walk.length]!;
  const there = wantedSamples(state, unit.id, trait);
  return { unitId: unit.id, sample: (by === 1 ? there[0] : there.at(-1)) ?? null };
}

/** What a walk goes along: its units in order, what is open at each, and which stop is next to one. */
export interface Stops {
  units: readonly Unit[];
  /** the first sample of a unit that has no value yet; undefined: it has all */
  open: (unit: Unit) => number | null | undefined;
  /** whether units are taken sample by sample */
  several: boolean;
  step: (from: WalkStep, by: 1 | -1) => WalkStep;
}

/** What the log has of a stop in a round, newest. */
export const standingAt =
  (state: TrialState, trait: Trait, round: Round) =>
  ({ unit, sample }: { unit: Pick<Unit, 'id'>; sample: number | null }): Observation | undefined =>
    observationsOf(state, unit.id, trait.id, round.id).findLast((o) => o.sample === sample);

/** One trait in one round: every stop is gone to in turn, done or not. */
export function stopsOfRound(state: TrialState, trait: Trait, round: Round): Stops {
  const units = walkOf(state, trait);
  return {
    units,
    open: (u) => firstOpenSample(state, u.id, trait, round.id),
    several: samplesIn(state.plan, trait) > 1,
    step: (from, by) => stepFrom(state, trait, units, from, by),
  };
}

/** Units taken as a whole, of which those that are done are passed by as long as others are open. */
export function stopsOfUnits(units: readonly Unit[], isOpen: (unit: Unit) => boolean): Stops {
  const step = ({ unitId }: WalkStep, by: 1 | -1): WalkStep => {
    const at = units.findIndex((u) => u.id === unitId);
    const round = units.map((_, i) => units[(at + by * (i + 1) + units.length * 2) % units.length]!);
    return { unitId: (round.slice(0, -1).find(isOpen) ?? round[0]!).id, sample: null };
  };
  return { units, open: (u) => (isOpen(u) ? null : undefined), several: false, step };
}

/** Said before a kept value is replaced. */
export const replacing = (kept: Written, trait: Trait): string =>
  `This replaces ${sayValue(kept, trait)}, kept in this round.`;

/** Whether a sample's number means the same plant for every trait, so that its death can be said once for all. */
export const samplesAreAlike = (plan: Pick<Plan, 'cropsWithin' | 'traits'>): boolean =>
  plan.cropsWithin.length === 0 || plan.traits.every((t) => kindOf(t).samples(t) === 1);
