import type { SeriesChunk } from './db';

/** Readings of a logger: moments in ms since 1970, ascending, and one list a column. */
export interface Readings {
  times: Float64Array;
  columns: Float64Array[];
}

const CHUNK = 10_000;

/** Readings cut into stretches, so that a span is read without the rest. */
export function chunksOf(trialId: string, seriesId: string, { times, columns }: Readings): SeriesChunk[] {
  const rows: SeriesChunk[] = [];
  for (let from = 0, chunk = 0; from < times.length; from += CHUNK, chunk++) {
    const part = times.slice(from, from + CHUNK);
    rows.push({
      ...{ seriesId, chunk, trialId, times: part },
      from: part[0]!,
      to: part[part.length - 1]!,
      columns: columns.map((c) => c.slice(from, from + CHUNK)),
    });
  }
  return rows;
}
