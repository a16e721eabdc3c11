import { pickDays } from '../log/picks';
import { type Response, cropsTaken } from '../log/response';
import type { TrialState } from '../log/state';
import type { RoundId } from '../model/ids';
import type { Round, Trait, Unit } from '../model/plan';
import { kindOf } from '../model/traitKinds';
import { lastDayOf } from '../plan/ended';
import { seenOf } from './number';

/** A round that was begun and isn't finished: its values don't count yet. */
export interface OpenRound {
  name: string;
  day: number;
  /** units that have their values, of those that are wanted */
  done: number;
  wanted: number;
  /** codes of the units without */
  missing: string[];
}

/** Which visits a finding rests on. */
export interface Basis {
  /** rounds that count, in the order of their days; empty where values belong to no round */
  rounds: { id: RoundId; name: string; day: number }[];
  /** rounds that were begun and don't count */
  open: OpenRound[];
  /** planned rounds of this trait that aren't begun, still to come or waited for */
  toCome: number;
  /** planned rounds that nobody made, once the trial is over */
  missed: number;
  /** the trial is over: what is missing was missed */
  over: boolean;
}

/** A unit as it was observed. */
export interface UnitState {
  unit: Unit;
  response: Response;
  excluded: string | null;
  died: string | null;
}

/** A planned round as it was made. */
export interface LookedRound {
  round: Round;
  begun: boolean;
  done: number;
  wanted: number;
  missing: string[];
}

/** Once the trial is over, rounds that aren't begun were missed. */
export const dated = (basis: Omit<Basis, 'missed' | 'over'>, over: boolean): Basis => ({
  ...basis,
  toCome: over ? 0 : basis.toCome,
  missed: over ? basis.toCome : 0,
  over,
});

/** Whether the figure of a unit is made of several days, for which two are needed. */
export const overTime = ({ summary }: Trait): boolean => summary !== 'last' && summary !== 'sum';

/** Days of picks that count: those on which every living unit was looked at; the others are named. */
export function daysPicked(
  state: TrialState,
  until: number,
): { counted: ReadonlySet<number>; open: OpenRound[]; toCome: number } {
  const codes = new Map(state.plan.units.map((u) => [u.id, u.code]));
  const all = pickDays(state).filter((d) => d.day <= until);
  const whole = all.filter((d) => d.missing.length === 0);
  // Picking goes on until the last planned day.
  const end = lastDayOf(state.plan) ?? -1;
  return {
    toCome: end > (all.at(-1)?.day ?? -1) ? 1 : 0,
    counted: new Set(whole.map((d) => d.day)),
    open: all
      .filter((d) => d.missing.length > 0)
      .map((d) => ({
        name: 'The pick',
        day: d.day,
        done: d.done.length,
        wanted: d.done.length + d.missing.length,
        missing: d.missing.map((id) => codes.get(id) ?? '?'),
      })),
  };
}

/** Whether a visit has what its kind of trait needs: of weights that are added, every crop. */
export function isWhole(
  visit: Response['visits'][number],
  { plan }: TrialState,
  trait: Trait,
  crop: number | null,
): boolean {
  if (crop !== null || kindOf(trait).overCrops !== 'sum') return true;
  return new Set(visit.samples.map((s) => s.crop)).size >= cropsTaken(plan, trait);
}

/** The planned rounds of a trait, in the order of their days. */
export function roundsOf(
  state: TrialState,
  trait: Trait,
  units: readonly UnitState[],
  crop: number | null,
): LookedRound[] {
  const planned = state.plan.rounds
    .filter((r) => r.traitIds.includes(trait.id) || units.some((u) => hasRound(u, r)))
    .sort((a, b) => a.day - b.day);
  const event = kindOf(trait).observes === 'event';
  return planned.map((round) => {
    const has = (u: UnitState) =>
      u.response.visits.some((v) => v.roundId === round.id && isWhole(v, state, trait, crop)) ||
      // To whom it had happened before is asked no more.
      (event && (seenOf({ visits: u.response.visits.filter((v) => v.day < round.day) })?.happened ?? false));
    // The dead are asked for nothing, nor are units that are left out.
    const wanted = units.filter((u) => u.excluded === null && (u.died === null || has(u)));
    const missing = wanted.filter((u) => !has(u)).map((u) => u.unit.code);
    const begun = units.some((u) => hasRound(u, round));
    return { round, begun, done: wanted.length - missing.length, wanted: wanted.length, missing };
  });
}

export function basisOf(
  trait: Trait,
  looked: readonly LookedRound[],
  only: RoundId | null,
): {
  counted: ReadonlySet<RoundId | null> | null;
  basis: Omit<Basis, 'missed' | 'over'>;
  unfinished: boolean;
} {
  const planned = looked.map((l) => l.round);
  const event = kindOf(trait).observes === 'event';
  const begun = looked.filter((l) => l.begun && l.done > 0);
  const finished = begun.filter((l) => l.missing.length === 0);
  const counts = (list: typeof looked, unfinished = false) => {
    const chosen = new Set<RoundId | null>(list.map((l) => l.round.id));
    // What happened at an earlier look is known at the last one.
    const until = Math.max(-1, ...list.map((l) => l.round.day));
    const counted = event
      ? new Set<RoundId | null>([null, ...planned.filter((r) => r.day <= until).map((r) => r.id)])
      : chosen;
    // Before a last value rounds may be as they like; of a sum every pick is part.
    const from = trait.summary !== 'last' ? -1 : Math.max(-1, ...list.map((l) => l.round.day));
    const matters = (l: (typeof looked)[number]) => !chosen.has(l.round.id) && l.round.day > from;
    return {
      counted,
      basis: {
        rounds: list.map(({ round: { id, name, day } }) => ({ id, name, day })),
        open: begun
          .filter((l) => matters(l) && l.missing.length > 0)
          .map((l) => ({
            name: l.round.name,
            day: l.round.day,
            done: l.done,
            wanted: l.wanted,
            missing: l.missing,
          })),
        toCome: looked.filter((l) => matters(l) && !l.begun && l.missing.length > 0).length,
      },
      unfinished,
    };
  };
  if (only !== null) return counts(looked.filter((l) => l.round.id === only));
  if (begun.length === 0) {
    return { counted: null, basis: { rounds: [], open: [], toCome: looked.length }, unfinished: false };
  }
  if (overTime(trait)) return finished.length > 0 ? counts(finished) : counts([], begun.length > 1);
  if (trait.summary === 'sum') {
    if (finished.length > 0) return counts(finished);
    return planned.length > 1 && begun.length > 1 ? counts([], true) : counts(begun);
  }
  const last = finished[finished.length - 1];
  if (last) return counts([last]);
  // None is finished: the round that was taken furthest, the later of equals.
  const share = (l: (typeof looked)[number]) => l.done / l.wanted;
  return counts([begun.reduce((best, l) => (share(l) >= share(best) ? l : best))]);
}

const hasRound = (u: UnitState, round: Round) => u.response.visits.some((v) => v.roundId === round.id);
