import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { bench } from './bench';

/** Keeps a picture or file of a trial. @returns the hash a line of the log names it by */
export async function putBlob(trialId: string, bytes: Uint8Array, type: string): Promise<string> {
  const hash = bytesToHex(sha256(bytes));
  await (await bench()).blobs.put({ sha256: hash, trialId, type, bytes });
  return hash;
}

/** A picture or file by its hash; undefined when it isn't on this bench. */
export async function getBlob(hash: string): Promise<{ bytes: Uint8Array; type: string } | undefined> {
  return (await bench()).blobs.get(hash);
}

/** Readings of a logger: moments in ms since 1970, ascending, and one list a column. */
export interface Readings {
  times: Float64Array;
  columns: Float64Array[];
}

const CHUNK = 10_000;

/** Keeps a logger's readings in stretches, so that a span is read without the rest. */
export async function putSeries(
  trialId: string,
  seriesId: string,
  { times, columns }: Readings,
): Promise<void> {
  const db = await bench();
  const rows = [];
  for (let from = 0, chunk = 0; from < times.length; from += CHUNK, chunk++) {
    const part = times.slice(from, from + CHUNK);
    rows.push({
      seriesId,
      chunk,
      trialId,
      from: part[0]!,
      to: part[part.length - 1]!,
      times: part,
      columns: columns.map((c) => c.slice(from, from + CHUNK)),
    });
  }
  await db.series.bulkPut(rows);
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
