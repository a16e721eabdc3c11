import { unionOfLogs } from '~core/log/union';
import type { Trial } from '~core/log/trial';
import { sayBrokenSeal, verifySeal } from '~core/log/verifySeal';
import { deriveState } from '~core/log/state';
import type { Plan } from '~core/model/plan';
import type { TrialId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { type Result, err, ok } from '~core/model/result';
import { planSha256, sha256Of } from '~core/plan/seal';
import { bench } from './bench';
import { createTrial } from './trials';
import { current } from './trialMemory';

export type MergeOutcome = { tag: 'added' } | { tag: 'merged'; newEntries: number; conflicts: number };

export interface TakenIn {
  outcome: MergeOutcome;
  /** the seal doesn't stand for the plan in the file, in words; null when it does */
  brokenSeal: string | null;
}

/** Whether lines of one copy are about the other's units; a scorer's copy has the same ones under codes. */
function samePlan(here: Plan, there: Plan): boolean {
  if (!here.namesLeftOut && !there.namesLeftOut) return planSha256(here) === planSha256(there);
  const shape = (p: Plan) => sha256Of([p.units, p.traits, p.rounds]);
  return shape(here) === shape(there);
}

/** Whether a file's seal stands for its plan. */
export const sealOfFile = (trial: Trial): string | null =>
  sayBrokenSeal(verifySeal(trial.plan, deriveState(trial.plan, trial.log).seal, trial.sealedAs));

/**
 * Takes in an exported trial: a new one is added; of one that is here already the logs are united. A line that is
 * here already keeps what it says; where the file says something else that is kept beside it and shown.
 * Refused where both copies exist with different plans: nothing of either is lost.
 *
 * @param base SHA-256 of the plan both copies had last: where this one still has it, the other's plan is newer
 */
export async function takeIn(
  trial: Trial,
  base: string | null = null,
): Promise<Result<TakenIn, { tag: 'differentPlan' }>> {
  const db = await bench();
  const brokenSeal = sealOfFile(trial);
  const { id } = trial.plan;
  return db.transaction('rw', db.ofTrials, async () => {
    const here = await current(db, id);
    if (!here) {
      await createTrial(trial.plan, trial.review, trial.log, trial.key, trial);
      await keepConflicts(
        id,
        trial.conflicts.map((c) => c.other),
      );
      return ok({ outcome: { tag: 'added' as const }, brokenSeal });
    }
    const { added, conflicts } = unionOfLogs(here.log, trial.log);
    const follows = !here.state.seal && base !== null && planSha256(here.row.plan) === base;
    // The other side has only not heard of our newer plan; a seal it brings would stand for the old one.
    const behind = base !== null && planSha256(trial.plan) === base && !added.some((e) => e.kind === 'seal');
    if (!samePlan(here.row.plan, trial.plan) && !follows && !behind)
      return err({ tag: 'differentPlan' as const });
    // A scorer's copy gets its names when the whole trial comes; a plan that was only behind catches up.
    const renewed =
      (here.row.plan.namesLeftOut && !trial.plan.namesLeftOut) ||
      (follows && !behind && planSha256(here.row.plan) !== planSha256(trial.plan));
    const rev = here.rev + 1;
    await db.entries.bulkAdd(added.map((entry) => ({ trialId: id, id: entry.id, rev, entry })));
    if (renewed) {
      const review = here.row.plan.namesLeftOut ? trial.review : here.row.review;
      await db.trials.put({ ...here.row, plan: trial.plan, review, sealedAs: trial.sealedAs });
      if (trial.key) await db.keys.put({ trialId: id, key: trial.key });
    }
    await db.clashes.delete(id);
    const fresh = await keepConflicts(id, [
      ...conflicts.map((c) => c.other),
      ...trial.conflicts.map((c) => c.other),
    ]);
    const brings = here.key === null && trial.key !== null && !trial.plan.namesLeftOut;
    if (brings) await db.keys.put({ trialId: id, key: trial.key! });
    // What brings nothing new is no change: devices would answer each other for ever.
    if (added.length > 0 || fresh > 0 || brings || renewed)
      await db.heads.put({ id, rev, planRev: brings || renewed ? rev : here.planRev });
    return ok({
      outcome: { tag: 'merged' as const, newEntries: added.length, conflicts: fresh },
      brokenSeal,
    });
  });
}

/** Keeps lines that contradict a line here, once each. @returns how many are new */
async function keepConflicts(trialId: string, others: readonly Trial['log'][number][]): Promise<number> {
  const db = await bench();
  let fresh = 0;
  for (const other of others) {
    const sha256 = sha256Of(other);
    if (await db.conflicts.get([trialId, other.id, sha256])) continue;
    await db.conflicts.add({ trialId, id: other.id, sha256, other, settled: null });
    fresh += 1;
  }
  return fresh;
}

/** Adds an exported trial as a second one beside the one that is here. */
export async function takeInAsCopy(trial: Trial): Promise<string> {
  const id = newId<TrialId>();
  await createTrial(
    { ...trial.plan, id, question: `${trial.plan.question} (copy)`.slice(0, 200) },
    trial.review,
    trial.log,
    trial.key,
    // A copy is another plan: what was sealed is the one it was copied from.
    { sealedAs: trial.sealedAs },
  );
  return id;
}
