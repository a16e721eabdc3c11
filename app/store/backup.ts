import { BlobWriter, TextReader, Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js';
import type { z } from 'zod';
import { exportTrial } from '~core/formats/dataPackage';
import { libraryToFile } from '~core/formats/libraryFile';
import type { Trial } from '~core/log/trial';
import { type Result, ok } from '~core/model/result';
import { planSha256 } from '~core/plan/seal';
import {
  type About,
  BACKUP_VERSION,
  type BackupContents,
  type BackupReader,
  backupReader,
} from '../workers/backupFile';
import type { Report } from '../workers/steps';
import { bench } from './bench';
import { bulkOf } from './bulk';
import { listProducts, saveProduct } from './products';
import { aFile, takeIn, takeInAsCopy } from './takeIn';
import { loadTrial, wholeTrial } from './trials';

type Progress = (done: number, of: number) => void;

/** Where a backup's bytes go. */
export type BackupTarget = WritableStream<Uint8Array<ArrayBuffer>>;

/**
 * Writes the whole bench into one file: trials with their loggers' readings, library, pictures, one after the other, so
 * that no more than one picture is in memory at a time. What is in the bin isn't in it.
 *
 * @param withKeys the keys of blind trials and panels go along: whoever has the file can open every code
 * @param target a stream; left out: the file comes back as a blob
 */
export async function writeBackup(
  { withKeys, onProgress = () => {} }: { withKeys: boolean; onProgress?: Progress },
  target?: BackupTarget,
): Promise<Blob | null> {
  const db = await bench();
  const blob = target ? null : new BlobWriter('application/zip');
  const zip = new ZipWriter<unknown>(target ?? blob!, { level: 0, zip64: true });
  const heads = await db.heads.toArray();
  const ids = (await db.trials.toCollection().primaryKeys()) as string[];
  const photos = await db.blobs.toCollection().primaryKeys();
  const total = ids.length + photos.length;
  let done = 0;
  const about: z.infer<typeof About> = {
    ...{ palazzo: 'backup', version: BACKUP_VERSION, withKeys },
    madeAt: new Date().toISOString(),
  };
  await zip.add('backup.json', new TextReader(JSON.stringify(about, null, 2)));
  await zip.add('library.json', new TextReader(libraryToFile(await listProducts())), { level: 6 });
  for (const id of ids) {
    const trial = { ...(await wholeTrial(id)), key: null };
    const { series } = await bulkOf(trial);
    await zip.add(`trials/${id}.zip`, new Uint8ArrayReader(exportTrial(trial, { photos: [], series })));
    onProgress(++done, total);
  }
  for (const sha256 of photos) {
    const row = await db.blobs.get(sha256);
    // Taken out of the bench while this was written.
    if (!row) continue;
    const ending = row.type === 'image/png' ? 'png' : 'jpg';
    await zip.add(`photos/${sha256}.${ending}`, new Uint8ArrayReader(row.bytes), { comment: row.trialId });
    onProgress(++done, total);
  }
  if (withKeys) {
    const [blind, panels] = await Promise.all([db.keys.toArray(), db.panelKeys.toArray()]);
    const keys = { blind, panels: panels.map(({ trialId, key }) => ({ trialId, key })) };
    await zip.add('keys.json', new TextReader(JSON.stringify(keys)));
  }
  await zip.close();
  const revs = Object.fromEntries(heads.map((h) => [h.id, h.rev]));
  await db.settings.put({ key: 'backedUp', value: JSON.stringify({ at: about.madeAt, revs }) });
  return blob ? blob.getData() : null;
}

/** A trial of a backup against what is on the bench. */
export interface TrialThere {
  question: string;
  code: string;
  /** not here yet; nothing new; so many lines this bench lacks; another plan of the same trial */
  what: { tag: 'new' } | { tag: 'same' } | { tag: 'adds'; lines: number } | { tag: 'differs' };
}

/** What bringing a backup back would do; nothing is changed before `apply`. */
export interface BackupPreview {
  madeAt: string;
  withKeys: boolean;
  trials: TrialThere[];
  /** products that aren't here, and that are and stay as they are */
  products: { added: number; here: number };
  /** pictures that aren't here */
  photos: number;
  /** brings it back by union: nothing here is overwritten. @returns pictures that were broken */
  apply: (onProgress?: Progress) => Promise<{ brokenPhotos: number }>;
}

/**
 * Reads a backup and says what is in it, without changing anything.
 * @param reader reads the file's parts; in the app a worker does
 */
export async function readBackup(
  file: Blob,
  reader: BackupReader = backupReader(),
  report: Report = () => {},
): Promise<Result<BackupPreview, string>> {
  const read = await reader.open(file, report);
  return read.ok ? ok(await previewOf(read.value, reader)) : read;
}

async function previewOf(
  { about, products, trials, photos, keys }: BackupContents,
  reader: BackupReader,
): Promise<BackupPreview> {
  const db = await bench();
  const hereProducts = new Set<string>((await listProducts()).map((p) => p.id));
  const herePhotos = new Set(await db.blobs.toCollection().primaryKeys());
  const fresh = products.filter((p) => !hereProducts.has(p.id));
  const newPhotos = photos.filter((p) => !herePhotos.has(p.sha256));
  const compared: TrialThere[] = [];
  for (const { trial } of trials) compared.push(await compare(trial));
  return {
    madeAt: about.madeAt,
    withKeys: about.withKeys,
    trials: compared,
    products: { added: fresh.length, here: products.length - fresh.length },
    photos: newPhotos.length,
    apply: async (onProgress = () => {}) => {
      const total = trials.length + newPhotos.length;
      let [done, brokenPhotos] = [0, 0];
      for (const product of fresh) await saveProduct(product);
      for (const { filename, trial } of trials) {
        const key = keys.blind.find((k) => k.trialId === trial.plan.id)?.key ?? null;
        const whole = { ...trial, key };
        const bulk = { photos: [], series: await reader.series(filename, trial) };
        const panels = keys.panels.filter((k) => k.trialId === trial.plan.id).map((k) => k.key);
        const taken = await takeIn(whole, { ...aFile, from: 'a backup', bulk, panels });
        if (!taken.ok) await takeInAsCopy(whole, bulk, panels);
        onProgress(++done, total);
      }
      for (const photo of newPhotos) {
        const bytes = await reader.photo(photo);
        if (bytes === null) brokenPhotos += 1;
        else
          await db.blobs.put({
            ...{ sha256: photo.sha256, bytes, trialId: photo.trialId },
            type: photo.filename.endsWith('.png') ? 'image/png' : 'image/jpeg',
          });
        onProgress(++done, total);
      }
      return { brokenPhotos };
    },
  };
}

/** A trial of a file against the one on the bench. */
async function compare(trial: Trial): Promise<TrialThere> {
  const said = { question: trial.plan.question, code: trial.plan.code };
  const db = await bench();
  if (!(await db.trials.get(trial.plan.id))) return { ...said, what: { tag: 'new' } };
  const { row, log } = await loadTrial(trial.plan.id);
  if (planSha256(row.plan) !== planSha256(trial.plan)) return { ...said, what: { tag: 'differs' } };
  const here = new Set<string>(log.map((e) => e.id));
  const lines = trial.log.filter((e) => !here.has(e.id)).length;
  return { ...said, what: lines === 0 ? { tag: 'same' } : { tag: 'adds', lines } };
}
