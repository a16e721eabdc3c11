import { proxy } from 'comlink';
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

/** Ends what is being read, at once: nothing of it was taken in. */
export const stopReading = (): void => worker.stop();
