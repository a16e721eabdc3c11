import { type Shown, shownOf } from '~core/account/shown';
import type { Entry } from '~core/log/entry';
import { type TrialState, deriveState, extend } from '~core/log/state';
import type { BlindKey } from '~core/log/trial';
import { benchName } from './bench';
import type { BenchDb, TrialRow } from './db';
import { allLines, linesSince } from './lines';

export interface LoadedTrial extends Shown {
  row: TrialRow;
  log: readonly Entry[];
  /** plan and log folded, which more lines are added to */
  folded: TrialState;
  key: BlindKey | null;
  /** counts every change of the trial, and those of its plan */
  rev: number;
  planRev: number;
}

/**
 * Trials as they were last read, so that a keystroke doesn't read the whole log again. Never trusted by itself:
 * `current` compares its revision with the database's, in the same transaction, and reads what is new.
 */
const memory = new Map<string, LoadedTrial>();
const keyOf = (id: string) => `${benchName()}/${id}`;

/** The revision of a trial that this tab knows. */
export const knownRev = (id: string): number | undefined => memory.get(keyOf(id))?.rev;

/** Puts together what screens need of a trial. */
const loaded = (
  row: TrialRow,
  folded: TrialState,
  key: BlindKey | null,
  at: { rev: number; planRev: number },
): LoadedTrial => ({
  ...shownOf(folded, key),
  ...{ row, log: folded.log, folded, key, rev: at.rev, planRev: at.planRev },
});

/** Keeps a trial in memory as it now stands in the database. */
export function remember(
  row: TrialRow,
  state: TrialState,
  key: BlindKey | null,
  at: { rev: number; planRev: number },
): LoadedTrial {
  const trial = loaded(row, state, key, at);
  memory.delete(keyOf(row.id));
  memory.set(keyOf(row.id), trial);
  makeRoom();
  return trial;
}

/** Lines of all trials in memory together: about 200 MB of them. One trial may have more. */
const MOST_LINES = 150_000;

/** Drops the trials that were asked for longest ago. */
function makeRoom(): void {
  let lines = 0;
  for (const [key, { log }] of [...memory].reverse()) {
    lines += log.length;
    if (lines > MOST_LINES && lines > log.length) memory.delete(key);
  }
}

/** Drops what memory holds of a trial. */
export const forget = (id: string): void => void memory.delete(keyOf(id));

/**
 * A trial as the database has it. Inside a transaction it is what that transaction sees. Only what memory doesn't
 * have is read: nothing, the lines that are new, or all of it.
 *
 * @returns null when there is no such trial
 */
export async function current(db: BenchDb, id: string): Promise<LoadedTrial | null> {
  const head = await db.heads.get(id);
  const known = memory.get(keyOf(id));
  if (!head) {
    forget(id);
    return null;
  }
  if (known?.rev === head.rev) {
    memory.delete(keyOf(id));
    memory.set(keyOf(id), known);
    return known;
  }
  const row = await db.trials.get(id);
  if (!row) return null;
  const key = (await db.keys.get(id))?.key ?? null;
  if (known && known.planRev === head.planRev && known.rev < head.rev) {
    return remember(row, extend(known.folded, await linesSince(db, id, known.rev)), key, head);
  }
  return remember(row, deriveState(row.plan, await allLines(db, id)), key, head);
}
