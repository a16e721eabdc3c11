import type { RoundId, UnitId } from '../model/ids';
import type { Round, Trait, Unit } from '../model/plan';
import { kindOf } from '../model/traitKinds';
import { dayOfDate } from '../plan/days';
import { planIndex } from '../plan/planIndex';
import { localDay } from './localDay';
import { isTaken, samplesIn } from './response';
import { type TrialState, observationsOf } from './state';

/** Units that are alive now. */
export const livingUnits = (state: TrialState): readonly Unit[] =>
  state.plan.units.filter((u) => !state.deaths.has(u.id));

/** Samples of a unit to which it had already happened at an earlier round: “days until” asks no more of them. */
function happenedBefore(
  state: TrialState,
  unitId: UnitId,
  trait: Trait,
  roundId: RoundId,
): Set<number | null> {
  if (kindOf(trait).observes !== 'event') return new Set();
  const day = planIndex(state.plan).round(roundId)?.day ?? Infinity;
  return new Set(
    observationsOf(state, unitId, trait.id)
      .filter((o) => !o.notYet && o.day < day)
      .map((o) => o.sample),
  );
}

/** The sample numbers a round wants of a unit for a trait: null alone where the unit is taken as a whole. */
export function wantedSamples(state: TrialState, unitId: UnitId, trait: Trait): (number | null)[] {
  // The dead are asked for nothing, but for what can be seen of them.
  if (state.deaths.has(unitId) && !trait.evenDead) return [];
  const n = samplesIn(state.plan, trait);
  if (n === 1) return [null];
  const dead = state.deadSamples.get(unitId);
  return Array.from({ length: n }, (_, i) => i + 1).filter((s) => !dead?.has(s));
}

/**
 * The first sample of a unit that has no value yet in a round; null for a unit taken as a whole, undefined when
 * nothing is open.
 */
export function firstOpenSample(
  state: TrialState,
  unitId: UnitId,
  trait: Trait,
  roundId: RoundId,
): number | null | undefined {
  if (kindOf(trait).takenBy === 'words') {
    if (state.deaths.has(unitId) && !trait.evenDead) return undefined;
    return state.notes.some((n) => n.unitId === unitId && n.traitId === trait.id && n.roundId === roundId)
      ? undefined
      : null;
  }
  // What rests on picks or drying is taken by itself.
  if (['picks', 'oven'].includes(kindOf(trait).takenBy)) {
    const asked = !state.deaths.has(unitId) || trait.evenDead;
    return !asked || isTaken(state, unitId, trait) ? undefined : null;
  }
  const here = observationsOf(state, unitId, trait.id, roundId);
  const over = happenedBefore(state, unitId, trait, roundId);
  const wanted = wantedSamples(state, unitId, trait).filter((s) => !over.has(s));
  // A unit taken as a whole is done with any value.
  if (wanted[0] === null) return here.length > 0 ? undefined : null;
  const done = new Set(here.map((o) => o.sample));
  return wanted.find((s) => !done.has(s));
}

/** Whether a unit has everything a round wants of one trait, or nothing is asked of it any more. */
const isMeasured = (state: TrialState, unitId: UnitId, trait: Trait, roundId: RoundId): boolean =>
  firstOpenSample(state, unitId, trait, roundId) === undefined;

/** What was asked of one trait in one round, and what came of it. */
export interface Answered {
  /** units that were asked: alive on that day, or with a value; not those to which it had happened before */
  asked: Unit[];
  /** those with a value of every sample that was asked */
  inFull: Unit[];
  /** those with some of their samples */
  inPart: Unit[];
  /** those that still can be taken */
  open: Unit[];
  samples: { asked: number; answered: number };
}

/** Whether a unit had died by the day of a round. */
function deadBy(state: TrialState, unit: Unit, day: number): boolean {
  const death = state.deaths.get(unit.id);
  return death !== undefined && dayOfDate(state.plan.startDate, localDay(death)) <= day;
}

/**
 * What a round asked of a trait, answered as it was: a unit that died since and has its value was measured; one that was
 * dead by that day isn't asked, nor one to which it had already happened.
 */
export function answeredIn(state: TrialState, trait: Trait, round: Round): Answered {
  const out: Answered = { asked: [], inFull: [], inPart: [], open: [], samples: { asked: 0, answered: 0 } };
  const n = samplesIn(state.plan, trait);
  for (const unit of state.plan.units) {
    const here = new Set(observationsOf(state, unit.id, trait.id, round.id).map((o) => o.sample));
    const open = !isMeasured(state, unit.id, trait, round.id);
    const byItself = ['picks', 'oven', 'words'].includes(kindOf(trait).takenBy);
    const has = here.size > 0 || (byItself && !open && !state.deaths.has(unit.id));
    const over = happenedBefore(state, unit.id, trait, round.id);
    if (!has && (deadBy(state, unit, round.day) || over.size >= n)) continue;
    const asked = Math.max(1, n - over.size - (state.deadSamples.get(unit.id)?.size ?? 0));
    const answered = byItself ? (has ? asked : 0) : here.has(null) ? asked : Math.min(asked, here.size);
    out.asked.push(unit);
    if (answered >= asked) out.inFull.push(unit);
    else if (answered > 0) out.inPart.push(unit);
    if (open) out.open.push(unit);
    out.samples.asked += asked;
    out.samples.answered += answered;
  }
  return out;
}
