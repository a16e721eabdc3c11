import type { BodyOf, EntryBody } from './entry';
import type { EntryId, RoundId, TraitId, UnitId } from '../model/ids';
import type { Happening } from '../model/happening';
import type { Plan, Position } from '../model/plan';
import { planIndex } from '../plan/planIndex';
import { EXTRA_UNIT } from './extraUnits';
import { planSha256 } from '../plan/seal';
import { compareHappened, compareWritten } from './order';
import { type ResolvedEntry, isOfKind } from './resolve';

type Kind = EntryBody['kind'];
type ByKind = ReadonlyMap<Kind, readonly ResolvedEntry[]>;

export interface Seal {
  entryId: EntryId;
  at: string;
  offsetMin: number | null;
  planSha256: string;
}

interface Exclusion {
  entryId: EntryId;
  unitId: UnitId;
  traitId: TraitId | null;
  reason: string;
}

interface Death {
  entryId: EntryId;
  cause: string;
  at: string;
  offsetMin: number | null;
}

export interface Deviation {
  entryId: EntryId;
  unitIds: UnitId[];
  what: Happening;
  text: string;
  at: string;
  offsetMin: number | null;
  by: string;
}

export interface Remark {
  entryId: EntryId;
  unitId: UnitId | null;
  text: string;
  /** of a trait taken in words, with its round */
  traitId: TraitId | null;
  roundId: RoundId | null;
  at: string;
  offsetMin: number | null;
  by: string;
}

export interface MixedUp {
  entryId: EntryId;
  unitIds: UnitId[];
  reason: string;
  at: string;
  offsetMin: number | null;
}

/** Why a unit whose label is lost is in no finding. */
export const LABEL_LOST = 'its label is lost and it isn’t told apart yet';

/** Whether a spare took a place after something died there. */
const replacedAfter = (
  replacements: readonly ResolvedEntry<BodyOf<'replacement'>>[],
  death: ResolvedEntry<BodyOf<'death'>>,
): boolean =>
  replacements.some(
    (r) =>
      r.body.unitId === death.body.unitId &&
      (r.body.sample === null || r.body.sample === death.body.sample) &&
      compareHappened(r, death) > 0,
  );

/** Lost labels that nothing resolves yet. */
function notToldApart(
  lost: readonly ResolvedEntry<BodyOf<'mixedUp'>>[],
  found: readonly ResolvedEntry<BodyOf<'toldApart'>>[],
) {
  const resolved = new Set(found.map((e) => e.body.mixedUpId));
  return lost.filter((e) => !resolved.has(e.id));
}

/** What the log says apart from values, each worked out from the kinds of line it rests on. */
export interface Views {
  /** the first seal: a plan is sealed once */
  seal: Seal | null;
  /** where each unit stands now */
  positions: ReadonlyMap<UnitId, Position>;
  /** units that were moved by hand or on schedule */
  moved: ReadonlySet<UnitId>;
  exclusions: readonly Exclusion[];
  deaths: ReadonlyMap<UnitId, Death>;
  /** samples (plants, plugs) that died while their unit lives on */
  deadSamples: ReadonlyMap<UnitId, ReadonlySet<number>>;
  /** units that a spare stands in for, since when */
  replaced: ReadonlyMap<UnitId, { at: string; offsetMin: number | null; reason: string }>;
  /** units that go on in several vessels, and in how many */
  parts: ReadonlyMap<UnitId, number>;
  /** units whose labels are lost, not told apart yet */
  mixedUp: readonly MixedUp[];
  deviations: readonly Deviation[];
  notes: readonly Remark[];
  /** tasks ticked off, by their name, with the time */
  tasksDone: ReadonlyMap<string, string>;
  /** when the blinding key was opened */
  revealed: { at: string; offsetMin: number | null } | null;
  /** tare of each container, grams, newest reading */
  tares: ReadonlyMap<string, number>;
}

/** The list of one kind; the index holds nothing else under its name. */
export function listOf<K extends Kind>(byKind: ByKind, kind: K): readonly ResolvedEntry<BodyOf<K>>[] {
  const list = byKind.get(kind);
  const holds = (l: readonly ResolvedEntry[]): l is readonly ResolvedEntry<BodyOf<K>>[] =>
    l.length === 0 || isOfKind(kind)(l[0]!);
  return list && holds(list) ? list : [];
}

/**
 * The views of a log; those whose lines didn't change are the same objects as before.
 * @param touched kinds of line that changed; null: all
 */
export function viewsOf(
  plan: Plan,
  byKind: ByKind,
  touched: ReadonlySet<Kind> | null,
  before: Views | null,
): Views {
  const view = <N extends keyof Views>(name: N, kinds: Kind[], make: () => Views[N]): Views[N] =>
    before && touched && !kinds.some((k) => touched.has(k)) ? before[name] : make();
  const all = <K extends Kind>(kind: K) => listOf(byKind, kind);
  const known = (id: UnitId) => planIndex(plan).unit(id) !== undefined;
  return {
    seal: view('seal', ['seal'], () => {
      // Of several the one that stands for this plan: another copy may bring one of its own, dated as it likes.
      const seals = [...all('seal')].sort(compareWritten);
      const fits = seals.length > 1 ? planSha256(plan) : '';
      const first = seals.find((s) => s.body.planSha256 === fits) ?? seals[0];
      return first
        ? { entryId: first.id, at: first.at, offsetMin: first.offsetMin, planSha256: first.body.planSha256 }
        : null;
    }),
    positions: view('positions', ['move'], () => {
      const positions = new Map(plan.units.map((u) => [u.id, u.position]));
      for (const { body } of all('move')) {
        for (const m of body.moves) if (known(m.unitId)) positions.set(m.unitId, m.to);
      }
      return positions;
    }),
    moved: view(
      'moved',
      ['move'],
      () => new Set(all('move').flatMap((e) => e.body.moves.map((m) => m.unitId))),
    ),
    exclusions: view('exclusions', ['exclusion', 'mixedUp', 'toldApart', 'extraUnit'], () => [
      ...all('extraUnit').map(({ id, body }) => ({
        entryId: id,
        unitId: body.unit.id,
        traitId: null,
        reason: EXTRA_UNIT,
      })),
      ...all('exclusion').map(({ id, body: { unitId, traitId, reason } }) => ({
        entryId: id,
        unitId,
        traitId,
        reason,
      })),
      // Whose label is lost may be another contender's: left out until it is known again.
      ...notToldApart(all('mixedUp'), all('toldApart')).flatMap(({ id, body }) =>
        body.unitIds.map((unitId) => ({ entryId: id, unitId, traitId: null, reason: LABEL_LOST })),
      ),
    ]),
    deaths: view(
      'deaths',
      ['death', 'replacement'],
      () =>
        new Map(
          all('death')
            .filter((e) => e.body.sample === null && !replacedAfter(all('replacement'), e))
            .map(({ id, at, offsetMin, body }) => [
              body.unitId,
              { entryId: id, cause: body.cause, at, offsetMin },
            ]),
        ),
    ),
    deadSamples: view('deadSamples', ['death', 'replacement'], () => {
      const dead = new Map<UnitId, Set<number>>();
      for (const e of all('death')) {
        const { body } = e;
        if (body.sample !== null && !replacedAfter(all('replacement'), e)) {
          dead.set(body.unitId, new Set([...(dead.get(body.unitId) ?? []), body.sample]));
        }
      }
      return dead;
    }),
    replaced: view(
      'replaced',
      ['replacement'],
      () =>
        new Map(
          all('replacement')
            .filter((e) => e.body.sample === null)
            .map(({ at, offsetMin, body }) => [body.unitId, { at, offsetMin, reason: body.reason }]),
        ),
    ),
    parts: view('parts', ['split'], () => new Map(all('split').map((e) => [e.body.unitId, e.body.into]))),
    mixedUp: view('mixedUp', ['mixedUp', 'toldApart'], () =>
      notToldApart(all('mixedUp'), all('toldApart')).map(({ id, at, offsetMin, body }) => ({
        entryId: id,
        unitIds: body.unitIds,
        reason: body.reason,
        at,
        offsetMin,
      })),
    ),
    deviations: view('deviations', ['deviation'], () =>
      all('deviation').map(({ id, at, offsetMin, by, body }) => ({
        entryId: id,
        unitIds: body.unitIds,
        what: body.what ?? 'other',
        text: body.text,
        at,
        offsetMin,
        by,
      })),
    ),
    notes: view('notes', ['note'], () =>
      all('note').map(({ id, at, offsetMin, by, body }) => ({
        entryId: id,
        unitId: body.unitId,
        text: body.text,
        traitId: body.traitId ?? null,
        roundId: body.roundId ?? null,
        at,
        offsetMin,
        by,
      })),
    ),
    tasksDone: view(
      'tasksDone',
      ['taskDone'],
      () => new Map(all('taskDone').map((e) => [e.body.task, e.at])),
    ),
    revealed: view('revealed', ['reveal'], () => {
      const first = all('reveal')[0];
      return first ? { at: first.at, offsetMin: first.offsetMin } : null;
    }),
    tares: view(
      'tares',
      ['reading'],
      () =>
        new Map(
          all('reading')
            .filter((e) => e.body.quantity === 'tare')
            .map((e) => [e.body.subject, e.body.value]),
        ),
    ),
  };
}
