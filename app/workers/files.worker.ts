import './notByEval';
import { expose, transfer } from 'comlink';
import { type Bulk, importBulk } from '~core/formats/bulkFiles';
import { describeImportError, exportTrial, importTrial } from '~core/formats/dataPackage';
import type { FindingRow } from '~core/account/findingRows';
import { checkFile, checkRecord } from '~core/formats/checkFile';
import { libraryFromFile } from '~core/formats/libraryFile';
import type { Trial } from '~core/log/trial';
import type { Product } from '~core/model/product';
import { type Result, err, ok } from '~core/model/result';
import { type PhotoThere, backupReader } from './backupFile';
import type { Report } from './steps';

/** Larger than any real file of its kind, bytes: said before it is read. */
const MOST = { trial: 800e6, library: 30e6 };

const tooLarge = (file: Blob, most: number) =>
  file.size > most ? `It has ${Math.round(file.size / 1e6)} MB, more than any real one.` : null;

interface TrialFile {
  trial: Trial;
  bulk: Bulk;
  /** pictures whose bytes aren't what their name says */
  broken: number;
  /** lines and parts that aren't as the file says of itself */
  altered: string[];
}

/** Why a file that was written isn't all of it, in words; null: it is. */
function notAllOf(zip: Uint8Array, lines: number): string | null {
  const read = checkFile(zip);
  if (!read.ok) return describeImportError(read.error);
  const { altered, bulk } = read.value;
  const wrong = [...altered, ...bulk.altered];
  if (wrong.length > 0) return `These aren’t in it as they are here: ${wrong.slice(0, 3).join(', ')}.`;
  return read.value.lines === lines ? null : `Of ${lines} lines it holds ${read.value.lines}.`;
}

const STEPS = 3;

const backup = backupReader();

const api = {
  /** Reads a trial's zip: its plan and log, then its pictures and readings; all of it or nothing. */
  trial: async (file: Blob, report: Report): Promise<Result<TrialFile, string>> => {
    const large = tooLarge(file, MOST.trial);
    if (large) return err(large);
    report({ done: 0, total: STEPS });
    const bytes = new Uint8Array(await file.arrayBuffer());
    report({ done: 1, total: STEPS });
    const read = importTrial(bytes);
    if (!read.ok) return err(describeImportError(read.error));
    report({ done: 2, total: STEPS });
    const { altered, ...bulk } = importBulk(bytes, read.value);
    return transfer(
      ok({
        ...{ trial: read.value, bulk, broken: altered.length },
        altered: checkRecord(bytes).altered,
      }),
      // Each picture is its own piece of memory: it is handed over, not copied.
      [...new Set(bulk.photos.map((p) => p.bytes.buffer as ArrayBuffer))],
    );
  },
  /** Writes a trial's file and reads it back. @returns the file, and why it isn't all of it, in words; null: it is */
  trialWrite: async (trial: Trial, bulk: Bulk, found: readonly FindingRow[]) => {
    const zip = exportTrial(trial, bulk, found);
    const why = notAllOf(zip, trial.log.length);
    return { why, file: new Blob([zip as Uint8Array<ArrayBuffer>], { type: 'application/zip' }) };
  },
  /** Opens a backup; its trials and pictures are then asked for one by one. */
  backup: async (file: Blob) => backup.open(file),
  backupPhoto: async (photo: PhotoThere) => {
    const bytes = await backup.photo(photo);
    return bytes === null ? null : transfer(bytes, [bytes.buffer]);
  },
  backupPack: async (trial: Trial, series: Bulk['series']) => {
    const bytes = await backup.pack(trial, series);
    return transfer(bytes, [bytes.buffer as ArrayBuffer]);
  },
  backupCheck: async (file: Blob, report: Report) => backup.check(file, report),
  backupTrial: async (filename: string, withSeries: boolean) => {
    const read = await backup.trial(filename, withSeries);
    const buffers = read.ok ? read.value.series.flatMap((s) => [s.times, ...s.columns]) : [];
    return transfer(
      read,
      buffers.map((list) => list.buffer as ArrayBuffer),
    );
  },
  library: async (file: Blob): Promise<Result<Product[], string>> => {
    const large = tooLarge(file, MOST.library);
    return large ? err(large) : libraryFromFile(await file.text());
  },
};

export type FilesApi = typeof api;
expose(api);
