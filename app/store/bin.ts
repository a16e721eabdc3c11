import { bulkNamedIn } from '~core/formats/bulkFiles';
import type { TrialId } from '~core/model/ids';
import { bench } from './bench';
import type { BinRow } from './db';
import { takeIn, takeInAsCopy } from './takeIn';
import { listTrials } from './trials';

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
  let refusal: string | null = null;
  if (row.product) {
    if (await db.products.get(row.product.id))
      refusal = 'There is a newer one of this name; it stays as it is.';
    else await db.products.add(row.product);
  }
  if (row.trial) {
    const trial = {
      plan: row.trial.plan,
      review: row.trial.review,
      log: (row.entries ?? []).flatMap((e) => e.lines),
      key: row.key ?? null,
      sealedAs: row.trial.sealedAs,
      conflicts: (row.conflicts ?? []).map((c) => ({ id: c.other.id, other: c.other })),
    };
    const back = await takeIn(trial, { by: { right: 'all', device: null }, from: 'the bin' });
    if (!back.ok) {
      await takeInAsCopy({ ...trial, plan: { ...trial.plan, id: trial.plan.id as TrialId } });
      refusal =
        'The trial has come back with another plan since; the deleted one stands beside it as a copy.';
    } else if (back.value.outcome.tag === 'merged') {
      refusal = 'The trial was on the bench again already; what the deleted one had more was added.';
    }
  }
  await db.bin.delete(id);
  return refusal;
}

/** How long what was deleted can be brought back. */
export const BIN_DAYS = 30;

/**
 * Forgets for good what was deleted before a moment, with the pictures, readings and panel keys that no other trial names.
 * @param before ISO moment; what was deleted later stays
 * @returns how many things are gone
 */
export async function purgeBin(before: string): Promise<number> {
  const db = await bench();
  const old = (await db.bin.toArray()).filter((r) => r.deletedAt < before);
  if (old.length === 0) return 0;
  const named = await namedByOthers(new Set(old.map((r) => r.id)));
  await db.transaction('rw', [db.bin, db.trials, db.blobs, db.series, db.panelKeys], async () => {
    for (const row of old) {
      await db.bin.delete(row.id);
      // It has come onto the bench again meanwhile: everything of it stays.
      if (row.kind !== 'trial' || (await db.trials.get(row.id))) continue;
      const photos = await db.blobs.where('trialId').equals(row.id).primaryKeys();
      await db.blobs.bulkDelete(photos.filter((hash) => !named.photos.has(hash)));
      const chunks = await db.series.where('trialId').equals(row.id).primaryKeys();
      await db.series.bulkDelete(chunks.filter(([seriesId]) => !named.series.has(seriesId)));
      await db.panelKeys.where('trialId').equals(row.id).delete();
    }
  });
  return old.length;
}

/** Pictures and readings that trials on the bench, or others in the bin, still name. */
async function namedByOthers(gone: ReadonlySet<string>) {
  const db = await bench();
  const logs = [
    ...(await listTrials()).map(({ row, log }) => ({ plan: row.plan, log: [...log] })),
    ...(await db.bin.toArray()).flatMap((r) =>
      r.trial && !gone.has(r.id)
        ? [{ plan: r.trial.plan, log: (r.entries ?? []).flatMap((e) => e.lines) }]
        : [],
    ),
  ].map(bulkNamedIn);
  return {
    photos: new Set(logs.flatMap((n) => [...n.photos])),
    series: new Set(logs.flatMap((n) => [...n.series.keys()])),
  };
}

/** Forgets what has been in the bin for longer than it is kept. */
export const purgeOld = (now: Date = new Date()): Promise<number> =>
  purgeBin(new Date(now.getTime() - BIN_DAYS * 86_400_000).toISOString());
