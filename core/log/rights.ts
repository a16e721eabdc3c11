import { type Right, holdsRight } from '../model/right';
import { lacksReason } from './afterOpening';
import type { Entry } from './entry';
import { entryKinds } from './kinds';
import type { TrialState } from './state';

const DAY_MS = 86_400_000;

/** Whose lines these are, and what they may bring unasked. */
export interface Bringer {
  right: Right;
  /** the one device whose lines they may be; null: any */
  device: string | null;
}

/** A line that isn't taken unasked, and why in words. */
interface Unasked {
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

/** The line that a correction is of, and every kind of line that it says: its own replacement and those on the way. */
function saidBy(line: Entry, byId: ReadonlyMap<string, Entry>) {
  const kinds: Exclude<Entry['kind'], 'correction'>[] = [];
  let at: Entry | undefined = line;
  for (let steps = 0; at?.kind === 'correction' && steps <= byId.size; steps++) {
    if (at.replacement) kinds.push(at.replacement.kind);
    at = byId.get(at.supersedes);
  }
  const root = at?.kind === 'correction' ? undefined : at;
  return { root, kinds: root ? [...kinds, root.kind] : kinds };
}

/**
 * Which lines of a copy are taken, and which wait for a word of whoever keeps the bench. A correction needs the right of what
 * it corrects, and what it corrects it to; once codes are open it needs a reason from anybody.
 *
 * @param lines that aren't here yet
 * @param here the trial as it stands
 * @param now by the clock here: a line of later than tomorrow was written by a wrong clock, and waits, but from who may all
 */
export function asked(
  lines: readonly Entry[],
  here: TrialState,
  { right, device }: Bringer,
  now: Date,
): { taken: Entry[]; unasked: Unasked[] } {
  const byId = new Map<string, Entry>([...here.log, ...lines].map((e) => [e.id, e]));
  const lacking = lacksReason(here);
  const tomorrow = right === 'all' ? Infinity : now.getTime() + 2 * DAY_MS;
  const whyNot = (line: Entry): string | null => {
    if (Math.max(Date.parse(line.at), Date.parse(line.recordedAt)) > tomorrow)
      return 'It is dated later than tomorrow: the clock it was written by was wrong.';
    if (device !== null && line.device !== device)
      return 'It was written on another device than the one that brought it.';
    const { root, kinds } = saidBy(line, byId);
    if (!kinds.every((kind) => holdsRight(right, entryKinds[kind].right)))
      return `More than what brought it may unasked, which ${rightWords[right]}.`;
    return lacking(line, root) ? 'The codes are open, and it doesn’t say why the score is changed.' : null;
  };
  const accepted: Entry[] = [];
  const unasked: Unasked[] = [];
  for (const line of lines) {
    const why = whyNot(line);
    if (why === null) accepted.push(line);
    else unasked.push({ line, why });
  }
  return { taken: accepted, unasked };
}
