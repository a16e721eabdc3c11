import type { Entry } from '~core/log/entry';
import type { SealedAs } from '~core/log/verifySeal';
import { migrate, trialMigrations } from '~core/model/migrations';
import type { Plan } from '~core/model/plan';
import type { EntryRow, TrialRow } from './db';

/** A trial and its log as a database of version 3 had them, brought up to version 4 as a file would be. */
export function toVersion4(row: TrialRow, lines: readonly EntryRow[]): { row: TrialRow; lines: EntryRow[] } {
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
