import { unionOfLogs } from '~core/log/union';
import type { Trial } from '~core/log/trial';
import { planSha256 } from '~core/plan/seal';
import { type Difference, planDifferences } from '~core/plan/planDifferences';
import { type Result, err, ok } from '~core/model/result';
import { bench } from './bench';
import { tabId } from './tab';
import { asked } from '~core/log/rights';
import { alone, writeForeign } from './change';
import { aFile } from './takeIn';
import { addTrial } from './trials';
import { current } from './trialMemory';

/** Two plans of one trial, side by side. */
export interface Clash {
  trialId: string;
  question: string;
  from: string;
  at: string;
  differences: Difference[];
  /** false: the trial isn't on this bench; whoever has it may not bring one unasked */
  isHere: boolean;
  /** the plan here is sealed: it can't be given up for another */
  sealedHere: boolean;
  /** the other one is */
  sealedThere: boolean;
}

/** Keeps another plan of a trial beside ours; a later one of the same trial takes its place. */
export async function keepClash(theirs: Trial, from: string): Promise<void> {
  await (await bench()).clashes.put({ trialId: theirs.plan.id, theirs, from, at: new Date().toISOString() });
}

/** What waits for a choice. */
export async function listClashes(): Promise<Clash[]> {
  const db = await bench();
  const rows = await db.clashes.toArray();
  return Promise.all(
    rows.map(async ({ trialId, theirs, from, at }): Promise<Clash> => {
      const here = await current(db, trialId);
      if (!here) {
        const none = { differences: [], sealedHere: false, isHere: false };
        const sealedThere = theirs.log.some((e) => e.kind === 'seal');
        return { trialId, from, at, question: theirs.plan.question, ...none, sealedThere };
      }
      return {
        ...{ trialId, from, at, isHere: true },
        question: here.row.plan.question,
        differences: planDifferences(here.row.plan, theirs.plan),
        sealedHere: here.state.seal !== null,
        sealedThere: theirs.log.some((e) => e.kind === 'seal'),
      };
    }),
  );
}

const OVERRULED = 'overruled/';

/** Plans of a trial that were decided against here, by their hash. */
export async function overruled(trialId: string): Promise<string[]> {
  const row = await (await bench()).settings.get(`${OVERRULED}${trialId}`);
  return row ? row.value.split(' ') : [];
}

/**
 * One of two plans is chosen. Taking theirs unites the logs; the plan that was here can be brought back by Undo.
 * Keeping ours leaves their lines where they are, and tells the other device so when it next hears of the trial.
 */
export async function settleClash(
  trialId: string,
  chosen: 'mine' | 'theirs',
): Promise<Result<null, { tag: 'gone' } | { tag: 'sealed' }>> {
  return alone(trialId, 'ofTrials', async (db) => {
    const [row, here] = await Promise.all([db.clashes.get(trialId), current(db, trialId)]);
    if (!row) return err({ tag: 'gone' as const });
    if (!here) {
      // A trial that isn't on this bench, from a device that may not bring one unasked.
      await db.clashes.delete(trialId);
      if (chosen === 'theirs') await addTrial(db, row.theirs);
      return ok(null);
    }
    if (chosen === 'mine') {
      const key = `${OVERRULED}${trialId}`;
      const before = (await db.settings.get(key))?.value.split(' ') ?? [];
      const all = new Set([...before, planSha256(row.theirs.plan)]);
      await db.settings.put({ key, value: [...all].slice(-50).join(' ') });
      await db.heads.put({ id: trialId, rev: here.rev + 1, planRev: here.planRev });
    } else {
      if (here.state.seal) return err({ tag: 'sealed' as const });
      const { theirs } = row;
      const { added: came, conflicts } = unionOfLogs(here.log, theirs.log);
      // Taking a sealed plan takes its seal; codes and cups that were opened there wait for a word of their own.
      const { unasked } = asked(came, here.state, aFile.by, new Date());
      const waiting = unasked.filter(({ line }) => line.kind !== 'seal');
      const added = came.filter((e) => !waiting.some((w) => w.line === e));
      await db.steps.add({ trialId, tab: tabId(), before: here.row.plan, after: theirs.plan });
      await writeForeign(db, here, {
        foreign: {
          ...{ lines: added, key: theirs.key },
          against: [
            ...conflicts.map(({ other }) => ({ other })),
            ...waiting.map(({ line, why }) => ({ other: line, why, from: row.from })),
          ],
          plan: { plan: theirs.plan, sealedAs: theirs.sealedAs },
        },
      });
    }
    await db.clashes.delete(trialId);
    return ok(null);
  });
}
