import { proxy } from 'comlink';
import type { Bulk } from '~core/formats/bulkFiles';
import type { FindingRow } from '~core/account/findingRows';
import type { Trial } from '~core/log/trial';
import type { BackupReader } from './backupFile';
import type { FilesApi } from './files.worker';
import { workerOf } from './pool';
import type { Report } from './steps';

const worker = workerOf<FilesApi>(
  () => new Worker(new URL('./files.worker.ts', import.meta.url), { type: 'module' }),
);

/** Reads a trial's zip beside the screen. */
export const readTrialFile = (file: Blob, report: Report) =>
  worker.call(async (api) => api.trial(file, proxy(report)));

/** Writes a trial's file beside the screen and reads it back. @returns why it isn't all of it, null where it is */
export const writeTrialFile = (trial: Trial, bulk: Bulk, found: readonly FindingRow[]) =>
  worker.call(async (api) => api.trialWrite(trial, bulk, found));

export const readLibraryFile = (file: Blob) => worker.call(async (api) => api.library(file));

/** Reads backups beside the screen. */
export const backupBeside: BackupReader = {
  open: (file) => worker.call(async (api) => api.backup(file)),
  photo: (photo) => worker.call(async (api) => api.backupPhoto(photo)),
  trial: (filename, withSeries) => worker.call(async (api) => api.backupTrial(filename, withSeries)),
  pack: (trial, series) => worker.call(async (api) => api.backupPack(trial, series)),
  check: (file, report) => worker.call(async (api) => api.backupCheck(file, proxy(report))),
};

/** Ends what is being read, at once: nothing of it was taken in. */
export const stopReading = (): void => worker.stop();
