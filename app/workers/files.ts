import { proxy } from 'comlink';
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

/** Reads back a trial's file that was just written. @returns why it isn't all of it; null: it is */
export const checkTrialFile = (file: Blob, lines: number) =>
  worker.call(async (api) => api.trialCheck(file, lines));

export const readLibraryFile = (file: Blob) => worker.call(async (api) => api.library(file));

/** Reads backups beside the screen. */
export const backupBeside: BackupReader = {
  open: (file, report) => worker.call(async (api) => api.backup(file, proxy(report))),
  photo: (photo) => worker.call(async (api) => api.backupPhoto(photo)),
  series: (filename, trial) => worker.call(async (api) => api.backupSeries(filename, trial)),
  check: (file, report) => worker.call(async (api) => api.backupCheck(file, proxy(report))),
};

/** Ends what is being read, at once: nothing of it was taken in. */
export const stopReading = (): void => worker.stop();
