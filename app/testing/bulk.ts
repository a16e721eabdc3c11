import { bench } from '../store/bench';
import { photoFile } from '../store/bulk';
import { type Readings, chunksOf } from '../store/chunks';

/** Puts a picture on the bench as if a line had brought it. @returns the hash a line names it by */
export async function putBlob(trialId: string, bytes: Uint8Array, type: string): Promise<string> {
  const file = photoFile(bytes, type);
  await (await bench()).blobs.put({ ...file, trialId });
  return file.sha256;
}

/** Puts a logger's readings on the bench as if a line had brought them. */
export async function putSeries(trialId: string, seriesId: string, readings: Readings): Promise<void> {
  await (await bench()).series.bulkPut(chunksOf(trialId, seriesId, readings));
}
