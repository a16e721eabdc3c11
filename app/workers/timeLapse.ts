import { workerOf } from './pool';
import type { LapseFrame, TimeLapseApi } from './timeLapse.worker';

export type { LapseFrame } from './timeLapse.worker';

const worker = workerOf<TimeLapseApi>(
  () => new Worker(new URL('./timeLapse.worker.ts', import.meta.url), { type: 'module' }),
);

export interface Film {
  tiles: number;
  tileWidth: number;
  tileHeight: number;
  delayMs: number;
  frames: number;
  /** the n-th frame’s pictures, read when it is their turn: a season of them needn’t fit in memory */
  frame: (n: number) => Promise<LapseFrame>;
}

/**
 * Makes an animated GIF beside the screen, frame by frame.
 * @param goOn asked before each frame; false ends the film with what it has
 * @returns null where it was ended before its first frame
 */
export async function makeTimeLapse(
  film: Film,
  onProgress: (done: number) => void,
  goOn: () => boolean,
): Promise<Uint8Array<ArrayBuffer> | null> {
  const { tiles, tileWidth, tileHeight, delayMs } = film;
  const id = await worker.call(async (api) => api.begin(tiles, tileWidth, tileHeight, delayMs));
  let done = 0;
  for (; done < film.frames && goOn(); done++) {
    const frame = await film.frame(done);
    await worker.call(async (api) => api.add(id, frame));
    onProgress(done + 1);
  }
  const bytes = await worker.call(async (api) => api.end(id));
  return done === 0 ? null : Uint8Array.from(bytes);
}
