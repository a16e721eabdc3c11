import type { LoggerOptions } from '~core/series/loggerFile';
import type { LoggerApi } from './logger.worker';
import { workerOf } from './pool';
import { type OnProgress, taskOf } from './task';

const worker = workerOf<LoggerApi>(
  () => new Worker(new URL('./logger.worker.ts', import.meta.url), { type: 'module' }),
);

/** Reads a logger's file beside the screen. */
export const readLoggerInWorker = (bytes: Uint8Array, options: LoggerOptions, onProgress: OnProgress) =>
  taskOf(
    onProgress,
    (id, report) => worker.call(async (api) => api.read(id, bytes, options, report)),
    (id) => void worker.call(async (api) => api.end(id)),
  );
