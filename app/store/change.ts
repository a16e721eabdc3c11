import { dealCodes, keyFits } from '~core/design/blinding';
import { lacksReason } from '~core/log/afterOpening';
import { type CorrectionBody, type Entry, type EntryBody, lineOf } from '~core/log/entry';
import { deriveState, extend } from '~core/log/state';
import type { Bulk } from '~core/formats/bulkFiles';
import { type BlindKey, ReviewText } from '~core/log/trial';
import { sha256Of } from '~core/plan/seal';
import type { EntryId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import type { PanelKey } from '~core/model/panel';
import { Plan } from '~core/model/plan';
import type { Product } from '~core/model/product';
import { type Result, err, ok } from '~core/model/result';
import { bench, benchName, deviceId } from './bench';
import { randomSeed } from './chance';
import { tellCommitted } from './committed';
import { keepBulk } from './bulk';
import type { BenchDb, TrialRow } from './db';
import type { ChangeError } from './errors';
import { addLines } from './lines';
import { inLock } from './locks';
import { noteSeals } from './seals';
import { tabId } from './tab';
import { type LoadedTrial, current, remember } from './trialMemory';

/** What a log line says, before it gets its stamp. */
export type Saying = EntryBody | CorrectionBody;

/** The line that takes another back. */
export const takenBack = (supersedes: EntryId, reason = 'taken back'): CorrectionBody => ({
  ...{ kind: 'correction', supersedes, replacement: null, reason },
});

/** A moment, and how far local time is ahead of UTC then. */
export interface Happened {
  at: string;
  offsetMin: number;
}

/** A moment of a day by the clock on the wall here. @param time HH:MM */
export function momentOf(date: string, time: string): Happened {
  const at = new Date(`${date}T${time}:00`);
  return { at: at.toISOString(), offsetMin: -at.getTimezoneOffset() };
}

/** The middle of another day, where nobody says when. */
export const noonOf = (date: string): Happened => momentOf(date, '12:00');

/** What a change of a trial writes. Left out: stays as it is. */
export interface Change {
  plan?: Plan;
  review?: ReviewText;
  /** new lines; or what they are given the plan as it is saved */
  entries?: readonly Saying[] | ((saved: Plan) => readonly Saying[]);
  /** what is in the cups of a panel session that these lines start */
  panelKey?: PanelKey;
  /** when what the lines say happened, all of them or one by one, where it wasn't just now */
  happened?: Happened | undefined | readonly (Happened | undefined)[];
  /** an Undo, which isn't itself taken back */
  isUndo?: boolean;
  /** pictures and readings that these lines name */
  bulk?: Bulk | undefined;
  /** what another copy of the trial brings */
  foreign?: Foreign;
}

/** What another copy of a trial brings: its lines stay as they are, with their own stamps. */
interface Foreign {
  lines: readonly Entry[];
  /** lines that say something else than the ones here of the same id, or may not come unasked: kept beside, and asked about */
  against?: readonly Against[];
  /** its plan takes the place of the one here */
  plan?: Pick<TrialRow, 'plan' | 'sealedAs'>;
  key?: BlindKey | null;
  /** its pictures and readings, as far as the log here names them */
  bulk?: Bulk;
  /** keys of its panels' cups: those that aren't here */
  panels?: readonly PanelKey[];
}

/** A line that is kept beside the log until somebody decides. */
export interface Against {
  other: Entry;
  why?: string;
  from?: string;
}

/** What is at hand when a change is decided. */
export interface Deciding {
  trial: LoadedTrial;
  /** products of the library as they stand now */
  library: readonly Product[];
}

export interface Changed {
  trial: LoadedTrial;
  entries: Entry[];
  /** lines of another copy that are kept beside the log since now */
  against?: Against[];
}

/** Changes of a plan that a tab can take back; older ones are dropped. */
const MOST_STEPS = 20;

/** `ofChanges` for plan, review and lines; `ofTrials` where pictures, readings or the bin are written too. */
type Tables = 'ofChanges' | 'ofTrials';

/**
 * The one way to change a trial: it is read, the change decided and written inside one transaction, one tab at a
 * time. What is decided is a function of the trial as the database has it, never of a copy in memory; lines are
 * added, never put over others.
 *
 * @param decide what to write, or why not; an empty change writes nothing
 * @param tables that the change writes
 */
export async function change<E>(
  id: string | undefined,
  decide: (at: Deciding) => Result<Change, E>,
  tables: Tables = 'ofChanges',
): Promise<Result<Changed, E | ChangeError>> {
  if (id === undefined) return err({ tag: 'gone' });
  const device = await deviceId();
  const written = await alone(id, tables, async (db) => {
    // Asked for at once: each answer is a way to the database and back.
    const [trial, library, recorder] = await Promise.all([
      current(db, id),
      db.products.toArray(),
      db.settings.get('recorder'),
    ]);
    if (!trial) return err({ tag: 'gone' } as const);
    const decided = decide({ trial, library });
    if (!decided.ok) return decided;
    // Nobody said who sits here: the plan says who measures.
    const by = (recorder?.value ?? '') || trial.row.plan.scorer.slice(0, 80);
    return write(db, trial, decided.value, { by, device, library });
  });
  // Only what was committed is remembered.
  if (!written.ok) return written;
  tellCommitted(written.value.entries);
  const { row, state, key, rev, planRev } = written.value.trial;
  return ok({ ...written.value, trial: remember(row, state, key, { rev, planRev }) });
}

/**
 * Runs one thing at a time that writes of a trial, over all tabs, in one transaction.
 */
export async function alone<T>(id: string, tables: Tables, run: (db: BenchDb) => Promise<T>): Promise<T> {
  const db = await bench();
  return inLock(`palazzo/${benchName()}/${id}`, () =>
    // Told by its kind that it waits: the transaction stays open as long.
    db.transaction('rw', db[tables], async () => run(db)),
  );
}

/** Writes what another copy of a trial brings, inside a transaction over all its tables. */
export const writeForeign = (
  db: BenchDb,
  trial: LoadedTrial,
  what: Change,
): Promise<Result<Changed, ChangeError>> => write(db, trial, what, { by: '', device: '', library: [] });

interface Writing {
  by: string;
  device: string;
  library: readonly Product[];
}

async function write(
  db: BenchDb,
  trial: LoadedTrial,
  { plan, review, entries: say, panelKey, happened, isUndo = false, bulk, foreign }: Change,
  { by, device, library }: Writing,
): Promise<Result<Changed, ChangeError>> {
  if (foreign) return takeForeign(db, trial, review, foreign);
  if (plan === undefined && review === undefined && (!say || say.length === 0)) {
    return ok({ trial, entries: [] });
  }
  if (plan !== undefined && trial.state.seal) return err({ tag: 'sealed' });
  const { id } = trial.row;
  const rev = trial.rev + 1;
  const planNow =
    plan === undefined ? trial.row.plan : Plan.parse({ ...plan, products: copies(plan, library) });
  const entries = stamped(trial, typeof say === 'function' ? say(planNow) : (say ?? []), {
    by,
    device,
    happened,
  });
  const lacking = lacksReason(trial.state);
  if (entries.some((e) => lacking(e))) return err({ tag: 'asksReason' });
  const row = {
    ...trial.row,
    plan: planNow,
    review: review === undefined ? trial.row.review : ReviewText.parse(review),
  };
  const key = fittingKey(trial, planNow);
  if (plan !== undefined || review !== undefined) await db.trials.put(row);
  if (key !== null && key !== trial.key) await db.keys.put({ trialId: id, key });
  if (panelKey) await db.panelKeys.put({ trialId: id, sessionId: panelKey.sessionId, key: panelKey });
  if (plan !== undefined && !isUndo) await noteStep(db, id, trial.row.plan, planNow);
  const head = { id, rev, planRev: plan === undefined ? trial.planRev : rev };
  await Promise.all([addLines(db, id, rev, entries), db.heads.put(head), noteSeals(db, id, entries)]);
  const state =
    plan === undefined ? extend(trial.folded, entries) : deriveState(planNow, [...trial.log, ...entries]);
  if (bulk) await keepBulk(db, state, bulk);
  return ok({ trial: { ...trial, row, state, key, rev, planRev: head.planRev }, entries });
}

/** Lines, plan, key, pictures and readings of another copy; what brings nothing new is no change. */
async function takeForeign(
  db: BenchDb,
  trial: LoadedTrial,
  review: ReviewText | undefined,
  { lines, against = [], plan, key = null, bulk, panels = [] }: Foreign,
): Promise<Result<Changed, ChangeError>> {
  const { id } = trial.row;
  const rev = trial.rev + 1;
  const row: TrialRow = { ...trial.row, ...plan, ...(review && { review: ReviewText.parse(review) }) };
  const state = plan ? deriveState(row.plan, [...trial.log, ...lines]) : extend(trial.folded, lines);
  await addLines(db, id, rev, lines);
  await noteSeals(db, id, lines);
  await settleTaken(db, id, lines);
  if (plan || review) await db.trials.put(row);
  if (key) await db.keys.put({ trialId: id, key });
  const fresh = await keepAgainst(db, id, against);
  await keepPanelKeys(db, id, panels);
  if (bulk) await keepBulk(db, state, bulk);
  // Devices would answer each other for ever.
  const isNew = lines.length > 0 || fresh.length > 0 || plan !== undefined || key !== null;
  const head = isNew ? { id, rev, planRev: plan || key ? rev : trial.planRev } : null;
  if (head) await db.heads.put(head);
  const now = {
    ...trial,
    row,
    key: key ?? trial.key,
    rev: head?.rev ?? trial.rev,
    planRev: head?.planRev ?? trial.planRev,
  };
  return ok({ trial: { ...now, state }, entries: [...lines], against: fresh });
}

/** Keeps keys of panels that aren't here yet: a key that is here is never put over. */
export async function keepPanelKeys(
  db: BenchDb,
  trialId: string,
  panels: readonly PanelKey[],
): Promise<void> {
  for (const key of panels) {
    const { sessionId } = key;
    if (!(await db.panelKeys.get([trialId, sessionId]))) await db.panelKeys.put({ trialId, sessionId, key });
  }
}

/** What waited for a word and has come by right since waits no more. */
async function settleTaken(db: BenchDb, trialId: string, lines: readonly Entry[]): Promise<void> {
  const came = new Map<string, Entry>(lines.map((e) => [e.id, e]));
  if (came.size === 0) return;
  for (const row of await db.conflicts.where('trialId').equals(trialId).toArray()) {
    const line = came.get(row.id);
    if (row.settled === null && line && sha256Of(line) === row.sha256)
      await db.conflicts.update([trialId, row.id, row.sha256], { settled: 'taken' });
  }
}

/** Keeps lines beside the log, once each. @returns those that are new */
async function keepAgainst(db: BenchDb, trialId: string, lines: readonly Against[]): Promise<Against[]> {
  const fresh: Against[] = [];
  for (const line of lines) {
    const { other } = line;
    const sha256 = sha256Of(other);
    if (await db.conflicts.get([trialId, other.id, sha256])) continue;
    await db.conflicts.add({ trialId, id: other.id, sha256, ...line, settled: null });
    fresh.push(line);
  }
  return fresh;
}

/** Lines with their stamps: each later than all the trial knows, whatever the clock on the wall says. */
function stamped(
  trial: LoadedTrial,
  say: readonly Saying[],
  { by, device, happened }: { by: string; device: string; happened: Change['happened'] },
): Entry[] {
  const now = new Date();
  const last = trial.log[trial.log.length - 1]?.counter ?? 0;
  return say.map((body, i) => {
    const moment = happened && 'offsetMin' in happened ? happened : happened?.[i];
    return lineOf(body, {
      id: newId<EntryId>(),
      at: moment?.at ?? now.toISOString(),
      recordedAt: now.toISOString(),
      offsetMin: moment?.offsetMin ?? -now.getTimezoneOffset(),
      by,
      device,
      counter: last + 1 + i,
    });
  });
}

/** Copies of the library's products that a plan's treatments use, as they stand now. */
function copies(plan: Plan, library: readonly Product[]): Plan['products'] {
  const used = new Set(plan.treatments.flatMap((t) => t.products.map((p) => p.productId)));
  const known = new Set(library.map((p) => p.id));
  const sorted = [...library].sort((a, b) => a.name.localeCompare(b.name));
  return [...sorted, ...plan.products.filter((p) => !known.has(p.id))].filter((p) => used.has(p.id));
}

/** A blind plan always has a key that fits; it is dealt by chance nobody can repeat. */
function fittingKey({ key }: LoadedTrial, plan: Plan) {
  if (plan.blinding === 'open' || (key && keyFits(key, plan))) return key;
  return dealCodes(
    plan.treatments.map((t) => t.id),
    randomSeed(),
  );
}

async function noteStep(db: BenchDb, trialId: string, before: Plan, after: Plan): Promise<void> {
  const tab = tabId();
  await db.steps.add({ trialId, tab, before, after });
  const own = await db.steps.where('[trialId+tab]').equals([trialId, tab]).primaryKeys();
  if (own.length > MOST_STEPS) await db.steps.bulkDelete(own.slice(0, own.length - MOST_STEPS));
}
