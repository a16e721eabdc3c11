import { BlobWriter, TextReader, Uint8ArrayReader, ZipWriter } from '@zip.js/zip.js';
import type { z } from 'zod';
import { libraryToFile } from '~core/formats/libraryFile';
import type { Trial } from '~core/log/trial';
import { type Result, ok } from '~core/model/result';
import { planSha256 } from '~core/plan/seal';
import {
  type About,
  BACKUP_VERSION,
  type BackupContents,
  type BackupReader,
  type UnreadPart,
  backupReader,
} from '../workers/backupFile';
import type { Report } from '../workers/steps';
import { bench } from './bench';
import { sayStorageFault } from './errors';
import { seriesOf } from './bulk';
import type { BlobRow } from './db';
import { listProducts, saveProduct } from './products';
import { aFile, takeIn, takeInAsCopy } from './takeIn';
import { loadTrial, wholeTrial } from './trials';

/** Bytes of pictures that are put down in one go. */
const MOST_AT_ONCE = 8 * 2 ** 20;

type Progress = (done: number, of: number) => void;

/** Where a backup's bytes go, and how what came of them is read back; left out: the file comes back as a blob. */
export interface BackupTarget {
  stream: WritableStream<Uint8Array<ArrayBuffer>>;
  written: () => Promise<Blob>;
}

/** What was saved, and what of it couldn't be read back. */
interface SavedBackup {
  /** null where it went into a stream */
  blob: Blob | null;
  faults: UnreadPart[];
}

/**
 * Writes the whole bench into one file and reads it back: what can't be read isn't said to be saved. Trials with their loggers'
 * readings, library, pictures, one after the other, so that no more than one picture is in memory at a time; one that can't
 * be written costs the others nothing. What is in the bin isn't in it.
 *
 * @param withKeys the keys of blind trials and panels go along: whoever has the file can open every code
 * @param reader reads it back; in the app a worker does
 */
export async function writeBackup(
  { withKeys, onProgress = () => {} }: { withKeys: boolean; onProgress?: Progress },
  target?: BackupTarget,
  reader: BackupReader = backupReader(),
): Promise<SavedBackup> {
  const db = await bench();
  const into = target ? null : new BlobWriter('application/zip');
  const zip = new ZipWriter<unknown>(target?.stream ?? into!, { level: 0, zip64: true });
  const heads = await db.heads.toArray();
  const ids = (await db.trials.toCollection().primaryKeys()) as string[];
  const photos = await db.blobs.toCollection().primaryKeys();
  const total = 2 * (ids.length + photos.length);
  const faults: UnreadPart[] = [];
  let done = 0;
  const about: z.infer<typeof About> = {
    ...{ palazzo: 'backup', version: BACKUP_VERSION, withKeys },
    madeAt: new Date().toISOString(),
  };
  await zip.add('backup.json', new TextReader(JSON.stringify(about, null, 2)));
  await zip.add('library.json', new TextReader(libraryToFile(await listProducts())), { level: 6 });
  for (const id of ids) {
    try {
      const { folded } = await loadTrial(id);
      const trial = { ...(await wholeTrial(id)), key: null };
      const series = await seriesOf(folded);
      const bytes = await reader.pack(trial, series);
      await zip.add(fileOf(id), new Uint8ArrayReader(bytes));
    } catch (e) {
      // A trial that can't be written, not a file that can't.
      if (!(await db.trials.get(id))) continue;
      if (zip.hasCorruptedEntries || isOfTarget(e)) throw e;
      faults.push({ filename: fileOf(id), why: sayStorageFault(e) });
    }
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
  const blob = into ? await into.getData() : null;
  const file = blob ?? (await target!.written());
  const begun = done;
  faults.push(...(await reader.check(file, ({ done: read }) => onProgress(begun + read, total))));
  if (faults.some((f) => f.filename === '')) throw new Error(faults[0]!.why);
  const lost = new Set(faults.map((f) => f.filename));
  const keptHeads = heads.filter((h) => !lost.has(fileOf(h.id)));
  const revs = Object.fromEntries(keptHeads.map((h) => [h.id, h.rev]));
  await db.settings.put({ key: 'backedUp', value: JSON.stringify({ at: about.madeAt, revs }) });
  const names = new Map((await db.trials.toArray()).map((t) => [fileOf(t.id), `“${t.plan.question}”`]));
  return { blob, faults: faults.map((f) => ({ ...f, filename: names.get(f.filename) ?? f.filename })) };
}

const fileOf = (trialId: string) => `trials/${trialId}.zip`;
/** Whether it is the file that can't be written: nothing after it can either. */
const isOfTarget = (e: unknown) =>
  /Quota|NotAllowed|InvalidState|NoModification|Abort/.test((e as Error)?.name ?? '');

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
  /** parts of it that can't be read: they stay out, and the others come */
  unread: UnreadPart[];
  /**
   * brings it back by union: nothing here is overwritten.
   * @returns pictures that were broken, and trials that couldn't be kept, with why
   */
  apply: (onProgress?: Progress) => Promise<{ brokenPhotos: number; failed: UnreadPart[]; waiting: number }>;
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
  const read = await reader.open(file);
  return read.ok ? ok(await previewOf(read.value, reader, report)) : read;
}

async function previewOf(
  { about, products, trials, photos, keys, unread }: BackupContents,
  reader: BackupReader,
  report: Report,
): Promise<BackupPreview> {
  const db = await bench();
  const hereProducts = new Set<string>((await listProducts()).map((p) => p.id));
  const herePhotos = new Set(await db.blobs.toCollection().primaryKeys());
  const fresh = products.filter((p) => !hereProducts.has(p.id));
  const newPhotos = photos.filter((p) => !herePhotos.has(p.sha256));
  const compared: TrialThere[] = [];
  const readable: string[] = [];
  for (const [i, filename] of trials.entries()) {
    report({ done: i, total: trials.length });
    const read = await reader.trial(filename, false);
    if (read.ok) {
      readable.push(filename);
      compared.push(await compare(read.value.trial));
    } else unread.push({ filename, why: read.error });
  }
  return {
    madeAt: about.madeAt,
    withKeys: about.withKeys,
    trials: compared,
    products: { added: fresh.length, here: products.length - fresh.length },
    photos: newPhotos.length,
    unread,
    apply: async (onProgress = () => {}) => {
      const total = readable.length + newPhotos.length;
      let [done, brokenPhotos, waiting] = [0, 0, 0];
      const failed: UnreadPart[] = [];
      for (const product of fresh) await saveProduct(product);
      for (const filename of readable) {
        const read = await reader.trial(filename, true);
        onProgress(++done, total);
        if (!read.ok) {
          failed.push({ filename, why: read.error });
          continue;
        }
        const { trial, series, noSeries } = read.value;
        if (noSeries !== null)
          failed.push({ filename: `readings of “${trial.plan.question}”`, why: noSeries });
        const key = keys.blind.find((k) => k.trialId === trial.plan.id)?.key ?? null;
        const whole = { ...trial, key };
        const bulk = { photos: [], series };
        const panels = keys.panels.filter((k) => k.trialId === trial.plan.id).map((k) => k.key);
        try {
          const takenIn = await takeIn(whole, { ...aFile, from: 'a backup', bulk, panels });
          if (takenIn.ok) waiting += takenIn.value.waiting.length;
          else if (takenIn.error.tag === 'unsound') failed.push(named(trial, takenIn.error.why));
          else await takeInAsCopy(whole, bulk, panels);
        } catch (e) {
          // No room for one is no room for the next; anything else is this trial's own.
          if ((e as Error).name === 'QuotaExceededError') throw e;
          failed.push(named(trial, sayStorageFault(e)));
        }
      }
      // Some at a time: each transaction waits for the disk.
      let some: BlobRow[] = [];
      let size = 0;
      const put = async () => {
        await db.blobs.bulkPut(some);
        [some, size] = [[], 0];
      };
      for (const photo of newPhotos) {
        const bytes = await reader.photo(photo).catch(() => null);
        if (bytes === null) brokenPhotos += 1;
        else {
          const type = photo.filename.endsWith('.png') ? 'image/png' : 'image/jpeg';
          some.push({ sha256: photo.sha256, bytes, trialId: photo.trialId, type });
          size += bytes.length;
          if (size > MOST_AT_ONCE) await put();
        }
        onProgress(++done, total);
      }
      await put();
      return { brokenPhotos, failed, waiting };
    },
  };
}

const named = (trial: Trial, why: string): UnreadPart => ({ filename: `“${trial.plan.question}”`, why });

/** A trial of a file against the one on the bench. */
async function compare(trial: Trial): Promise<TrialThere> {
  const heading = { question: trial.plan.question, code: trial.plan.code };
  const db = await bench();
  if (!(await db.trials.get(trial.plan.id))) return { ...heading, what: { tag: 'new' } };
  const { row, log } = await loadTrial(trial.plan.id);
  if (planSha256(row.plan) !== planSha256(trial.plan)) return { ...heading, what: { tag: 'differs' } };
  const here = new Set<string>(log.map((e) => e.id));
  const lines = trial.log.filter((e) => !here.has(e.id)).length;
  return { ...heading, what: lines === 0 ? { tag: 'same' } : { tag: 'adds', lines } };
}
