import type { Bulk } from '~core/formats/bulkFiles';
import type { Entry } from '~core/log/entry';
import { type BlindKey, type ReviewText, type Trial, emptyReview } from '~core/log/trial';
import { Plan } from '~core/model/plan';
import { type Result, err, ok } from '~core/model/result';
import { planSha256 } from '~core/plan/seal';
import { redirectDocument } from 'react-router';
import { bench, benchHolding, chooseBench } from './bench';
import type { BenchDb } from './db';
import {
  type Change,
  type Changed,
  alone,
  type Deciding,
  type Saying,
  change,
  type Happened,
} from './change';
import type { ChangeError } from './errors';
import { addLines, dropLines, rowsOf } from './lines';
import { noteSeals } from './seals';
import { type LoadedTrial, current, forget } from './trialMemory';

export type { LoadedTrial } from './trialMemory';
export type { Saying } from './change';

/**
 * A trial with its derived state, as the database has it. Throws a redirect where the other bench holds it: a link
 * finds its bench; else a 404 response.
 */
export async function loadTrial(id: string | undefined): Promise<LoadedTrial> {
  const trial = id ? await tryTrial(id) : null;
  if (trial) return trial;
  const elsewhere = id ? await benchHolding(id) : null;
  if (elsewhere) {
    chooseBench(elsewhere);
    const { pathname, search } = window.location;
    throw redirectDocument(`${pathname}${search}`);
  }
  throw new Response(
    'There is no such trial in this browser at this address. Another port or host name has benches of its own.',
    { status: 404 },
  );
}

const byStart = (a: Plan, b: Plan): number => b.startDate.localeCompare(a.startDate);

/** Plans of all trials with their own names, blind ones too, without their logs; the latest start first. */
export const listPlans = async (): Promise<Plan[]> =>
  (await (await bench()).trials.toArray()).map((row) => row.plan).sort(byStart);

/** A trial of this bench; null when it isn't there (any more). */
export async function tryTrial(id: string): Promise<LoadedTrial | null> {
  const db = await bench();
  return db.transaction('r', [db.heads, db.trials, db.entries, db.keys], () => current(db, id));
}

/** All trials of the bench with their logs, the latest start first. */
export async function listTrials(): Promise<LoadedTrial[]> {
  const db = await bench();
  const trials = await db.transaction('r', [db.heads, db.trials, db.entries, db.keys], async () => {
    const ids = await db.heads.toCollection().primaryKeys();
    const loaded: (LoadedTrial | null)[] = [];
    for (const id of ids) loaded.push(await current(db, id));
    return loaded;
  });
  return trials.filter((t) => t !== null).sort((a, b) => byStart(a.row.plan, b.row.plan));
}

interface SavePlanOptions {
  /** revision of the plan that the change was worked out from outside; refused when it moved on since */
  seenPlanRev?: number;
  isUndo?: boolean;
}

/**
 * Saves a changed plan; refused once it is sealed.
 * @param to the plan as it should be, worked out from the one in the database; an error refuses the change
 */
export const savePlan = <E = never>(
  id: string | undefined,
  to: (plan: Plan, at: Deciding) => Plan | Result<Plan, E>,
  { seenPlanRev, isUndo = false }: SavePlanOptions = {},
): Promise<Result<Changed, E | ChangeError>> =>
  change<E | ChangeError>(id, (at) => {
    const { trial } = at;
    if (trial.state.seal) return err({ tag: 'sealed' });
    if (seenPlanRev !== undefined && seenPlanRev !== trial.planRev) return err({ tag: 'changed' });
    const made = to(trial.row.plan, at);
    if (!('ok' in made)) return ok({ plan: made, isUndo });
    return made.ok ? ok({ plan: made.value, isUndo }) : made;
  });

/**
 * Appends to the log.
 * @param say the new lines, worked out from the trial as the database has it
 * @param happened when it was, where it wasn't just now; the time of writing is kept beside
 * @param bulk pictures and readings that the lines name: kept with them, or not at all
 */
export async function appendEntries<E = never>(
  id: string | undefined,
  say: readonly Saying[] | ((trial: LoadedTrial) => readonly Saying[] | Result<readonly Saying[], E>),
  happened?: Happened,
  bulk?: Bulk,
): Promise<Result<Entry[], E | ChangeError>> {
  const decide = ({ trial }: Deciding): Result<Change, E> => {
    const sayings = typeof say === 'function' ? say(trial) : say;
    if (!('ok' in sayings)) return ok({ entries: sayings, happened, bulk });
    return sayings.ok ? ok({ entries: sayings.value, happened, bulk }) : sayings;
  };
  const changed = await change<E>(id, decide, bulk ? 'ofTrials' : 'ofChanges');
  return changed.ok ? ok(changed.value.entries) : changed;
}

/**
 * Freezes the plan: its hash and the time go to the log, in the transaction that reads the plan.
 * @param seenPlanRev the plan as it was looked at; refused when it moved on since
 */
export const sealPlan = (
  id: string | undefined,
  seenPlanRev?: number,
): Promise<Result<Changed, ChangeError>> =>
  change<ChangeError>(id, ({ trial }) => {
    if (trial.state.seal) return err({ tag: 'sealed' });
    if (seenPlanRev !== undefined && seenPlanRev !== trial.planRev) return err({ tag: 'changed' });
    // Prices and claims are copied in as the plan is saved: what is hashed is what stays.
    return ok({
      plan: trial.row.plan,
      isUndo: true,
      entries: (saved) => [{ kind: 'seal', planSha256: planSha256(saved) }],
    });
  });

/** Saves what the reviewer writes around the figures. @param to what stands there, changed */
export const saveReview = (
  id: string | undefined,
  to: (review: ReviewText) => ReviewText,
): Promise<Result<Changed, ChangeError>> =>
  change<never>(id, ({ trial }) => ok({ review: to(trial.row.review) }));

/** The last revision of a trial that was deleted. */
const lastRevKey = (id: string) => `rev/${id}`;

/**
 * The revision a trial begins with: later than those of one that had its name before and was deleted, so that nothing that
 * is remembered of that one, in whichever tab, is taken for this one's.
 */
async function firstRev(db: BenchDb, id: string): Promise<number> {
  const before = await db.settings.get(lastRevKey(id));
  return 1 + Number(before?.value ?? 0);
}

/** Puts a trial on the bench, inside a transaction; one that is there already is not touched: it throws. */
export async function addTrial(
  db: BenchDb,
  { plan, review, log, key, sealedAs }: Pick<Trial, 'plan' | 'review' | 'log' | 'key' | 'sealedAs'>,
): Promise<void> {
  const { id } = plan;
  await db.trials.add({ id, plan: Plan.parse(plan), review, createdAt: new Date().toISOString(), sealedAs });
  const rev = await firstRev(db, id);
  await db.heads.put({ id, rev, planRev: rev });
  if (key) await db.keys.put({ trialId: id, key });
  await addLines(db, id, rev, log);
  await noteSeals(db, id, log);
}

/** Puts a new trial on the bench. */
export async function createTrial(
  plan: Plan,
  review: ReviewText = emptyReview,
  log: readonly Entry[] = [],
  key: BlindKey | null = null,
): Promise<void> {
  await alone(plan.id, 'ofTrials', (db) =>
    addTrial(db, { plan, review, log: [...log], key, sealedAs: null }),
  );
  forget(plan.id);
}

/** Puts a trial with its whole log into the bin. */
export async function deleteTrial(id: string): Promise<void> {
  await alone(id, 'ofTrials', async (db) => {
    const trial = await db.trials.get(id);
    if (!trial) return;
    const lines = await dropLines(db, id);
    const conflicts = await db.conflicts.where('trialId').equals(id).toArray();
    const blindKey = await db.keys.get(id);
    await db.bin.put({
      id,
      kind: 'trial',
      title: trial.plan.question,
      deletedAt: new Date().toISOString(),
      trial,
      entries: rowsOf(id, 1, lines),
      conflicts,
      ...(blindKey && { key: blindKey.key }),
    });
    const head = await db.heads.get(id);
    if (head) await db.settings.put({ key: lastRevKey(id), value: String(head.rev) });
    await db.trials.delete(id);
    await db.heads.delete(id);
    await db.keys.delete(id);
    await db.settled.delete(id);
    for (const table of [db.conflicts, db.steps]) {
      await table.where('trialId').equals(id).delete();
    }
  });
  forget(id);
}

/** A whole trial as it is exported. */
export async function wholeTrial(id: string | undefined): Promise<Trial> {
  const { row, log, key } = await loadTrial(id);
  const open = await (await bench()).conflicts.where('trialId').equals(row.id).toArray();
  return {
    plan: row.plan,
    log: [...log],
    review: row.review,
    key,
    sealedAs: row.sealedAs,
    conflicts: open.filter((c) => c.settled === null).map((c) => ({ id: c.other.id, other: c.other })),
  };
}
