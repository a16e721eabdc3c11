import type { TrialId } from '~core/model/ids';
import { bench } from './bench';
import type { BinRow } from './db';
import { takeIn, takeInAsCopy } from './takeIn';

/** What was deleted, newest first. */
export async function listBin(): Promise<BinRow[]> {
  const rows = await (await bench()).bin.toArray();
  return rows.sort((a, b) => b.deletedAt.localeCompare(a.deletedAt));
}

/**
 * Brings a deleted product or trial back. What has come onto the bench under the same name since stays: a product is
 * left as it is now, a trial's logs are united, and a trial with another plan is put beside.
 *
 * @returns what was done, where it isn't simply that it is back
 */
export async function restore(id: string): Promise<string | null> {
  const db = await bench();
  const row = await db.bin.get(id);
  if (!row) return null;
  let said: string | null = null;
  if (row.product) {
    if (await db.products.get(row.product.id)) said = 'There is a newer one of this name; it stays as it is.';
    else await db.products.add(row.product);
  }
  if (row.trial) {
    const trial = {
      plan: row.trial.plan,
      review: row.trial.review,
      log: (row.entries ?? []).map((e) => e.entry),
      key: row.key ?? null,
      sealedAs: row.trial.sealedAs,
      conflicts: (row.conflicts ?? []).map((c) => ({ id: c.other.id, other: c.other })),
    };
    const back = await takeIn(trial);
    if (!back.ok) {
      await takeInAsCopy({ ...trial, plan: { ...trial.plan, id: trial.plan.id as TrialId } });
      said = 'The trial has come back with another plan since; the deleted one stands beside it as a copy.';
    } else if (back.value.outcome.tag === 'merged') {
      said = 'The trial was on the bench again already; what the deleted one had more was added.';
    }
  }
  await db.bin.delete(id);
  return said;
}
