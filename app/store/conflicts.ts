import type { Entry } from '~core/log/entry';
import { ok } from '~core/model/result';
import { bench } from './bench';
import { alone, change, writeForeign } from './change';
import { current } from './trialMemory';
import type { ConflictRow } from './db';

/** Lines of other copies that contradict a line of a trial and aren't decided yet. */
export async function openConflicts(trialId: string): Promise<ConflictRow[]> {
  const rows = await (await bench()).conflicts.where('trialId').equals(trialId).toArray();
  return rows.filter((r) => r.settled === null);
}

/** Whether what a line says, without who wrote it when, can stand in another's place. */
const bodyOf = (line: Entry) => (line.kind === 'correction' ? line.replacement : line);

/** Whether a line waits because whoever brought it may not bring it unasked: nothing of its id is here. */
export const isWaiting = (row: Pick<ConflictRow, 'id'>, log: readonly Entry[]): boolean =>
  !log.some((e) => e.id === row.id);

/** How many lines that somebody brought wait for a word. */
export const waitingFrom = async (trialId: string, from: string): Promise<number> =>
  (await openConflicts(trialId)).filter((r) => r.why !== undefined && r.from === from).length;

/**
 * Decides about a line that is kept beside the log: between a line and another copy of it, or whether one that came unasked is
 * taken. Taking the other's word is a correction like any other: the line
 * itself stays as it is.
 */
export async function settleConflict(
  trialId: string,
  lineId: string,
  sha256: string,
  as: 'kept' | 'taken',
): Promise<void> {
  const db = await bench();
  const row = await db.conflicts.get([trialId, lineId, sha256]);
  if (!row || row.settled !== null) return;
  if (as === 'taken') {
    const waited = await alone(trialId, 'ofTrials', async (db) => {
      const here = await current(db, trialId);
      if (!here || !isWaiting(row, here.log)) return false;
      await writeForeign(db, here, { foreign: { lines: [row.other] } });
      return true;
    });
    if (waited) return;
    const body = bodyOf(row.other);
    const stamp = ['id', 'at', 'recordedAt', 'offsetMin', 'by', 'device', 'counter'];
    const replacement = body
      ? Object.fromEntries(Object.entries(body).filter(([k]) => !stamp.includes(k)))
      : null;
    const done = await change<never>(trialId, ({ trial }) => {
      const standing = trial.state.entries.find((e) => e.id === lineId);
      return ok({
        entries: [
          {
            kind: 'correction',
            supersedes: standing?.standsFrom ?? row.other.id,
            replacement: replacement as never,
            reason: 'as the other copy has it',
          },
        ],
      });
    });
    if (!done.ok) return;
  }
  await alone(trialId, 'ofTrials', async () => {
    await db.conflicts.update([trialId, lineId, sha256], { settled: as });
    // Whoever brought a line that waited hears that it waits no more.
    const head = await db.heads.get(trialId);
    if (row.why !== undefined && head) await db.heads.put({ ...head, rev: head.rev + 1 });
  });
}
