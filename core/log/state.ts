import type { Entry } from '../model/entry';
import type { EntryId, RoundId, TraitId, UnitId } from '../model/ids';
import type { Plan, Position } from '../model/plan';
import { inOrder } from './order';
import { type ResolvedEntry, ofKind, resolveLog } from './resolve';

/** One value of one trait on one unit, weighings included (as net grams). */
export interface Observation {
  entryId: EntryId;
  unitId: UnitId;
  traitId: TraitId;
  roundId: RoundId | null;
  sample: number | null;
  value: number;
  /** n of a k-of-n value, where it was said with the value */
  outOf: number | null;
  /** of `days until`: it hadn't happened on that day */
  notYet: boolean;
  at: string;
  recordedAt: string;
  by: string;
  /** values this one replaced, oldest first */
  earlier: { value: number; reason: string; recordedAt: string }[];
  weighing: { grossG: number; tareG: number; container: string; steady: boolean | null } | null;
}

export interface Exclusion {
  entryId: EntryId;
  unitId: UnitId;
  traitId: TraitId | null;
  reason: string;
}

/** What plan and log together say: everything a screen shows comes from here. */
export interface TrialState {
  plan: Plan;
  entries: ResolvedEntry[];
  seal: { entryId: EntryId; at: string; planSha256: string } | null;
  /** where each unit stands now */
  positions: Map<UnitId, Position>;
  observations: Observation[];
  /** observations by `unitId/traitId`, oldest first */
  byUnitAndTrait: Map<string, Observation[]>;
  exclusions: Exclusion[];
  deaths: Map<UnitId, { entryId: EntryId; cause: string; at: string }>;
  deviations: { entryId: EntryId; unitIds: UnitId[]; text: string; at: string; by: string }[];
  notes: {
    entryId: EntryId;
    unitId: UnitId | null;
    text: string;
    /** of a trait taken in words, with its round */
    traitId: TraitId | null;
    roundId: RoundId | null;
    at: string;
    by: string;
  }[];
  /** tasks ticked off, by their name, with the time */
  tasksDone: Map<string, string>;
  /** when the blinding key was opened */
  revealedAt: string | null;
  /** tare of each container, grams, newest reading */
  tares: Map<string, number>;
}

const netG = (b: { grossG: number; tareG: number }) => Number((b.grossG - b.tareG).toFixed(6));

function toObservation(e: ResolvedEntry): Observation | null {
  const { body } = e;
  if (body.kind !== 'measurement' && body.kind !== 'weighing') return null;
  const earlier = e.superseded.flatMap((s) => {
    const value =
      s.body.kind === 'measurement' ? s.body.value : s.body.kind === 'weighing' ? netG(s.body) : null;
    return value === null ? [] : [{ value, reason: s.reason, recordedAt: s.recordedAt }];
  });
  return {
    entryId: e.id,
    unitId: body.unitId,
    traitId: body.traitId,
    roundId: body.roundId,
    sample: body.sample ?? null,
    value: body.kind === 'measurement' ? body.value : netG(body),
    outOf: (body.kind === 'measurement' && body.outOf) || null,
    notYet: body.kind === 'measurement' && body.notYet === true,
    at: e.at,
    recordedAt: e.recordedAt,
    by: e.by,
    earlier,
    weighing:
      body.kind === 'weighing'
        ? { grossG: body.grossG, tareG: body.tareG, container: body.container, steady: body.steady }
        : null,
  };
}

/**
 * Derives the state of a trial from its plan and log; pure, and the same for any order of the log.
 *
 * @param plan the plan as it stands
 * @param log entries in any order; entries about unknown units are kept but not used
 * @example deriveState(plan, []).seal // null: not sealed yet
 */
export function deriveState(plan: Plan, log: readonly Entry[]): TrialState {
  const entries = resolveLog(log);
  const known = new Set<UnitId>(plan.units.map((u) => u.id));
  const observations = inOrder(
    entries.map(toObservation).filter((o): o is Observation => o !== null && known.has(o.unitId)),
    (o) => o.at,
    (o) => o.recordedAt,
    (o) => o.entryId,
  );
  const byUnitAndTrait = new Map<string, Observation[]>();
  for (const o of observations) {
    const key = `${o.unitId}/${o.traitId}`;
    const list = byUnitAndTrait.get(key);
    if (list) list.push(o);
    else byUnitAndTrait.set(key, [o]);
  }
  const positions = new Map(plan.units.map((u) => [u.id, u.position]));
  for (const move of ofKind(entries, 'move')) {
    for (const m of move.body.moves) if (known.has(m.unitId)) positions.set(m.unitId, m.to);
  }
  const seal = ofKind(entries, 'seal')[0];
  return {
    plan,
    entries,
    seal: seal ? { entryId: seal.id, at: seal.at, planSha256: seal.body.planSha256 } : null,
    positions,
    observations,
    byUnitAndTrait,
    exclusions: ofKind(entries, 'exclusion').map((e) => ({ entryId: e.id, ...pick(e.body) })),
    deaths: new Map(
      ofKind(entries, 'death')
        .filter((e) => e.body.sample === null)
        .map((e) => [e.body.unitId, { entryId: e.id, cause: e.body.cause, at: e.at }]),
    ),
    deviations: ofKind(entries, 'deviation').map((e) => ({
      entryId: e.id,
      unitIds: e.body.unitIds,
      text: e.body.text,
      at: e.at,
      by: e.by,
    })),
    notes: ofKind(entries, 'note').map((e) => ({
      entryId: e.id,
      unitId: e.body.unitId,
      text: e.body.text,
      traitId: e.body.traitId ?? null,
      roundId: e.body.roundId ?? null,
      at: e.at,
      by: e.by,
    })),
    tasksDone: new Map(ofKind(entries, 'taskDone').map((e) => [e.body.task, e.at])),
    revealedAt: ofKind(entries, 'reveal')[0]?.at ?? null,
    tares: new Map(
      ofKind(entries, 'reading')
        .filter((e) => e.body.quantity === 'tare')
        .map((e) => [e.body.subject, e.body.value]),
    ),
  };
}

function pick(body: { unitId: UnitId; traitId: TraitId | null; reason: string }) {
  return { unitId: body.unitId, traitId: body.traitId, reason: body.reason };
}

/** Observations of a unit for a trait, in one round when it is given. */
export function observationsOf(
  state: TrialState,
  unitId: UnitId,
  traitId: TraitId,
  roundId?: RoundId,
): Observation[] {
  const all = state.byUnitAndTrait.get(`${unitId}/${traitId}`) ?? [];
  return roundId === undefined ? all : all.filter((o) => o.roundId === roundId);
}
