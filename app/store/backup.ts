import {
  BlobReader,
  BlobWriter,
  type FileEntry,
  TextReader,
  TextWriter,
  Uint8ArrayReader,
  Uint8ArrayWriter,
  ZipReader,
  ZipWriter,
  configure,
} from '@zip.js/zip.js';
import { z } from 'zod';
import { importBulk } from '~core/formats/bulkFiles';
import { describeImportError, exportTrial, importTrial } from '~core/formats/dataPackage';
import { libraryFromFile, libraryToFile } from '~core/formats/libraryFile';
import { BlindKey, type Trial } from '~core/log/trial';
import { PanelKey } from '~core/model/panel';
import type { Product } from '~core/model/product';
import { type Result, err, ok } from '~core/model/result';
import { planSha256 } from '~core/plan/seal';
import { bench } from './bench';
import { bulkOf, keepBulk } from './bulk';
import { listProducts, saveProduct } from './products';
import { takeIn, takeInAsCopy } from './takeIn';
import { loadTrial, wholeTrial } from './trials';

// Its own workers would come from addresses that the page's policy forbids.
configure({ useWebWorkers: false });

const VERSION = 1;
/** Nothing that this app writes comes near these. */
const MOST = { entries: 500_000, trialBytes: 200_000_000, textBytes: 60_000_000, photoBytes: 80_000_000 };

/** What a backup says of itself. */
const About = z.object({
  palazzo: z.literal('backup'),
  version: z.number().int(),
  madeAt: z.string().max(40),
  withKeys: z.boolean(),
});
const Keys = z.object({
  blind: z.array(z.object({ trialId: z.string(), key: BlindKey })),
  panels: z.array(z.object({ trialId: z.string(), key: PanelKey })),
});

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
    ...{ palazzo: 'backup', version: VERSION, withKeys },
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

/** Reads one part, refusing it before any of it is unpacked where it claims to be larger than it may be. */
async function bytesOf(entry: FileEntry, most: number): Promise<Uint8Array<ArrayBuffer>> {
  if (entry.uncompressedSize > most) throw new Error(`${entry.filename} is larger than any real one.`);
  return entry.getData(new Uint8ArrayWriter());
}
async function textOf(entry: FileEntry): Promise<string> {
  if (entry.uncompressedSize > MOST.textBytes)
    throw new Error(`${entry.filename} is larger than any real one.`);
  return entry.getData(new TextWriter());
}

const sayFault = (e: unknown) => (e instanceof Error ? e.message.replace(/\.$/, '') : String(e));

/** Reads a backup and says what is in it, without changing anything. */
export async function readBackup(file: Blob): Promise<Result<BackupPreview, string>> {
  let entries: FileEntry[];
  try {
    entries = (await new ZipReader(new BlobReader(file)).getEntries()).filter((e) => !e.directory);
  } catch {
    return err('This file isn’t a zip that can be opened: it is another kind, or part of it is lost.');
  }
  if (entries.length > MOST.entries) return err('This file has more parts than any real backup.');
  const named = new Map(entries.map((e) => [e.filename, e]));
  try {
    const head = named.get('backup.json');
    if (!head) return err('There is no backup.json in it: this isn’t a backup of a bench.');
    const about = About.safeParse(JSON.parse(await textOf(head)));
    if (!about.success) return err('Its backup.json can’t be read.');
    if (about.data.version > VERSION)
      return err('It was written by a newer Palazzo; start that one to read it.');
    const library = named.get('library.json');
    const products = library ? libraryFromFile(await textOf(library)) : ok([] as Product[]);
    if (!products.ok) return err(`Its library can’t be read: ${products.error}`);
    const trials: { entry: FileEntry; trial: Trial }[] = [];
    for (const entry of entries.filter((e) => /^trials\/[\w-]+\.zip$/.test(e.filename))) {
      const trial = importTrial(await bytesOf(entry, MOST.trialBytes));
      if (!trial.ok) return err(`${entry.filename}: ${describeImportError(trial.error)}`);
      trials.push({ entry, trial: trial.value });
    }
    const keyFile = named.get('keys.json');
    const keys = keyFile ? Keys.safeParse(JSON.parse(await textOf(keyFile))) : null;
    if (keys && !keys.success) return err('Its keys.json can’t be read.');
    const photos = entries.filter((e) => /^photos\/[0-9a-f]{64}\.(png|jpg)$/.test(e.filename));
    return ok(
      await previewOf(about.data, products.value, trials, photos, keys?.data ?? { blind: [], panels: [] }),
    );
  } catch (e) {
    return err(`The backup can’t be read: ${sayFault(e)}. Nothing was changed.`);
  }
}

const hashOf = (e: FileEntry) => e.filename.slice('photos/'.length, 'photos/'.length + 64);

async function previewOf(
  about: z.infer<typeof About>,
  products: readonly Product[],
  trials: readonly { entry: FileEntry; trial: Trial }[],
  photos: readonly FileEntry[],
  keys: z.infer<typeof Keys>,
): Promise<BackupPreview> {
  const db = await bench();
  const hereProducts = new Set<string>((await listProducts()).map((p) => p.id));
  const herePhotos = new Set(await db.blobs.toCollection().primaryKeys());
  const fresh = products.filter((p) => !hereProducts.has(p.id));
  const newPhotos = photos.filter((p) => !herePhotos.has(hashOf(p)));
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
      for (const { entry, trial } of trials) {
        const key = keys.blind.find((k) => k.trialId === trial.plan.id)?.key ?? null;
        const whole = { ...trial, key };
        const taken = await takeIn(whole);
        if (!taken.ok) await takeInAsCopy(whole);
        const { series } = importBulk(await bytesOf(entry, MOST.trialBytes), trial);
        await keepBulk(trial.plan.id, { photos: [], series });
        onProgress(++done, total);
      }
      for (const { trialId, key } of keys.panels) {
        if (!(await db.panelKeys.get([trialId, key.sessionId])))
          await db.panelKeys.put({ trialId, sessionId: key.sessionId, key });
      }
      for (const entry of newPhotos) {
        const bytes = await bytesOf(entry, MOST.photoBytes);
        const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
        const sha256 = [...digest].map((b) => b.toString(16).padStart(2, '0')).join('');
        if (sha256 !== hashOf(entry)) brokenPhotos += 1;
        else
          await db.blobs.put({
            ...{ sha256, bytes, trialId: entry.comment },
            type: entry.filename.endsWith('.png') ? 'image/png' : 'image/jpeg',
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
