import type { BodyOf, Correction, Entry, EntryBody } from './entry';
import type { RoundId, TraitId, UnitId } from '../model/ids';
import type { Plan } from '../model/plan';
import { type PlanIndex, planIndex } from '../plan/planIndex';
import { type Observation, compareObservations, observationOf, placeOf } from './observation';
import { compareHappened, compareWritten, insertionIndex, sortedIndexOf } from './order';
import { LogLines, type ResolvedEntry, resolveEntry } from './resolve';
import { withExtraUnits } from './extraUnits';
import { type Views, listOf, viewsOf } from './views';

export type { Observation } from './observation';

type Kind = EntryBody['kind'];

/** What plan and log together say: everything a screen shows comes from here. */
export interface TrialState extends Views {
  plan: Plan;
  /** every line, in the order of writing */
  log: readonly Entry[];
  /** what stands, in the order it happened */
  entries: readonly ResolvedEntry[];
  byKind: ReadonlyMap<Kind, readonly ResolvedEntry[]>;
  /** every standing value, by the day of its round, then by when it was taken */
  observations: readonly Observation[];
  /** values by unit and trait (`placeOf`), in the same order */
  byUnitAndTrait: ReadonlyMap<string, readonly Observation[]>;
  /** values of each round by unit and trait */
  byRound: ReadonlyMap<RoundId, ReadonlyMap<string, readonly Observation[]>>;
}

/** Lines by id and what corrects what: grows with a trial and belongs to its newest state. */
const linesOf = new WeakMap<TrialState, LogLines>();

const nothing = (plan: Plan): TrialState => ({
  plan,
  log: [],
  entries: [],
  byKind: new Map(),
  observations: [],
  byUnitAndTrait: new Map(),
  byRound: new Map(),
  ...viewsOf(plan, new Map(), null, null),
});

/**
 * Derives the state of a trial from its plan and log; pure, and the same for any order of the log.
 *
 * @param plan the plan as it stands
 * @param log entries in any order; entries about unknown units are kept but not used
 * @example deriveState(plan, []).seal // null: not sealed yet
 */
export function deriveState(plan: Plan, log: readonly Entry[]): TrialState {
  const state = folded(plan, log);
  const full = withExtraUnits(
    plan,
    ofKind(state, 'extraUnit').map((e) => e.body),
  );
  if (full === plan) return state;
  // Values of an extra unit are known once the unit is.
  const grown = folded(full, log);
  plannedOf.set(grown, plan);
  return grown;
}

/** The plan as it was sealed, of states whose plan has units more. */
const plannedOf = new WeakMap<TrialState, Plan>();

/** The plan as it was written and sealed: without the units that came later. */
export const plannedIn = (state: TrialState): Plan => plannedOf.get(state) ?? state.plan;

function folded(plan: Plan, log: readonly Entry[]): TrialState {
  const empty = nothing(plan);
  linesOf.set(empty, new LogLines());
  return grow(empty, log);
}

/**
 * The state after more lines: the same as deriving it anew from all of them, at a cost that goes with what was
 * added. Lines whose id is there already are passed over: a line's bytes never change.
 *
 * @param state the newest state of its trial; an older one is derived anew first
 */
export function extend(state: TrialState, added: readonly Entry[]): TrialState {
  const planned = plannedIn(state);
  const lines = linesOf.get(state);
  if (!lines || lines.size !== state.log.length) return deriveState(planned, [...state.log, ...added]);
  const next = grow(state, added);
  // A unit more or less is another plan to walk by.
  if (next.byKind.get('extraUnit') !== state.byKind.get('extraUnit')) return deriveState(planned, next.log);
  if (planned !== state.plan) plannedOf.set(next, planned);
  return next;
}

/** @param state the newest of its trial */
function grow(state: TrialState, added: readonly Entry[]): TrialState {
  const { plan } = state;
  const lines = linesOf.get(state)!;
  const fresh = added.filter((e) => lines.add(e));
  if (fresh.length === 0) return state;
  const change = new Change(state, planIndex(plan));
  // Corrections of one entry are worked out once, however many came.
  // What lasts may have come to last, or not any more.
  const roots = new Set([...fresh.flatMap((e) => lines.rootOf(e) ?? []), ...lines.lastingRoots()]);
  for (const root of [...roots].sort(compareHappened)) change.put(resolveEntry(root, lines), root);
  const next = change.finish(withLines(state.log, fresh));
  linesOf.set(next, lines);
  return next;
}

/** Lines joined to a log in the order of writing. */
function withLines(log: readonly Entry[], fresh: readonly Entry[]): Entry[] {
  const sorted = [...fresh].sort(compareWritten);
  const last = log[log.length - 1];
  const joined = log.concat(sorted);
  return last && compareWritten(last, sorted[0]!) > 0 ? joined.sort(compareWritten) : joined;
}

/** A state being changed: lists are copied once, at the first change of each. */
class Change {
  private readonly entries: Copied<ResolvedEntry>;
  private readonly observations: Copied<Observation>;
  private readonly byKind: Map<Kind, readonly ResolvedEntry[]>;
  private readonly byUnitAndTrait: Map<string, readonly Observation[]>;
  private readonly byRound: Map<RoundId, ReadonlyMap<string, readonly Observation[]>>;
  private readonly touched = new Set<Kind>();
  private readonly copiedKinds = new Map<Kind, Copied<ResolvedEntry>>();
  private readonly copiedPlaces = new Map<string, Copied<Observation>>();
  private readonly copiedRounds = new Map<RoundId, Map<string, readonly Observation[]>>();
  /** rounds of which a place has another value now, by the place */
  private readonly touchedRounds = new Map<string, Set<RoundId>>();

  constructor(
    private readonly before: TrialState,
    private readonly of: PlanIndex,
  ) {
    this.entries = new Copied(before.entries, compareHappened);
    this.observations = new Copied(before.observations, compareObservations);
    this.byKind = new Map(before.byKind);
    this.byUnitAndTrait = new Map(before.byUnitAndTrait);
    this.byRound = new Map(before.byRound);
  }

  /** Puts an entry where it belongs, in place of what stood for the same root before. */
  put(now: ResolvedEntry | null, root: ResolvedRoot): void {
    const at = sortedIndexOf<ResolvedRoot>(this.entries.list, root, compareHappened);
    if (at >= 0) {
      const old = this.entries.list[at]!;
      this.entries.removeAt(at);
      this.leave(old);
    }
    if (now === null) return;
    this.entries.insert(now);
    this.enter(now);
  }

  private kindList(kind: Kind): Copied<ResolvedEntry> {
    let list = this.copiedKinds.get(kind);
    if (!list) {
      list = new Copied(this.byKind.get(kind) ?? [], compareHappened);
      this.copiedKinds.set(kind, list);
    }
    this.touched.add(kind);
    return list;
  }

  private placeList(place: string): Copied<Observation> {
    let list = this.copiedPlaces.get(place);
    if (!list) {
      list = new Copied(this.byUnitAndTrait.get(place) ?? [], compareObservations);
      this.copiedPlaces.set(place, list);
    }
    return list;
  }

  private enter(e: ResolvedEntry): void {
    this.kindList(e.body.kind).insert(e);
    const o = observationOf(e, this.of, this.before.plan.startDate);
    if (!o) return;
    this.observations.insert(o);
    const place = placeOf(o.unitId, o.traitId);
    this.placeList(place).insert(o);
    this.touch(o, place);
  }

  private leave(e: ResolvedEntry): void {
    this.kindList(e.body.kind).remove(e);
    const o = observationOf(e, this.of, this.before.plan.startDate);
    if (!o) return;
    const place = placeOf(o.unitId, o.traitId);
    this.observations.remove(o);
    this.placeList(place).remove(o);
    this.touch(o, place);
  }

  private touch(o: Observation, place: string): void {
    if (o.roundId === null) return;
    const rounds = this.touchedRounds.get(place);
    if (rounds) rounds.add(o.roundId);
    else this.touchedRounds.set(place, new Set([o.roundId]));
  }

  /** Values of each round that one came to or left, as they are now: once for each place, however many came. */
  private settleRounds(): void {
    for (const [place, rounds] of this.touchedRounds) {
      const values = new Map<RoundId, Observation[]>([...rounds].map((r) => [r, []]));
      for (const o of this.placeList(place).list) if (o.roundId !== null) values.get(o.roundId)?.push(o);
      for (const [roundId, own] of values) {
        let places = this.copiedRounds.get(roundId);
        if (!places) {
          places = new Map(this.byRound.get(roundId));
          this.copiedRounds.set(roundId, places);
        }
        if (own.length > 0) places.set(place, own);
        else places.delete(place);
      }
    }
    for (const [roundId, places] of this.copiedRounds)
      if (places.size > 0) this.byRound.set(roundId, places);
      else this.byRound.delete(roundId);
  }

  finish(log: readonly Entry[]): TrialState {
    this.settleRounds();
    const settle = <K, T>(index: Map<K, readonly T[]>, copied: ReadonlyMap<K, Copied<T>>) => {
      for (const [key, { list }] of copied) {
        if (list.length > 0) index.set(key, list);
        else index.delete(key);
      }
    };
    settle(this.byKind, this.copiedKinds);
    settle(this.byUnitAndTrait, this.copiedPlaces);
    const { plan } = this.before;
    return {
      plan,
      log,
      entries: this.entries.list,
      byKind: this.byKind,
      observations: this.observations.list,
      byUnitAndTrait: this.byUnitAndTrait,
      byRound: this.byRound,
      ...viewsOf(plan, this.byKind, this.touched, this.before),
    };
  }
}

/**
 * Lines of the log that say what can't be: they would take back a seal with values under it, close what was opened, or unsay an
 * answer once the cups are known. They are kept, shown and not followed.
 */
export const standingAside = (state: TrialState): { line: Correction; why: string }[] =>
  linesOf.get(state)?.standingAside() ?? [];

/** Why a line can't be taken back any more, in words; null where it can. */
export const whyItStays = (state: TrialState, line: Entry): string | null =>
  linesOf.get(state)?.whyItStays(line) ?? null;

/** The entry that a line is a correction of, through any number of them; a line that is none is its own. */
export const rootOf = (state: TrialState, line: Entry): Exclude<Entry, Correction> | undefined =>
  linesOf.get(state)?.rootOf(line);

/** A state whose plan is shown otherwise: in another order, or under codes. Its lines are the same. */
export function shownWith(state: TrialState, plan: Plan): TrialState {
  const amended = { ...state, plan };
  const lines = linesOf.get(state);
  if (lines) linesOf.set(amended, lines);
  return amended;
}

/** Whether the seal can still be broken: no value was written under it. */
export const canBreakSeal = (state: TrialState): boolean =>
  state.seal !== null && linesOf.get(state)?.lasting.hasValues(state.seal.entryId) === false;

type ResolvedRoot = Pick<ResolvedEntry, 'id' | 'at' | 'counter' | 'device'>;

/**
 * A sorted list that is copied at its first change. One line more is the usual change: it is copied and put in at
 * once, since pushing onto a copy would copy it again.
 */
class Copied<T> {
  private own: T[] | null = null;
  constructor(
    private readonly before: readonly T[],
    private readonly compare: (a: T, b: T) => number,
  ) {}

  get list(): readonly T[] {
    return this.own ?? this.before;
  }

  insert(item: T): void {
    const at = insertionIndex(this.list, item, this.compare);
    if (this.own) {
      if (at === this.own.length) this.own.push(item);
      else this.own.splice(at, 0, item);
    } else
      this.own = at === this.before.length ? this.before.concat([item]) : this.before.toSpliced(at, 0, item);
  }

  removeAt(at: number): void {
    this.own ??= this.before.slice();
    this.own.splice(at, 1);
  }

  remove(item: T): void {
    this.removeAt(sortedIndexOf(this.list, item, this.compare));
  }
}

/** Standing entries of one kind, in the order they happened. @example ofKind(state, 'mix') */
export function ofKind<K extends Kind>(
  state: Pick<TrialState, 'byKind'>,
  kind: K,
): readonly ResolvedEntry<BodyOf<K>>[] {
  return listOf(state.byKind, kind);
}

/** Values of a unit for a trait, in one round when it is given, in the order of their days. */
export function observationsOf(
  state: Pick<TrialState, 'byUnitAndTrait' | 'byRound'>,
  unitId: UnitId,
  traitId: TraitId,
  roundId?: RoundId,
): readonly Observation[] {
  const place = placeOf(unitId, traitId);
  return (
    (roundId === undefined ? state.byUnitAndTrait.get(place) : state.byRound.get(roundId)?.get(place)) ?? []
  );
}
