import type { BinRow } from './db';
import { bench } from './bench';
import { forgetTrials } from './trials';

/** What was deleted, newest first. */
export async function listBin(): Promise<BinRow[]> {
  const rows = await (await bench()).bin.toArray();
  return rows.sort((a, b) => b.deletedAt.localeCompare(a.deletedAt));
}

/** Brings a deleted product or trial back. */
export async function restore(id: string): Promise<void> {
  const db = await bench();
  await db.transaction('rw', [db.products, db.trials, db.entries, db.bin, db.keys], async () => {
    const row = await db.bin.get(id);
    if (!row) return;
    if (row.product) await db.products.put(row.product);
    if (row.trial) await db.trials.put(row.trial);
    if (row.trial && row.key) await db.keys.put({ trialId: row.id, key: row.key });
    if (row.entries) await db.entries.bulkPut(row.entries);
    await db.bin.delete(id);
  });
  forgetTrials();
}
