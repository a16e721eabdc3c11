/** Which of day, month and year comes first in a date. */
export type DateOrder = 'ymd' | 'dmy' | 'mdy';

/**
 * A moment on the clock on the wall where the logger hung: ms since 1970 as if that clock were UTC. A file's own offset
 * (“+01:00”, “Z”) is left as it is written, so days are local days.
 */
export type WallMs = number;

const DAY_MS = 86_400_000;

const numeric =
  /^(\d{1,4})([-/. ])(\d{1,2})\2(\d{1,4})(?:[T ,]+(\d{1,2})[:.h](\d{1,2})(?:[:.](\d{1,2}(?:[.,]\d+)?))?\s*([ap]\.?\s?m\.?)?)?\s*(Z|UTC|GMT|[+-]\d{2}:?\d{2})?$/i;
const clock = /^(\d{1,2}):(\d{1,2})(?::(\d{1,2}(?:[.,]\d+)?))?\s*([ap]\.?\s?m\.?)?$/i;

/** Three figures of a date as they stand, before anyone knows what they are. */
interface Parts {
  a: number;
  b: number;
  c: number;
  /** how the year is written: four figures first, else last */
  yearFirst: boolean;
  separator: string;
  ms: number;
}

function timeOfDay(
  hour: string,
  minute: string,
  second: string | undefined,
  half: string | undefined,
): number {
  let h = Number(hour);
  if (half) {
    if (h < 1 || h > 12) return NaN;
    h = (h % 12) + (/p/i.test(half) ? 12 : 0);
  }
  const [m, s] = [Number(minute), second ? Number(second.replace(',', '.')) : 0];
  return h > 24 || m > 59 || s >= 61 ? NaN : ((h * 60 + m) * 60 + s) * 1000;
}

function partsOf(text: string): Parts | null {
  const m = numeric.exec(text);
  if (!m) return null;
  const ms = m[5] === undefined ? 0 : timeOfDay(m[5], m[6]!, m[7], m[8]);
  if (Number.isNaN(ms)) return null;
  const yearFirst = m[1]!.length === 4;
  if (!yearFirst && m[1]!.length > 2) return null;
  const year = (t: string) => (t.length <= 2 ? 2000 + Number(t) : Number(t));
  return {
    a: yearFirst ? Number(m[1]) : Number(m[1]),
    b: Number(m[3]),
    c: yearFirst ? Number(m[4]) : year(m[4]!),
    yearFirst,
    separator: m[2]!,
    ms,
  };
}

const months = [
  ['jan', 'ene', 'gen'],
  ['feb', 'fév', 'fev'],
  ['mar', 'mär', 'mrz'],
  ['apr', 'avr', 'abr'],
  ['may', 'mai', 'mag', 'maj'],
  ['jun', 'juin', 'giu'],
  ['jul', 'juil', 'lug'],
  ['aug', 'aoû', 'ago'],
  ['sep', 'set'],
  ['oct', 'okt', 'ott'],
  ['nov'],
  ['dec', 'dez', 'déc', 'dic'],
];
const named =
  /^(?:(\d{1,2})[. -]+([\p{L}.]{3,})[. -]+(\d{4})|([\p{L}.]{3,}) +(\d{1,2}),? +(\d{4}))(?:[T ,]+(\d{1,2}):(\d{1,2})(?::(\d{1,2}(?:[.,]\d+)?))?\s*([ap]\.?\s?m\.?)?)?$/iu;

function fromNamed(text: string): WallMs | null {
  const m = named.exec(text);
  if (!m) return null;
  const word = (m[2] ?? m[4]!).toLowerCase();
  const month = months.findIndex((names) => names.some((n) => word.startsWith(n)));
  const ms = m[7] === undefined ? 0 : timeOfDay(m[7], m[8]!, m[9], m[10]);
  return month < 0 ? null : dated(Number(m[3] ?? m[6]), month + 1, Number(m[1] ?? m[5]), ms);
}

function dated(year: number, month: number, day: number, ms: number): WallMs | null {
  if (month < 1 || month > 12 || day < 1 || day > 31 || Number.isNaN(ms)) return null;
  const at = Date.UTC(year, month - 1, day);
  // 31 April rolls over into May
  return new Date(at).getUTCDate() === day ? at + ms : null;
}

/** Seconds, or milliseconds, since 1970 between 2000 and 2100. */
function fromEpoch(text: string): WallMs | null {
  if (!/^\d{9,13}(?:\.\d+)?$/.test(text)) return null;
  const n = Number(text);
  const ms = n > 1e11 ? n : n * 1000;
  return ms >= 946_684_800_000 && ms < 4_102_444_800_000 ? ms : null;
}

/**
 * The moment a cell says, its date read in this order.
 * @returns null where it isn't one
 * @example parseMoment('3/4/2026 14:30', 'dmy') // Date.UTC(2026, 3, 3, 14, 30)
 */
export function parseMoment(text: string, order: DateOrder): WallMs | null {
  const p = partsOf(text);
  if (!p) return fromNamed(text) ?? fromEpoch(text);
  if (p.yearFirst) return dated(p.a, p.b, p.c, p.ms);
  return order === 'mdy' ? dated(p.c, p.a, p.b, p.ms) : dated(p.c, p.b, p.a, p.ms);
}

/**
 * In which order a column writes its dates. Points are day first, as they are where they are used; with a stroke or a
 * dash a figure above 12 tells; where none does, nobody can know.
 * @returns 'ambiguous' where both readings hold for every cell
 * @example dateOrder(['03/04/2026', '13/04/2026']) // 'dmy'
 */
export function dateOrder(cells: Iterable<string>): DateOrder | 'ambiguous' {
  let [any, dayFirst, monthFirst] = [false, false, false];
  for (const text of cells) {
    const p = partsOf(text);
    if (!p) continue;
    if (p.yearFirst) return 'ymd';
    any = true;
    if (p.separator === '.') return 'dmy';
    if (p.a > 12 && p.b <= 12) dayFirst = true;
    if (p.b > 12 && p.a <= 12) monthFirst = true;
  }
  if (!any) return 'ymd';
  return dayFirst && !monthFirst ? 'dmy' : monthFirst && !dayFirst ? 'mdy' : 'ambiguous';
}

/** A time of day alone, ms. @example parseClock('14:30') // 52200000 */
export function parseClock(text: string): number | null {
  const m = clock.exec(text);
  if (!m) return null;
  const ms = timeOfDay(m[1]!, m[2]!, m[3], m[4]);
  return Number.isNaN(ms) ? null : ms;
}

/** A moment as it is written in files. @example wallText(Date.UTC(2026, 2, 1, 6)) // '2026-03-01T06:00:00' */
export const wallText = (ms: WallMs): string => new Date(ms).toISOString().replace(/(?:\.000)?Z$/, '');

/** The day of a moment. @example wallDay(Date.UTC(2026, 2, 1, 6)) // '2026-03-01' */
export const wallDay = (ms: WallMs): string =>
  new Date(Math.floor(ms / DAY_MS) * DAY_MS).toISOString().slice(0, 10);
