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

export const readLibraryFile = (file: Blob) => worker.call(async (api) => api.library(file));

/** Reads backups beside the screen. */
export const backupBeside: BackupReader = {
  open: (file, report) => worker.call(async (api) => api.backup(file, proxy(report))),
  photo: (photo) => worker.call(async (api) => api.backupPhoto(photo)),
  series: (filename, trial) => worker.call(async (api) => api.backupSeries(filename, trial)),
};

/** Ends what is being read, at once: nothing of it was taken in. */
export const stopReading = (): void => worker.stop();
