import { type Right, holdsRight } from '../model/right';
import type { Entry } from './entry';
import { entryKinds } from './kinds';

const DAY_MS = 86_400_000;

/** Whose lines these are, and what they may bring unasked. */
export interface Bringer {
  right: Right;
  /** the one device whose lines they may be; null: any */
  device: string | null;
}

/** A line that isn't taken unasked, and why in words. */
export interface Unasked {
  line: Entry;
  why: string;
}

/** What a right lets somebody do, in words. */
export const rightWords: Record<Right, string> = {
  score: 'scores: values, pictures, remarks',
  mix: 'scores and mixes',
  plan: 'scores, mixes and plans',
  all: 'may do all, open codes too',
};

/**
 * Which lines of a copy are taken, and which wait for a word of whoever keeps the bench. A correction needs the right of what
 * it corrects, and what it corrects it to.
 *
 * @param lines that aren't here yet
 * @param known every line that is
 * @param now by the clock here: a line of later than tomorrow was written by a wrong clock, and waits too
 */
export function asked(
  lines: readonly Entry[],
  known: readonly Entry[],
  { right, device }: Bringer,
  now: Date,
): { taken: Entry[]; unasked: Unasked[] } {
  const byId = new Map<string, Entry>([...known, ...lines].map((e) => [e.id, e]));
  const mayKind = (kind: Exclude<Entry['kind'], 'correction'>) => holdsRight(right, entryKinds[kind].right);
  const may = (line: Entry): boolean => {
    const seen = new Set<string>();
    let at: Entry | undefined = line;
    while (at?.kind === 'correction' && !seen.has(at.id)) {
      seen.add(at.id);
      if (at.replacement && !mayKind(at.replacement.kind)) return false;
      at = byId.get(at.supersedes);
    }
    return at === undefined || at.kind === 'correction' || mayKind(at.kind);
  };
  const taken: Entry[] = [];
  const unasked: Unasked[] = [];
  const tomorrow = now.getTime() + 2 * DAY_MS;
  for (const line of lines) {
    if (Math.max(Date.parse(line.at), Date.parse(line.recordedAt)) > tomorrow)
      unasked.push({ line, why: 'It is dated later than tomorrow: the clock it was written by was wrong.' });
    else if (device !== null && line.device !== device)
      unasked.push({ line, why: 'It was written on another device than the one that brought it.' });
    else if (!may(line))
      unasked.push({ line, why: `More than what brought it may unasked, which ${rightWords[right]}.` });
    else taken.push(line);
  }
  return { taken, unasked };
}
