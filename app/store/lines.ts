import type { Entry } from '~core/log/entry';
import type { BenchDb, EntryRow } from './db';

/** Lines in one row at most: a row is read and written at once. */
const MOST_IN_ROW = 2_000;
/** Rows of one trial from which on they are joined: each costs about as much to read as fifty lines more in it. */
const MANY_ROWS = 1_000;

/** Rows of lines that were written together. @param rev the change that brings them */
export const rowsOf = (trialId: string, rev: number, lines: readonly Entry[]): EntryRow[] =>
  Array.from({ length: Math.ceil(lines.length / MOST_IN_ROW) }, (_, i) => {
    const own = lines.slice(i * MOST_IN_ROW, (i + 1) * MOST_IN_ROW);
    return { trialId, id: own[0]!.id, rev, lines: own };
  });

/** By its key, not by an index: every row is found once and not twice. */
const ofTrial = (db: BenchDb, trialId: string) =>
  db.entries.where('[trialId+id]').between([trialId, ''], [trialId, '\uffff']);

/** What many lines of a trial say in the same words: kept once in memory. */
const SHARED = ['kind', 'unitId', 'traitId', 'roundId', 'device', 'by'] as const;

function linesIn(rows: readonly EntryRow[]): Entry[] {
  const words = new Map<string, string>();
  const all = rows.flatMap((r) => r.lines);
  for (const line of all as Partial<Record<(typeof SHARED)[number], unknown>>[])
    for (const field of SHARED) {
      const word = line[field];
      if (typeof word !== 'string') continue;
      const known = words.get(word);
      if (known === undefined) words.set(word, word);
      else line[field] = known;
    }
  return all;
}

/** All lines of a trial, in no order; joins its rows afterwards where there are very many. */
export async function allLines(db: BenchDb, trialId: string): Promise<Entry[]> {
  const rows = await ofTrial(db, trialId).toArray();
  // Not inside the transaction that reads.
  if (rows.length > MANY_ROWS) setTimeout(() => void joinRows(db, trialId).catch(() => undefined));
  return linesIn(rows);
}

/** Lines that changes after `rev` brought; where rows were joined, some of before too. */
export const linesSince = async (db: BenchDb, trialId: string, rev: number): Promise<Entry[]> =>
  linesIn(
    await db.entries
      .where('[trialId+rev]')
      .between([trialId, rev + 1], [trialId, Infinity], true, true)
      .toArray(),
  );

/** Writes new lines, inside the transaction of their change. */
export const addLines = async (
  db: BenchDb,
  trialId: string,
  rev: number,
  lines: readonly Entry[],
): Promise<unknown> => db.entries.bulkAdd(rowsOf(trialId, rev, lines));

/** Takes a trial's lines away. @returns them as they lay there */
export async function dropLines(db: BenchDb, trialId: string): Promise<Entry[]> {
  const lines = linesIn(await ofTrial(db, trialId).toArray());
  await ofTrial(db, trialId).delete();
  return lines;
}

/** Puts the rows of a trial together, in one transaction: the same lines, and the trial isn't changed by it. */
export const joinRows = (db: BenchDb, trialId: string): Promise<void> =>
  db.transaction('rw', db.entries, async () => {
    const rows = await ofTrial(db, trialId).toArray();
    if (rows.length <= MANY_ROWS) return;
    await ofTrial(db, trialId).delete();
    // Whoever knows an earlier change reads all of what was joined after it, and passes over what it has.
    rows.sort((a, b) => a.rev - b.rev);
    let own: Entry[] = [];
    for (const [i, row] of rows.entries()) {
      own.push(...row.lines);
      if (own.length < MOST_IN_ROW && i < rows.length - 1) continue;
      await addLines(db, trialId, row.rev, own);
      own = [];
    }
  });
