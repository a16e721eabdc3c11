import type { BodyOf, Correction, Entry, EntryBody } from './entry';
import type { EntryId } from '../model/ids';
import { Lasting } from './lasting';
import { compareWritten, insertionIndex } from './order';

/** An entry as it stands after all corrections, with everything it replaced. */
export interface ResolvedEntry<B extends EntryBody = EntryBody> {
  id: EntryId;
  body: B;
  at: string;
  offsetMin: number | null;
  recordedAt: string;
  by: string;
  device: string;
  counter: number;
  /** the line that gave the standing value: the entry's own id or the winning correction's */
  standsFrom: EntryId;
  /** earlier states, oldest first; empty when never corrected */
  superseded: readonly Superseded[];
}

interface Superseded {
  entryId: EntryId;
  body: EntryBody;
  recordedAt: string;
  by: string;
  reason: string;
}

const none: readonly Correction[] = [];
/** Most lines are never put right: they share an empty list. */
const neverCorrected: readonly Superseded[] = [];

/** Lines of a log by id, and the corrections of each. Grows as lines are added; it belongs to one state. */
export class LogLines {
  private readonly byId = new Map<string, Entry>();
  private readonly corrections = new Map<string, Correction[]>();
  private readonly roots = new Map<string, Exclude<Entry, Correction>>();
  readonly lasting = new Lasting();
  /** lines that may last: few, and looked at anew when what lasts changes */
  private readonly mayLast: Exclude<Entry, Correction>[] = [];

  get size(): number {
    return this.byId.size;
  }

  get(id: string): Entry | undefined {
    return this.byId.get(id);
  }

  /** Corrections of a line, in the order they were written. */
  of(id: string): readonly Correction[] {
    return this.corrections.get(id) ?? none;
  }

  /** Takes a line in; false when a line with its id is there already, whose bytes then stay as they are. */
  add(entry: Entry): boolean {
    if (this.byId.has(entry.id)) return false;
    this.byId.set(entry.id, entry);
    if (entry.kind === 'correction') {
      const list = this.corrections.get(entry.supersedes);
      if (list) list.splice(insertionIndex<Correction>(list, entry, compareWritten), 0, entry);
      else this.corrections.set(entry.supersedes, [entry]);
    } else if (Lasting.may(entry)) this.mayLast.push(entry);
    this.lasting.add(entry);
    return true;
  }

  /** A line with all corrections of it, and corrections of those. */
  private treeOf(root: Entry): Entry[] {
    const tree: Entry[] = [root];
    for (let i = 0; i < tree.length; i++) tree.push(...this.of(tree[i]!.id));
    return tree;
  }

  /** Corrections that don't count, each with its reason. */
  standingAside(): { line: Correction; why: string }[] {
    return this.lastingRoots().flatMap((root) =>
      this.treeOf(root).flatMap((line) => {
        const why = line.kind === 'correction' ? this.lasting.whyNot(root, line) : null;
        return line.kind === 'correction' && why !== null ? [{ line, why }] : [];
      }),
    );
  }

  /** Why a line couldn't be taken back now, in words; null where it could. */
  whyItStays(line: Entry): string | null {
    const root = this.rootOf(line);
    return root ? this.lasting.whyNot(root, null) : null;
  }

  /** Lines that may last and were put right. */
  lastingRoots(): Exclude<Entry, Correction>[] {
    return this.mayLast.filter((e) => this.corrections.has(e.id));
  }

  /**
   * The entry that a line puts right, through any number of corrections; undefined for loose ends and rings. A way
   * once gone is kept, so that a chain costs its length and not its square.
   */
  rootOf(line: Entry): Exclude<Entry, Correction> | undefined {
    const way: Correction[] = [];
    let at: Entry | undefined = line;
    let root: Exclude<Entry, Correction> | undefined;
    while (at?.kind === 'correction' && way.length <= this.byId.size) {
      root = this.roots.get(at.id);
      if (root) break;
      way.push(at);
      at = this.byId.get(at.supersedes);
    }
    if (!root && at?.kind !== 'correction') root = at;
    if (root) for (const c of way) this.roots.set(c.id, root);
    return root;
  }
}

/** What a line says after the corrections of it: a body, nothing (taken back), or that it doesn't count. */
type Outcome = { body: EntryBody | null; from: EntryId } | 'withdrawn';

/**
 * An entry after all corrections of it, and corrections of those. Of several corrections of one line the one
 * written last stands, unless it was taken back. One pass over the corrections in question, however long the
 * chain: children are worked out before their parents.
 *
 * @returns null when the entry was taken back
 */
export function resolveEntry(entry: Exclude<Entry, Correction>, lines: LogLines): ResolvedEntry | null {
  const { id, at, offsetMin, recordedAt, by, device, counter } = entry;
  if (lines.of(id).length === 0) {
    // Written out: spreading an object here was twenty times slower on a log of 20,000 lines.
    return {
      id,
      body: entry,
      at,
      offsetMin,
      recordedAt,
      by,
      device,
      counter,
      standsFrom: id,
      superseded: neverCorrected,
    };
  }
  const lasts = Lasting.may(entry);
  const of = (line: string) =>
    lasts ? lines.of(line).filter((c) => lines.lasting.whyNot(entry, c) === null) : lines.of(line);
  const tree: Entry[] = [entry];
  for (let i = 0; i < tree.length; i++) for (const c of of(tree[i]!.id)) tree.push(c);
  const outcomes = new Map<string, Outcome>();
  for (let i = tree.length - 1; i >= 0; i--)
    outcomes.set(tree[i]!.id, outcomeOf(tree[i]!, of(tree[i]!.id), outcomes));
  const now = outcomes.get(id)!;
  if (now === 'withdrawn' || now.body === null) return null;
  const superseded = tree
    .filter((line) => line.id !== now.from)
    .flatMap((line) => supersededBy(line))
    .sort((a, b) => compareWritten(lines.get(a.entryId)!, lines.get(b.entryId)!));
  return {
    id,
    body: now.body,
    at,
    offsetMin,
    recordedAt,
    by,
    device,
    counter,
    standsFrom: now.from,
    superseded,
  };
}

function outcomeOf(
  line: Entry,
  corrections: readonly Correction[],
  outcomes: ReadonlyMap<string, Outcome>,
): Outcome {
  for (let i = corrections.length - 1; i >= 0; i--) {
    const later = outcomes.get(corrections[i]!.id)!;
    if (later === 'withdrawn') continue;
    // A correction that is taken back was never made; an entry that is taken back never happened.
    return later.body === null && line.kind === 'correction' ? 'withdrawn' : later;
  }
  return { body: line.kind === 'correction' ? line.replacement : line, from: line.id };
}

function supersededBy(line: Entry): Superseded[] {
  const body = line.kind === 'correction' ? line.replacement : line;
  const { recordedAt, by } = line;
  return body === null
    ? []
    : [{ entryId: line.id, body, recordedAt, by, reason: line.kind === 'correction' ? line.reason : '' }];
}

/** A log in the order its lines were written: the same on every device. */
export const inOrderOfWriting = (log: readonly Entry[]): Entry[] => [...log].sort(compareWritten);

/** Resolved entries of one kind. */
export const isOfKind =
  <K extends EntryBody['kind']>(kind: K) =>
  (e: ResolvedEntry): e is ResolvedEntry<BodyOf<K>> =>
    e.body.kind === kind;
