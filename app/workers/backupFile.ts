import {
  BlobReader,
  type FileEntry,
  TextWriter,
  Uint8ArrayWriter,
  ZipReader,
  configure,
} from '@zip.js/zip.js';
import { z } from 'zod';
import { type Bulk, importBulk } from '~core/formats/bulkFiles';
import { describeImportError, exportTrial, importTrial } from '~core/formats/dataPackage';
import { libraryFromFile } from '~core/formats/libraryFile';
import { BlindKey, type Trial } from '~core/log/trial';
import { PanelKey } from '~core/model/panel';
import type { Product } from '~core/model/product';
import { type Result, err, ok } from '~core/model/result';
import type { Report } from './steps';

// Its own workers would come from addresses that the page's policy forbids.
configure({ useWebWorkers: false });

export const BACKUP_VERSION = 1;
/** Nothing that this app writes comes near these. */
const MOST = {
  entries: 500_000,
  trialBytes: 200_000_000,
  textBytes: 60_000_000,
  photoBytes: 80_000_000,
  /** all trials of a file together, and how many times its packed size a part may unpack to */
  allTrials: 1_000_000_000,
  ratio: 300,
};

/** What a backup says of itself. */
export const About = z.object({
  palazzo: z.literal('backup'),
  version: z.number().int(),
  madeAt: z.string().max(40),
  withKeys: z.boolean(),
});
const Keys = z.object({
  blind: z.array(z.object({ trialId: z.string(), key: BlindKey })),
  panels: z.array(z.object({ trialId: z.string(), key: PanelKey })),
});

/** A picture of a backup, by its name alone: its bytes are read when they are wanted. */
export interface PhotoThere {
  filename: string;
  /** what its bytes must hash to */
  sha256: string;
  /** the trial it was taken for */
  trialId: string;
}

/** What a backup has: its large parts, trials, readings and pictures, by their names. */
export interface BackupContents {
  about: z.infer<typeof About>;
  products: Product[];
  /** names of its trials' files: each is read when it is wanted, so that one alone is in memory */
  trials: string[];
  photos: PhotoThere[];
  keys: z.infer<typeof Keys>;
  /** parts that can't be read, and why: they cost the others nothing */
  unread: UnreadPart[];
}

/** A part of a backup that can't be read. */
export interface UnreadPart {
  filename: string;
  why: string;
}

interface TrialInBackup {
  trial: Trial;
  series: Bulk['series'];
  /** why its readings, or some of them, can't be read; null: they can, or weren't asked for */
  noSeries: string | null;
}

/** A backup that is opened: what is in it, and its large parts one by one. */
export interface BackupReader {
  open: (file: Blob) => Promise<Result<BackupContents, string>>;
  /** @returns null where its bytes aren't what its name says */
  photo: (photo: PhotoThere) => Promise<Uint8Array<ArrayBuffer> | null>;
  /** One of its trials, with its loggers' readings where they are wanted; or why it can't be read. */
  trial: (filename: string, withSeries: boolean) => Promise<Result<TrialInBackup, string>>;
  /** A trial's own file, as it lies in a backup. */
  pack: (trial: Trial, series: Bulk['series']) => Promise<Uint8Array>;
  /** Reads all of a file that was written: what of it couldn't be brought back. */
  check: (file: Blob, report: Report) => Promise<UnreadPart[]>;
}

/** Refuses a part before any of it is unpacked where it claims more than it may; what unpacks to more than it claims ends there. */
function mayUnpack({ filename, uncompressedSize, compressedSize }: FileEntry, most: number): void {
  if (uncompressedSize > most || uncompressedSize > 100_000 + MOST.ratio * compressedSize)
    throw new Error(`${filename} is larger than any real one.`);
}
async function bytesOf(entry: FileEntry, most: number): Promise<Uint8Array<ArrayBuffer>> {
  mayUnpack(entry, most);
  return entry.getData(new Uint8ArrayWriter());
}
async function textOf(entry: FileEntry): Promise<string> {
  mayUnpack(entry, MOST.textBytes);
  return entry.getData(new TextWriter());
}

const sayFault = (e: unknown) => (e instanceof Error ? e.message.replace(/\.$/, '') : String(e));
const hashIn = (filename: string) => filename.slice('photos/'.length, 'photos/'.length + 64);
const toHex = (bytes: Uint8Array) => [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('');

const none = { series: [], noSeries: null };

/** A trial's readings: those that can't be read cost the trial nothing else. */
function seriesIn(zip: Uint8Array, trial: Trial): Pick<TrialInBackup, 'series' | 'noSeries'> {
  try {
    const { series, altered } = importBulk(zip, trial);
    return { series, noSeries: altered.length > 0 ? 'they aren’t the ones its log names' : null };
  } catch (e) {
    return { series: [], noSeries: sayFault(e) };
  }
}

/** Reads backups part by part, never more than one picture at a time in memory; beside the screen in the app. */
export function backupReader(): BackupReader {
  let named = new Map<string, FileEntry>();
  const part = (filename: string) => {
    const entry = named.get(filename);
    if (!entry) throw new Error(`${filename} isn’t in the backup.`);
    return entry;
  };
  async function contents(): Promise<Result<BackupContents, string>> {
    const head = named.get('backup.json');
    if (!head && named.has('plan.json'))
      return err('This is one exported trial, not a bench: “Take in a trial” takes it.');
    if (!head) return err('There is no backup.json in it: this isn’t a backup of a bench.');
    const about = About.safeParse(JSON.parse(await textOf(head)));
    if (!about.success) return err('Its backup.json can’t be read.');
    if (about.data.version > BACKUP_VERSION)
      return err('It was written by a newer Palazzo; start that one to read it.');
    const library = named.get('library.json');
    const unread: UnreadPart[] = [];
    /** One part that fails costs the others nothing. */
    const tried = async <T>(
      filename: string,
      none: T,
      read: () => Promise<Result<T, string>>,
    ): Promise<T> => {
      const got = await read().catch((e: unknown) => err(sayFault(e)));
      if (got.ok) return got.value;
      unread.push({ filename, why: got.error });
      return none;
    };
    const products = library
      ? await tried('library.json', [] as Product[], async () => libraryFromFile(await textOf(library)))
      : [];
    const files = [...named.values()].filter((e) => /^trials\/[\w-]+\.zip$/.test(e.filename));
    const trials = files.map((f) => f.filename);
    if (files.reduce((sum, f) => sum + f.uncompressedSize, 0) > MOST.allTrials)
      return err('Its trials claim to be larger than any real bench.');
    const keyFile = named.get('keys.json');
    const noKeys: z.infer<typeof Keys> = { blind: [], panels: [] };
    const keys = keyFile
      ? await tried('keys.json', noKeys, async () => {
          const read = Keys.safeParse(JSON.parse(await textOf(keyFile)));
          return read.success ? ok(read.data) : err('It isn’t a list of keys.');
        })
      : noKeys;
    const photos = [...named.values()].flatMap(({ filename, comment }) =>
      /^photos\/[0-9a-f]{64}\.(png|jpg)$/.test(filename)
        ? [{ filename, sha256: hashIn(filename), trialId: comment }]
        : [],
    );
    return ok({
      ...{ about: about.data, products, trials, photos, keys, unread },
    });
  }
  const open: BackupReader['open'] = async (file) => {
    try {
      const entries = (await new ZipReader(new BlobReader(file)).getEntries()).filter((e) => !e.directory);
      if (entries.length > MOST.entries) return err('This file has more parts than any real backup.');
      named = new Map(entries.map((e) => [e.filename, e]));
    } catch {
      return err('This file isn’t a zip that can be opened: it is another kind, or part of it is lost.');
    }
    try {
      return await contents();
    } catch (e) {
      return err(`The backup can’t be read: ${sayFault(e)}. Nothing was changed.`);
    }
  };
  const photo: BackupReader['photo'] = async ({ filename, sha256 }) => {
    const bytes = await bytesOf(part(filename), MOST.photoBytes);
    const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
    return toHex(digest) === sha256 ? bytes : null;
  };
  const trial: BackupReader['trial'] = async (filename, withSeries) => {
    try {
      const bytes = await bytesOf(part(filename), MOST.trialBytes);
      const read = importTrial(bytes);
      if (!read.ok) return err(describeImportError(read.error));
      return ok({ trial: read.value, ...(withSeries ? seriesIn(bytes, read.value) : none) });
    } catch (e) {
      return err(sayFault(e));
    }
  };
  return {
    open,
    photo,
    trial,
    pack: async (one, series) => exportTrial(one, { photos: [], series }),
    check: async (file, report) => {
      const read = await open(file);
      if (!read.ok) return [{ filename: '', why: read.error }];
      const { unread, trials, photos } = read.value;
      const total = trials.length + photos.length;
      for (const [i, filename] of trials.entries()) {
        report({ done: i, total });
        const got = await trial(filename, false);
        if (!got.ok) unread.push({ filename, why: got.error });
      }
      for (const [i, there] of photos.entries()) {
        report({ done: trials.length + i, total });
        const bytes = await photo(there).catch(() => null);
        if (bytes === null)
          unread.push({ filename: there.filename, why: 'It isn’t the picture of its name.' });
      }
      return unread;
    },
  };
}
