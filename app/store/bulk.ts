import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { type Bulk, bulkNamed } from '~core/formats/bulkFiles';
import type { TrialState } from '~core/log/state';
import { readingsSha256 } from '~core/series/readingsHash';
import { bench } from './bench';
import type { BenchDb } from './db';
import { type Readings, chunksOf } from './chunks';

export type { Readings };

/** A picture as it is kept, under the hash that a line of the log names it by. */
export const photoFile = (bytes: Uint8Array, type: string): Bulk['photos'][number] => ({
  ...{ sha256: bytesToHex(sha256(bytes)), type, bytes },
});

/** A picture or file by its hash; undefined when it isn't on this bench. */
export async function getBlob(hash: string): Promise<{ bytes: Uint8Array; type: string } | undefined> {
  return (await bench()).blobs.get(hash);
}

/** Pictures and readings that a trial's log names, as far as they are on this device. */
export async function bulkOf(state: Pick<TrialState, 'byKind'>): Promise<Bulk> {
  const blobs = await (await bench()).blobs.bulkGet([...bulkNamed(state).photos]);
  return { photos: blobs.filter((row) => row !== undefined), series: await seriesOf(state) };
}

/** Its readings alone: pictures may be more than memory holds. */
export async function seriesOf(state: Pick<TrialState, 'byKind'>): Promise<Bulk['series']> {
  const series: Bulk['series'] = [];
  for (const seriesId of bulkNamed(state).series.keys()) {
    const readings = await readSeries(seriesId, -Infinity, Infinity);
    if (readings.times.length > 0) series.push({ seriesId, ...readings });
  }
  return series;
}

/**
 * Keeps pictures and readings that came with a trial, inside the transaction that takes its lines: those that the log here
 * names by their hash and that aren't here yet. What is here is never put over, whoever's trial names it.
 */
export async function keepBulk(
  db: BenchDb,
  state: Pick<TrialState, 'plan' | 'byKind'>,
  { photos, series }: Bulk,
): Promise<void> {
  if (photos.length + series.length === 0) return;
  const named = bulkNamed(state);
  const trialId = state.plan.id;
  for (const photo of photos)
    if (named.photos.has(photo.sha256) && !(await db.blobs.get(photo.sha256)))
      await db.blobs.add({ ...photo, trialId });
  for (const { seriesId, ...readings } of series) {
    if (named.series.get(seriesId) !== readingsSha256(readings.times, readings.columns)) continue;
    const here = db.series.where('[seriesId+chunk]').between([seriesId, -Infinity], [seriesId, Infinity]);
    if ((await here.count()) === 0) await db.series.bulkPut(chunksOf(trialId, seriesId, readings));
  }
}

/** Readings of a series between two moments, both included. */
export async function readSeries(seriesId: string, from: number, to: number): Promise<Readings> {
  const chunks = await (
    await bench()
  ).series
    .where('[seriesId+chunk]')
    .between([seriesId, -Infinity], [seriesId, Infinity])
    .filter((c) => c.to >= from && c.from <= to)
    .toArray();
  const width = chunks[0]?.columns.length ?? 0;
  const times: number[] = [];
  const columns: number[][] = Array.from({ length: width }, () => []);
  for (const c of chunks) {
    for (let i = 0; i < c.times.length; i++) {
      if (c.times[i]! < from || c.times[i]! > to) continue;
      times.push(c.times[i]!);
      columns.forEach((column, j) => column.push(c.columns[j]![i]!));
    }
  }
  return { times: Float64Array.from(times), columns: columns.map((c) => Float64Array.from(c)) };
}
