import type { CoverOptions, PhotosApi } from './photos.worker';
import { workerOf } from './pool';

export type { PreparedPhoto } from './photos.worker';

const worker = workerOf<PhotosApi>(
  () => new Worker(new URL('./photos.worker.ts', import.meta.url), { type: 'module' }),
);

/** Makes a picture ready to be kept, beside the screen. */
export const preparePhoto = (bytes: Uint8Array<ArrayBuffer>) =>
  worker.call(async (api) => api.prepare(bytes));
export const readCodeInFrame = (frame: ImageData) =>
  worker.call(async (api) => api.readCode(frame.data, frame.width, frame.height));
export const balanceAt = (bytes: Uint8Array<ArrayBuffer>, at: { x: number; y: number }) =>
  worker.call(async (api) => api.balance(bytes, at));
export const coverOf = (bytes: Uint8Array<ArrayBuffer>, options: CoverOptions) =>
  worker.call(async (api) => api.cover(bytes, options));
