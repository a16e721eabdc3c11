import { unionOfLogs } from '~core/log/union';
import type { Trial } from '~core/log/trial';
import { sayBrokenSeal, verifySeal } from '~core/log/verifySeal';
import { type TrialState, deriveState, standingAside } from '~core/log/state';
import type { Plan } from '~core/model/plan';
import type { TrialId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import type { PanelKey } from '~core/model/panel';
import { type Result, err, ok } from '~core/model/result';
import { canonicalJson, planSha256, sha256Of } from '~core/plan/seal';
import { type Bringer, asked } from '~core/log/rights';
import { holdsRight } from '~core/model/right';
import { ofItsTrial } from '~core/formats/scorersCopy';
import { type Bulk, noBulk } from '~core/formats/bulkFiles';
import type { Entry } from '~core/log/entry';
import { keepBulk } from './bulk';
import { type Against, alone, keepPanelKeys, writeForeign } from './change';
import { sayOtherSeal } from './seals';
import { addTrial } from './trials';
import { current, forget } from './trialMemory';

type MergeOutcome = { tag: 'added' } | { tag: 'merged'; newEntries: number; conflicts: number };

export interface TakenIn {
  outcome: MergeOutcome;
  /** the seal doesn't stand for the plan in the file, in words; null when it does */
  brokenSeal: string | null;
  /** lines that came and aren't followed, why in words */
  notFollowed: string[];
  /** lines that wait for a word in the log, why in words */
  waiting: string[];
}

/** What comes with a copy of a trial, and by what right. */
interface TakeInOptions {
  /** SHA-256 of the plan both copies had last: where this one still has it, the other's plan is newer */
  base?: string | null;
  /** pictures and readings that come with it: taken with its lines, or not at all */
  bulk?: Bulk;
  /** keys of its panels, from a backup that has them */
  panels?: readonly PanelKey[];
  by: Bringer;
  /** who brought it, in words */
  from: string;
}

/** A file may be anybody's: what it would seal or open waits for a word. */
export const aFile = { by: { right: 'plan', device: null }, from: 'a file' } as const satisfies TakeInOptions;

/** Whether lines of one copy are about the other's units; a scorer's copy has the same ones under codes. */
function samePlan(here: Plan, there: Plan): boolean {
  if (!here.namesLeftOut && !there.namesLeftOut) return planSha256(here) === planSha256(there);
  const shape = (p: Plan) => sha256Of([p.units, p.traits, p.rounds]);
  return shape(here) === shape(there);
}

/** Whether a file's seal stands for its plan. */
export const sealOfFile = (
  { plan, log, sealedAs }: Trial,
  { seal }: Pick<TrialState, 'seal'> = deriveState(plan, log),
): string | null => sayBrokenSeal(verifySeal(plan, seal, sealedAs));

/** Counters of lines count lines: one that claims many more than there are would make all later lines ties. */
const MOST_AHEAD = 1_000_000;

/** Why a copy's lines can't stand beside ours, at the first of them; null where they can. */
function unsound(log: readonly Entry[], here: number): string | null {
  const most = here + log.length + MOST_AHEAD;
  const at = log.findIndex((e) => e.counter > most);
  return at < 0
    ? null
    : `line ${at + 1} of its log says it was written after ${log[at]!.counter} others, and there are ${log.length}. The file is damaged or was altered.`;
}

/** @property seal what this bench knows against the copy's seal, in words */
type TakeInError =
  | { tag: 'differentPlan'; seal: string | null }
  | { tag: 'unasked' }
  | { tag: 'unsound'; why: string };

/**
 * Takes in an exported trial: a new one is added; of one that is here already the logs are united. A line that is
 * here already keeps what it says; where the file says something else that is kept beside it and shown.
 * Refused where both copies exist with different plans, and where whoever brings a trial that isn't here may not plan:
 * nothing of either is lost.
 */
export async function takeIn(
  given: Trial,
  { base = null, bulk = noBulk, panels = [], by, from }: TakeInOptions,
): Promise<Result<TakenIn, TakeInError>> {
  const { id } = given.plan;
  const state = deriveState(given.plan, given.log);
  const sealed = state.seal?.planSha256 ?? null;
  const takenIn = await alone(id, 'ofTrials', async (db): Promise<Result<TakenIn, TakeInError>> => {
    const here = await current(db, id);
    const isCopy = given.plan.namesLeftOut === true && here !== null && here.row.plan.namesLeftOut !== true;
    const trial = isCopy ? ofItsTrial(given, here.row.plan, here.key) : given;
    const otherSeal = trial.plan.namesLeftOut
      ? null
      : await sayOtherSeal(db, id, sealed, here?.state.seal ?? null);
    const brokenSeal =
      [sealOfFile(trial, isCopy ? undefined : state), otherSeal].filter(Boolean).join(' ') || null;
    const why = unsound(trial.log, here?.log.at(-1)?.counter ?? 0);
    if (why !== null) return err({ tag: 'unsound', why });
    // What lay beside its log: of a line that is here it says something else, or nothing; one that isn't waits here too.
    const known = new Map<string, Entry>([...trial.log, ...(here?.log ?? [])].map((e) => [e.id, e]));
    const against = trial.conflicts.flatMap(({ other }): Against[] => {
      const own = known.get(other.id);
      if (!own) return [{ other, why: 'It waited for a word where it came from too.', from }];
      return canonicalJson(own) === canonicalJson(other) ? [] : [{ other }];
    });
    const mayPlan = holdsRight(by.right, 'plan');
    if (!here) {
      if (!mayPlan) return err({ tag: 'unasked' });
      await addTrial(db, trial);
      const brings = against.length + panels.length + bulk.photos.length + bulk.series.length > 0;
      if (brings) {
        const added = await current(db, id);
        await writeForeign(db, added!, { foreign: { lines: [], against, bulk, panels } });
      }
      const waiting = against.flatMap((l) => l.why ?? []);
      const notFollowed = standingAside(state).map((x) => x.why);
      return ok({ outcome: { tag: 'added' }, brokenSeal, notFollowed, waiting });
    }
    const { added: came, conflicts } = unionOfLogs(here.log, trial.log);
    // Whoever scores under codes doesn't open them, seal or tell the cups, whatever else they may.
    const right = isCopy && by.right === 'all' ? 'plan' : by.right;
    const { taken: added, unasked } = asked(came, here.state, { ...by, right }, new Date());
    const follows = mayPlan && !here.state.seal && base !== null && planSha256(here.row.plan) === base;
    // The other side has only not heard of our newer plan; a seal it brings would stand for the old one.
    const behind = base !== null && planSha256(given.plan) === base && !added.some((e) => e.kind === 'seal');
    if (!samePlan(here.row.plan, trial.plan) && !follows && !behind)
      return err({ tag: 'differentPlan', seal: otherSeal });
    // A scorer's copy gets its names when the whole trial comes; a plan that was only behind catches up.
    const named = mayPlan && here.row.plan.namesLeftOut === true && !trial.plan.namesLeftOut;
    const renewed = named || (follows && !behind && planSha256(here.row.plan) !== planSha256(trial.plan));
    const brings = mayPlan && (renewed || here.key === null) && !trial.plan.namesLeftOut ? trial.key : null;
    await db.clashes.delete(id);
    const written = await writeForeign(db, here, {
      ...(named && { review: trial.review }),
      foreign: {
        ...{ lines: added, key: brings },
        against: [
          ...conflicts.map(({ other }) => ({ other })),
          ...against,
          ...unasked.map(({ line, why }) => ({ other: line, why, from })),
        ],
        ...{ bulk, panels },
        ...(renewed && { plan: { plan: trial.plan, sealedAs: trial.sealedAs } }),
      },
    });
    const beside = written.ok ? (written.value.against ?? []) : [];
    const addedIds = new Set<string>(added.map((e) => e.id));
    const aside = written.ok ? standingAside(written.value.trial.state) : [];
    const waiting = beside.flatMap((l) => l.why ?? []);
    return ok({
      outcome: { tag: 'merged', newEntries: added.length, conflicts: beside.length - waiting.length },
      ...{ brokenSeal, waiting },
      notFollowed: aside.filter((x) => addedIds.has(x.line.id)).map((x) => x.why),
    });
  });
  // What was here is still known as it was: screens see by that that something came.
  if (!takenIn.ok || takenIn.value.outcome.tag === 'added') forget(id);
  return takenIn;
}

/** Adds an exported trial as a second one beside the one that is here. */
export async function takeInAsCopy(
  trial: Trial,
  bulk: Bulk = noBulk,
  panels: readonly PanelKey[] = [],
): Promise<string> {
  const id = newId<TrialId>();
  const plan = { ...trial.plan, id, question: `${trial.plan.question} (copy)`.slice(0, 200) };
  await alone(id, 'ofTrials', async (db) => {
    // A copy is another plan: what was sealed is the one it was copied from.
    await addTrial(db, { ...trial, plan });
    await keepBulk(db, deriveState(plan, trial.log), bulk);
    await keepPanelKeys(db, id, panels);
  });
  return id;
}
