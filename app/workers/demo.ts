import type { DemoApi } from './demo.worker';
import { workerOf } from './pool';

const start = () => new Worker(new URL('./demo.worker.ts', import.meta.url), { type: 'module' });

/** Makes the demo bench beside the screen: its pictures are drawn and measured one by one. */
export async function demoInWorker(now: Date) {
  // One of its own for each: it is ended with its bench.
  const worker = workerOf<DemoApi>(start);
  const bench = await worker.call(async (api) => api.make(now));
  worker.stop();
  return bench;
}
