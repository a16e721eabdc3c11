import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { strFromU8, strToU8, unzipSync } from 'fflate';
import Papa from 'papaparse';
import { fitsMemory } from '../imaging/pictureSize';
import { type TrialState, deriveState, ofKind } from '../log/state';
import type { Entry } from '../log/entry';
import type { Trial } from '../log/trial';
import { wallText } from '../series/moment';
import { readingsSha256 } from '../series/readingsHash';

/** A picture, by the hash the log names it by. */
interface PhotoFile {
  sha256: string;
  type: string;
  bytes: Uint8Array;
}

/** A logger’s readings: moments on the clock on the wall, ms since 1970 as if that were UTC. */
interface SeriesFile {
  seriesId: string;
  times: Float64Array;
  columns: Float64Array[];
}

/** What lies beside a trial’s log: the log names it by hash and span. */
export interface Bulk {
  photos: PhotoFile[];
  series: SeriesFile[];
}

export const noBulk: Bulk = { photos: [], series: [] };

const endings: Record<string, string> = { 'image/jpeg': 'jpg', 'image/png': 'png' };
const typeOf = (name: string) =>
  Object.entries(endings).find(([, ending]) => name.endsWith(`.${ending}`))?.[0] ?? 'image/jpeg';

/** Hashes of pictures, and ids of series with the hash of their readings, that a trial’s log names. */
export function bulkNamed(state: Pick<TrialState, 'byKind'>): {
  photos: Set<string>;
  series: Map<string, string>;
} {
  return {
    photos: new Set(
      ofKind(state, 'photo').flatMap((e) => [e.body.sha256, e.body.thumbSha256 ?? e.body.sha256]),
    ),
    series: new Map(ofKind(state, 'series').map((e) => [e.body.seriesId, e.body.sha256])),
  };
}

/** The same of a trial that is only at hand as plan and log: of its lines only those that matter here are folded. */
export function bulkNamedIn({ plan, log }: Pick<Trial, 'plan' | 'log'>): ReturnType<typeof bulkNamed> {
  const corrected = new Set(log.flatMap((e) => (e.kind === 'correction' ? [e.supersedes] : [])));
  const matters = (e: Entry) =>
    e.kind === 'photo' || e.kind === 'series' || e.kind === 'correction' || corrected.has(e.id);
  return bulkNamed(deriveState(plan, log.filter(matters)));
}

/** The files of a trial’s zip that hold its pictures and its loggers’ readings. */
export function bulkEntries(
  trial: Pick<Trial, 'plan' | 'log'>,
  { photos, series }: Bulk,
): Record<string, Uint8Array> {
  if (photos.length + series.length === 0) return {};
  const state = deriveState(trial.plan, trial.log);
  const files: Record<string, Uint8Array> = {};
  for (const p of photos) files[`photos/${p.sha256}.${endings[p.type] ?? 'jpg'}`] = p.bytes;
  const named = new Map(ofKind(state, 'series').map((e) => [e.body.seriesId, e.body.columns]));
  for (const s of series) {
    const columns = named.get(s.seriesId);
    if (!columns) continue;
    const rows = Array.from(s.times, (ms, i) => [
      wallText(ms),
      ...s.columns.map((c) => (Number.isNaN(c[i]!) ? '' : c[i]!)),
    ]);
    const text = Papa.unparse(
      { fields: ['time', ...columns.map((c) => c.name)], data: rows },
      { newline: '\n' },
    );
    files[`series/${s.seriesId}.csv`] = strToU8(`${text}\n`);
  }
  return files;
}

/** Row by row: a million rows of text at once would fill the memory. */
function readSeriesFile(seriesId: string, text: string): SeriesFile {
  let most = 0;
  for (let at = 0; at >= 0; at = text.indexOf('\n', at + 1)) most += 1;
  let times: Float64Array | null = null;
  let columns: Float64Array[] = [];
  let n = 0;
  Papa.parse<string[]>(text.trimEnd(), {
    step: ({ data: row }) => {
      if (!times) {
        times = new Float64Array(most);
        columns = row.slice(1).map(() => new Float64Array(most));
        return;
      }
      times[n] = Date.parse(`${row[0]}Z`);
      columns.forEach((c, i) => (c[n] = row[i + 1] ? Number(row[i + 1]) : NaN));
      n += 1;
    },
  });
  const own = (list: Float64Array | null) => list?.slice(0, n) ?? new Float64Array();
  return { seriesId, times: own(times), columns: columns.map(own) };
}

/** Bytes that a trial's pictures and readings may unpack to, one by one and together, and how many times their packed size. */
const MOST_BULK = {
  photo: { bytes: 60_000_000, ratio: 20 },
  series: { bytes: 200_000_000, ratio: 200 },
  total: 450_000_000,
} as const;

/**
 * Pictures and readings of a trial’s zip that its log names. What isn’t that of its hash is left out: the log says another
 * one was taken.
 *
 * @returns with the files that were left out for that, or for their size
 */
export function importBulk(
  zip: Uint8Array,
  trial: Pick<Trial, 'plan' | 'log'>,
): Bulk & { altered: string[] } {
  const altered: string[] = [];
  let total = 0;
  const files = unzipSync(zip, {
    filter: (f) => {
      if (!/^(photos|series)\/[\w.-]+$/.test(f.name)) return false;
      // Pictures are packed already, readings to a tenth: what claims to be many times its size is made to fill memory.
      const photo = f.name.startsWith('photos/');
      const most = photo ? MOST_BULK.photo : MOST_BULK.series;
      const fits = f.originalSize <= most.bytes && f.originalSize <= 10_000 + most.ratio * f.size;
      total += fits ? f.originalSize : 0;
      if (fits && total <= MOST_BULK.total) return true;
      altered.push(f.name);
      return false;
    },
  });
  const bulk: Bulk = { photos: [], series: [] };
  const parts = Object.entries(files);
  if (parts.length === 0) return { ...bulk, altered };
  const named = bulkNamedIn(trial);
  for (const [name, bytes] of parts) {
    const stem = name.replace(/^\w+\//, '').replace(/\.\w+$/, '');
    if (name.startsWith('photos/')) {
      if (!named.photos.has(stem)) continue;
      if (bytesToHex(sha256(bytes)) !== stem || !fitsMemory(bytes)) altered.push(name);
      else bulk.photos.push({ sha256: stem, type: typeOf(name), bytes });
    } else if (named.series.has(stem)) {
      const read = readSeriesFile(stem, strFromU8(bytes));
      if (readingsSha256(read.times, read.columns) === named.series.get(stem)) bulk.series.push(read);
      else altered.push(name);
    }
  }
  return { ...bulk, altered };
}
