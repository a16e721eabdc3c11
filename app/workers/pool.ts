import { type Remote, wrap } from 'comlink';

/** What went wrong beside the screen. */
export class WorkerFailedError extends Error {
  constructor(why: string) {
    super(`Working it out failed: ${why}. Nothing was changed; try again, or load the page anew.`);
    this.name = 'WorkerFailedError';
  }
}

/** Somebody ended it. */
class StoppedError extends Error {
  constructor() {
    super('Stopped. Nothing was taken in.');
    this.name = 'StoppedError';
  }
}

/**
 * A worker that is started when first needed. When it fails (out of memory, a file of an old build that is gone)
 * every task under way says so, and the next one gets a fresh worker.
 */
export function workerOf<Api>(start: () => Worker) {
  let running: { api: Remote<Api>; failed: Promise<never>; stop: () => void } | null = null;
  const get = () => {
    if (running) return running;
    const worker = start();
    let stop = () => {};
    const failed = new Promise<never>((_, reject) => {
      stop = () => {
        running = null;
        worker.terminate();
        reject(new StoppedError());
      };
      worker.addEventListener('error', (e) => {
        running = null;
        worker.terminate();
        reject(new WorkerFailedError(e.message || 'the worker could not be started'));
      });
    });
    // Whoever waits is told; nobody waiting is no fault.
    failed.catch(() => undefined);
    running = { api: wrap<Api>(worker), failed, stop };
    return running;
  };
  return {
    /** Runs one task; rejects with `WorkerFailedError` when the worker dies under it. */
    call: <T>(task: (api: Remote<Api>) => Promise<T>): Promise<T> => {
      const { api, failed } = get();
      return Promise.race([task(api), failed]);
    },
    /** Ends whatever is under way, at once; who waits gets a `StoppedError`. */
    stop: () => running?.stop(),
  };
}
