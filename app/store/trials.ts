import { unionOfLogs } from '~core/log/resolve';
import { type TrialState, deriveState } from '~core/log/state';
import type { CorrectionBody, Entry, EntryBody } from '~core/model/entry';
import { type EntryId, type TrialId, newId } from '~core/model/ids';
import { Plan } from '~core/model/plan';
import { type Result, err, ok } from '~core/model/result';
import { planSha256 } from '~core/model/seal';
import { dealCodes, keyFits, maskedPlan } from '~core/design/blinding';
import { type BlindKey, ReviewText, type Trial, emptyReview } from '~core/model/trial';
import { bench, benchName, recorder } from './bench';
import type { TrialRow } from './db';
import { listProducts } from './products';

export interface LoadedTrial {
  row: TrialRow;
  log: Entry[];
  state: TrialState;
  key: BlindKey | null;
  /** names are hidden: the trial is blind and its codes aren't opened */
  blind: boolean;
  /** the state as screens show it: under codes while the trial is blind */
  shown: TrialState;
}

/** Trials read once are kept, so that a keystroke doesn't read the whole log again. */
const cache = new Map<string, LoadedTrial>();
const undo = new Map<string, Plan[]>();

/** Tells other tabs of the same bench that a trial changed. */
const channel = new BroadcastChannel('palazzo-trials');
channel.onmessage = () => {
  cache.clear();
  window.dispatchEvent(new Event('palazzo-changed'));
};

const key = (id: string) => `${benchName()}/${id}`;

function remember(row: TrialRow, log: Entry[], key_: BlindKey | null): LoadedTrial {
  const state = deriveState(row.plan, log);
  const blind = row.plan.blinding !== 'open' && key_ !== null && state.revealedAt === null;
  const shown = blind ? { ...state, plan: maskedPlan(row.plan, key_) } : state;
  const loaded = { row, log, state, key: key_, blind, shown };
  cache.set(key(row.id), loaded);
  return loaded;
}

function changed(): void {
  channel.postMessage(null);
}

const turns = new Map<string, Promise<unknown>>();

/** Lets changes of one trial happen one after the other, so that none starts from an old log. */
function inTurn<T>(id: string | undefined, change: () => Promise<T>): Promise<T> {
  const before = turns.get(key(id ?? '')) ?? Promise.resolve();
  const mine = before.then(change, change);
  turns.set(key(id ?? ''), mine);
  return mine;
}

/** A trial with its derived state; throws a 404 response when there is none. */
export async function loadTrial(id: string | undefined): Promise<LoadedTrial> {
  const known = id && cache.get(key(id));
  if (known) return known;
  const db = await bench();
  const row = id ? await db.trials.get(id) : undefined;
  if (!row) throw new Response('There is no such trial on this bench.', { status: 404 });
  const entries = await db.entries.where('trialId').equals(row.id).toArray();
  return remember(
    row,
    entries.map((e) => e.entry),
    (await db.keys.get(row.id))?.key ?? null,
  );
}

export async function listTrials(): Promise<LoadedTrial[]> {
  const ids = (await (await bench()).trials.toCollection().primaryKeys()) as string[];
  const trials = await Promise.all(ids.map(loadTrial));
  return trials.sort((a, b) => b.row.plan.startDate.localeCompare(a.row.plan.startDate));
}

/** Copies of the library's products that a plan's treatments use, as they stand now. */
async function productsOf(plan: Plan): Promise<Plan['products']> {
  const used = new Set(plan.treatments.flatMap((t) => t.products.map((p) => p.productId)));
  const library = await listProducts();
  const kept = plan.products.filter((p) => !library.some((l) => l.id === p.id));
  return [...library, ...kept].filter((p) => used.has(p.id));
}

async function putPlan(row: TrialRow, plan: Plan): Promise<LoadedTrial> {
  const db = await bench();
  const next = { ...row, plan: Plan.parse(plan) };
  const known = (await db.keys.get(row.id))?.key ?? null;
  // A blind plan always has a key that fits; it is dealt by chance nobody can repeat.
  const dealt =
    next.plan.blinding === 'open' || (known && keyFits(known, next.plan))
      ? known
      : dealCodes(
          next.plan.treatments.map((t) => t.id),
          crypto.getRandomValues(new Uint32Array(1))[0]!,
        );
  await db.transaction('rw', db.trials, db.keys, async () => {
    await db.trials.put(next);
    if (dealt && dealt !== known) await db.keys.put({ trialId: row.id, key: dealt });
  });
  changed();
  return remember(next, cache.get(key(row.id))?.log ?? [], dealt);
}

/**
 * Saves a changed plan; refused once it is sealed. The plan before is kept for Undo.
 */
export async function savePlan(
  id: string | undefined,
  change: (plan: Plan) => Plan,
): Promise<Result<LoadedTrial, { tag: 'sealed' }>> {
  return inTurn(id, () => changePlan(id, change));
}

async function changePlan(
  id: string | undefined,
  change: (plan: Plan) => Plan,
): Promise<Result<LoadedTrial, { tag: 'sealed' }>> {
  const { row, state } = await loadTrial(id);
  if (state.seal) return err({ tag: 'sealed' });
  const next = change(row.plan);
  undo.set(key(row.id), [...(undo.get(key(row.id)) ?? []), row.plan].slice(-50));
  return ok(await putPlan(row, { ...next, products: await productsOf(next) }));
}

const replaced = new Map<string, number>();

/** Notes that a plan was replaced as a whole, so that open forms begin anew with it. */
export function notePlanReplaced(id: string | undefined): void {
  replaced.set(key(id ?? ''), timesReplaced(id ?? '') + 1);
}

/** How often a plan was replaced as a whole in this tab, by Undo or a protocol. */
export const timesReplaced = (id: string): number => replaced.get(key(id)) ?? 0;

/** How many changes of the plan can be taken back in this tab. */
export const undoDepth = (id: string): number => undo.get(key(id))?.length ?? 0;

/** Takes back the last change of a plan that isn't sealed. */
export async function undoPlan(id: string | undefined): Promise<void> {
  const { row, state } = await loadTrial(id);
  const previous = undo.get(key(row.id))?.pop();
  if (!previous || state.seal) return;
  await putPlan(row, previous);
  notePlanReplaced(row.id);
}

export async function createTrial(
  plan: Plan,
  review: ReviewText = emptyReview,
  log: Entry[] = [],
  blindKey: BlindKey | null = null,
): Promise<void> {
  const db = await bench();
  const row: TrialRow = { id: plan.id, plan: Plan.parse(plan), review, createdAt: new Date().toISOString() };
  await db.transaction('rw', db.trials, db.entries, db.keys, async () => {
    await db.trials.put(row);
    if (blindKey) await db.keys.put({ trialId: row.id, key: blindKey });
    await db.entries.bulkPut(log.map((entry) => ({ trialId: row.id, id: entry.id, entry })));
  });
  cache.delete(key(row.id));
  changed();
}

/** What a log line says, before it gets its id and time. */
export type Saying = EntryBody | CorrectionBody;

/**
 * Appends to the log.
 * @param say the new lines, worked out from the trial as it stands when their turn comes
 */
export function appendEntries(
  id: string | undefined,
  say: readonly Saying[] | ((trial: LoadedTrial) => readonly Saying[]),
): Promise<Entry[]> {
  return inTurn(id, async () => {
    const trial = await loadTrial(id);
    const { row, log, key: blindKey } = trial;
    const now = new Date().toISOString();
    const by = await recorder();
    const bodies = typeof say === 'function' ? say(trial) : say;
    const entries = bodies.map(
      (body) => ({ ...body, id: newId<EntryId>(), at: now, recordedAt: now, by }) as Entry,
    );
    const db = await bench();
    // The transaction's promise waits for the commit; working on before it would hold the commit up.
    await db.transaction('rw', db.entries, () =>
      db.entries.bulkPut(entries.map((entry) => ({ trialId: row.id, id: entry.id, entry }))),
    );
    remember(row, [...log, ...entries], blindKey);
    changed();
    return entries;
  });
}

/** Freezes the plan: its hash and the time go to the log. Prices and claims are copied in first. */
export async function sealPlan(id: string | undefined): Promise<void> {
  const { row, state } = await loadTrial(id);
  if (state.seal) return;
  const plan = { ...row.plan, products: await productsOf(row.plan) };
  const { row: saved } = await putPlan(row, plan);
  await appendEntries(id, [{ kind: 'seal', planSha256: planSha256(saved.plan) }]);
}

export async function saveReview(id: string | undefined, review: ReviewText): Promise<void> {
  const { row, log, key: blindKey } = await loadTrial(id);
  const next = { ...row, review: ReviewText.parse(review) };
  await (await bench()).trials.put(next);
  remember(next, log, blindKey);
  changed();
}

/** Puts a trial with its whole log into the bin. */
export async function deleteTrial(id: string): Promise<void> {
  const db = await bench();
  await db.transaction('rw', db.trials, db.entries, db.bin, db.keys, async () => {
    const trial = await db.trials.get(id);
    if (!trial) return;
    const entries = await db.entries.where('trialId').equals(id).toArray();
    const blindKey = await db.keys.get(id);
    await db.bin.put({
      id,
      kind: 'trial',
      title: trial.plan.question,
      deletedAt: new Date().toISOString(),
      trial,
      entries,
      ...(blindKey && { key: blindKey.key }),
    });
    await db.trials.delete(id);
    await db.keys.delete(id);
    await db.entries.where('trialId').equals(id).delete();
  });
  cache.delete(key(id));
  changed();
}

/** A whole trial as it is exported. */
export async function wholeTrial(id: string | undefined): Promise<Trial> {
  const { row, log, key: blindKey } = await loadTrial(id);
  return { plan: row.plan, log: unionOfLogs(log, []), review: row.review, key: blindKey };
}

export type MergeOutcome = { tag: 'added' } | { tag: 'merged'; newEntries: number };

/**
 * Takes in an exported trial: a new one is added; of one that is here already the logs are united.
 * Refused where both copies exist with different plans: nothing of either is lost.
 */
export async function takeIn(trial: Trial): Promise<Result<MergeOutcome, { tag: 'differentPlan' }>> {
  const db = await bench();
  const here = await db.trials.get(trial.plan.id);
  if (!here) {
    await createTrial(trial.plan, trial.review, trial.log, trial.key);
    return ok({ tag: 'added' });
  }
  if (planSha256(here.plan) !== planSha256(trial.plan)) return err({ tag: 'differentPlan' });
  const { log, key: ownKey } = await loadTrial(here.id);
  const blindKey = ownKey ?? trial.key;
  const union = unionOfLogs(log, trial.log);
  await db.entries.bulkPut(union.map((entry) => ({ trialId: here.id, id: entry.id, entry })));
  if (blindKey) await db.keys.put({ trialId: here.id, key: blindKey });
  remember(here, union, blindKey);
  changed();
  return ok({ tag: 'merged', newEntries: union.length - log.length });
}

/** Adds an exported trial as a second one beside the one that is here. */
export async function takeInAsCopy(trial: Trial): Promise<string> {
  const id = newId<TrialId>();
  await createTrial(
    { ...trial.plan, id, question: `${trial.plan.question} (copy)`.slice(0, 200) },
    trial.review,
    trial.log,
    trial.key,
  );
  return id;
}

/** Drops what is kept of trials in memory, after the database was changed as a whole. */
export function forgetTrials(): void {
  cache.clear();
  undo.clear();
  changed();
}
