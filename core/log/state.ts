import type { BodyOf, Entry, EntryBody } from './entry';
import type { RoundId, TraitId, UnitId } from '../model/ids';
import type { Plan } from '../model/plan';
import { type PlanIndex, planIndex } from '../plan/planIndex';
import { type Observation, compareObservations, observationOf, placeOf } from './observation';
import { compareHappened, compareWritten, insertionIndex, sortedIndexOf } from './order';
import { LogLines, type ResolvedEntry, resolveEntry } from './resolve';
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
  const empty = nothing(plan);
  linesOf.set(empty, new LogLines());
  return extend(empty, log);
}

/**
 * The state after more lines: the same as deriving it anew from all of them, at a cost that goes with what was
 * added. Lines whose id is there already are passed over: a line's bytes never change.
 *
 * @param state the newest state of its trial; an older one is derived anew first
 */
export function extend(state: TrialState, added: readonly Entry[]): TrialState {
  const { plan } = state;
  const lines = linesOf.get(state);
  if (!lines || lines.size !== state.log.length) return deriveState(plan, [...state.log, ...added]);
  const fresh = added.filter((e) => lines.add(e));
  if (fresh.length === 0) return state;
  const change = new Change(state, planIndex(plan));
  // Corrections of one entry are worked out once, however many came.
  const roots = new Set(fresh.flatMap((e) => lines.rootOf(e) ?? []));
  for (const root of [...roots].sort(compareHappened)) change.put(resolveEntry(root, lines), root);
  const next = change.finish(withLines(state.log, fresh));
  linesOf.set(next, lines);
  return next;
}

/** Lines joined to a log in the order of writing. */
function withLines(log: readonly Entry[], fresh: readonly Entry[]): Entry[] {
  const sorted = [...fresh].sort(compareWritten);
  const last = log[log.length - 1];
  const joined = [...log, ...sorted];
  return last && compareWritten(last, sorted[0]!) > 0 ? joined.sort(compareWritten) : joined;
}

/** A state being changed: lists are copied once, at the first change of each. */
class Change {
  private readonly entries: ResolvedEntry[];
  private readonly observations: Observation[];
  private readonly byKind: Map<Kind, readonly ResolvedEntry[]>;
  private readonly byUnitAndTrait: Map<string, readonly Observation[]>;
  private readonly byRound: Map<RoundId, ReadonlyMap<string, readonly Observation[]>>;
  private readonly touched = new Set<Kind>();
  private readonly copiedKinds = new Map<Kind, ResolvedEntry[]>();
  private readonly copiedPlaces = new Map<string, Observation[]>();
  private readonly copiedRounds = new Map<RoundId, Map<string, readonly Observation[]>>();

  constructor(
    private readonly before: TrialState,
    private readonly of: PlanIndex,
  ) {
    this.entries = [...before.entries];
    this.observations = [...before.observations];
    this.byKind = new Map(before.byKind);
    this.byUnitAndTrait = new Map(before.byUnitAndTrait);
    this.byRound = new Map(before.byRound);
  }

  /** Puts an entry where it belongs, in place of what stood for the same root before. */
  put(now: ResolvedEntry | null, root: ResolvedRoot): void {
    const at = sortedIndexOf<ResolvedRoot>(this.entries, root, compareHappened);
    if (at >= 0) {
      const old = this.entries[at]!;
      this.entries.splice(at, 1);
      this.leave(old);
    }
    if (now === null) return;
    insert(this.entries, now, compareHappened);
    this.enter(now);
  }

  private kindList(kind: Kind): ResolvedEntry[] {
    let list = this.copiedKinds.get(kind);
    if (!list) {
      list = [...(this.byKind.get(kind) ?? [])];
      this.copiedKinds.set(kind, list);
      this.byKind.set(kind, list);
    }
    this.touched.add(kind);
    return list;
  }

  private placeList(place: string): Observation[] {
    let list = this.copiedPlaces.get(place);
    if (!list) {
      list = [...(this.byUnitAndTrait.get(place) ?? [])];
      this.copiedPlaces.set(place, list);
      this.byUnitAndTrait.set(place, list);
    }
    return list;
  }

  private enter(e: ResolvedEntry): void {
    insert(this.kindList(e.body.kind), e, compareHappened);
    const o = observationOf(e, this.of, this.before.plan.startDate);
    if (!o) return;
    insert(this.observations, o, compareObservations);
    const place = placeOf(o.unitId, o.traitId);
    insert(this.placeList(place), o, compareObservations);
    this.noteRound(o, place);
  }

  private leave(e: ResolvedEntry): void {
    const list = this.kindList(e.body.kind);
    list.splice(sortedIndexOf(list, e, compareHappened), 1);
    const o = observationOf(e, this.of, this.before.plan.startDate);
    if (!o) return;
    const place = placeOf(o.unitId, o.traitId);
    for (const values of [this.observations, this.placeList(place)]) {
      values.splice(sortedIndexOf(values, o, compareObservations), 1);
    }
    if (this.placeList(place).length === 0) {
      this.byUnitAndTrait.delete(place);
      this.copiedPlaces.delete(place);
    }
    this.noteRound(o, place);
  }

  /** Values of the round that this one belongs to, as they are now. */
  private noteRound(o: Observation, place: string): void {
    if (o.roundId === null) return;
    let places = this.copiedRounds.get(o.roundId);
    if (!places) {
      places = new Map(this.byRound.get(o.roundId));
      this.copiedRounds.set(o.roundId, places);
      this.byRound.set(o.roundId, places);
    }
    const values = (this.byUnitAndTrait.get(place) ?? []).filter((x) => x.roundId === o.roundId);
    if (values.length > 0) places.set(place, values);
    else places.delete(place);
    if (places.size === 0) {
      this.byRound.delete(o.roundId);
      this.copiedRounds.delete(o.roundId);
    }
  }

  finish(log: readonly Entry[]): TrialState {
    for (const [kind, list] of this.copiedKinds) if (list.length === 0) this.byKind.delete(kind);
    const { plan } = this.before;
    return {
      plan,
      log,
      entries: this.entries,
      byKind: this.byKind,
      observations: this.observations,
      byUnitAndTrait: this.byUnitAndTrait,
      byRound: this.byRound,
      ...viewsOf(plan, this.byKind, this.touched, this.before),
    };
  }
}

type ResolvedRoot = Pick<ResolvedEntry, 'id' | 'at' | 'counter' | 'device'>;

function insert<T>(sorted: T[], item: T, compare: (a: T, b: T) => number): void {
  const at = insertionIndex(sorted, item, compare);
  if (at === sorted.length) sorted.push(item);
  else sorted.splice(at, 0, item);
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
