import type { BodyOf, Entry, EntryBody } from '../model/entry';
import type { EntryId } from '../model/ids';
import { inOrder } from './order';

/** An entry as it stands after all corrections, with everything it replaced. */
export interface ResolvedEntry<B extends EntryBody = EntryBody> {
  id: EntryId;
  body: B;
  at: string;
  recordedAt: string;
  by: string;
  /** the line that gave the standing value: the entry's own id or the winning correction's */
  standsFrom: EntryId;
  /** earlier states, oldest first; empty when never corrected */
  superseded: { entryId: EntryId; body: EntryBody; recordedAt: string; by: string; reason: string }[];
}

/** A log in order: when each line was written down, then id. The same on every device. */
export const inOrderOfRecording = (log: readonly Entry[]): Entry[] =>
  inOrder(
    log,
    (e) => e.recordedAt,
    (e) => e.recordedAt,
    (e) => e.id,
  );

/**
 * The union of two copies of a log, by id: what merging two devices' files means.
 * Idempotent, commutative and associative. Where two lines carry the same id but differ (a damaged or
 * hand-edited file), the one whose JSON sorts first is kept, so that the result doesn't depend on order.
 */
export function unionOfLogs(a: readonly Entry[], b: readonly Entry[]): Entry[] {
  const byId = new Map<string, Entry>();
  for (const entry of [...a, ...b]) {
    const known = byId.get(entry.id);
    if (known === entry) continue;
    if (!known || JSON.stringify(sorted(entry)) < JSON.stringify(sorted(known))) byId.set(entry.id, entry);
  }
  return inOrderOfRecording([...byId.values()]);
}

function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([k, v]) => [k, sorted(v)]),
  );
}

interface Standing {
  body: EntryBody | null;
  from: EntryId;
  recordedAt: string;
}

type Corrections = Map<string, Extract<Entry, { kind: 'correction' }>[]>;

/**
 * What a line stands for after corrections of it, and corrections of those. A correction that was itself
 * taken back (replacement null on a correction) doesn't count. Returns 'withdrawn' for such a line.
 */
function standing(entry: Entry, corrections: Corrections, path: ReadonlySet<string>): Standing | 'withdrawn' {
  const own: Standing =
    entry.kind === 'correction'
      ? { body: entry.replacement, from: entry.id, recordedAt: entry.recordedAt }
      : { body: entry, from: entry.id, recordedAt: entry.recordedAt };
  const later = corrections.get(entry.id);
  if (!later || path.has(entry.id)) return own;
  const deeper = new Set(path).add(entry.id);
  // The newest correction that still stands wins.
  for (let i = later.length - 1; i >= 0; i--) {
    const c = standing(later[i]!, corrections, deeper);
    if (c === 'withdrawn') continue;
    if (c.body === null && entry.kind === 'correction') return 'withdrawn';
    return c;
  }
  return own;
}

/**
 * The log with all corrections applied: entries that were taken back are gone, the others carry the
 * body that stands and what it replaced. The order of arrival doesn't matter.
 */
export function resolveLog(log: readonly Entry[]): ResolvedEntry[] {
  const corrections: Corrections = new Map();
  const lines = inOrderOfRecording(log);
  for (const e of lines) {
    if (e.kind !== 'correction') continue;
    const list = corrections.get(e.supersedes);
    if (list) list.push(e);
    else corrections.set(e.supersedes, [e]);
  }
  const resolved: ResolvedEntry[] = [];
  for (const e of lines) {
    if (e.kind === 'correction') continue;
    let body: EntryBody = e;
    let standsFrom = e.id;
    let superseded: ResolvedEntry['superseded'] = [];
    if (corrections.has(e.id)) {
      const now = standing(e, corrections, new Set());
      if (now === 'withdrawn' || now.body === null) continue;
      body = now.body;
      standsFrom = now.from;
      superseded = history(e, now, corrections);
    }
    // Written out: spreading an object here was twenty times slower on a log of 20,000 lines.
    resolved.push({ id: e.id, body, at: e.at, recordedAt: e.recordedAt, by: e.by, standsFrom, superseded });
  }
  return resolved;
}

/** Every body this entry has had apart from the standing one, oldest first. */
function history(
  entry: Exclude<Entry, { kind: 'correction' }>,
  now: Standing,
  corrections: Corrections,
): ResolvedEntry['superseded'] {
  const states = [
    { entryId: entry.id, body: entry as EntryBody, recordedAt: entry.recordedAt, by: entry.by, reason: '' },
  ];
  const visit = (id: EntryId, seen: ReadonlySet<string>) => {
    if (seen.has(id)) return;
    for (const c of corrections.get(id) ?? []) {
      if (c.replacement) {
        const { recordedAt, by, reason } = c;
        states.push({ entryId: c.id, body: c.replacement, recordedAt, by, reason });
      }
      visit(c.id, new Set(seen).add(id));
    }
  };
  visit(entry.id, new Set());
  return states.filter((s) => s.entryId !== now.from);
}

/** Resolved entries of one kind. */
export function ofKind<K extends EntryBody['kind']>(
  entries: readonly ResolvedEntry[],
  kind: K,
): ResolvedEntry<BodyOf<K>>[] {
  return entries.filter((e): e is ResolvedEntry<BodyOf<K>> => e.body.kind === kind);
}
