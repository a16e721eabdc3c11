import type { Entry } from '~core/log/entry';
import type { SealedAs } from '~core/log/verifySeal';
import { migrate, trialMigrations } from '~core/model/migrations';
import type { Plan } from '~core/model/plan';
import type { EntryRow, TrialRow } from './db';
import { rowsOf } from './lines';

/** A row of databases up to version 7: each line had one of its own. */
export interface SingleRow {
  trialId: string;
  id: string;
  rev: number;
  entry: Entry;
}

/** A trial and its log as a database of version 3 had them, brought up to version 4 as a file would be. */
export function toVersion4(
  row: TrialRow,
  lines: readonly SingleRow[],
): { row: TrialRow; lines: SingleRow[] } {
  const file = migrate(
    { version: 3, plan: row.plan, log: lines.map((l) => l.entry), sealedAs: row.sealedAs ?? null },
    trialMigrations,
    4,
  );
  if (!file.ok) return { row: { ...row, sealedAs: null }, lines: lines.map((l) => ({ ...l, rev: 1 })) };
  const log = file.value.log as Entry[];
  const sealed = log.some((e) => e.kind === 'seal');
  return {
    row: {
      ...row,
      plan: file.value.plan as Plan,
      sealedAs: sealed ? (file.value.sealedAs as SealedAs | null) : null,
    },
    lines: log.map((entry) => ({ trialId: row.id, id: entry.id, rev: 1, entry })),
  };
}

/** The rows of one trial, those of each change together. */
export function toVersion8(rows: readonly SingleRow[]): EntryRow[] {
  const byRev = new Map<number, SingleRow[]>();
  for (const row of rows) {
    const own = byRev.get(row.rev);
    if (own) own.push(row);
    else byRev.set(row.rev, [row]);
  }
  const entriesOf = (own: readonly SingleRow[]) => own.map((r) => r.entry);
  return [...byRev].flatMap(([rev, own]) => rowsOf(own[0]!.trialId, rev, entriesOf(own)));
}
