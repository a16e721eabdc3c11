import type { ActionResult } from './schemaFields';

/** What a screen shows of something that is kept with every change, beside what the store is known to have. */
export interface KeptState<T> {
  /** as it last came from the store and was taken over */
  stored: T;
  /** as it is shown: with what is under way, and what was refused */
  shown: T;
  /** what the next change begins with */
  base: T;
  /** the last that is known to be in the store */
  confirmed: T;
  /** sent and not answered */
  underWay: number;
  /** of the trial that has the last that was kept: what comes from the store may be older */
  rev: number;
  /** what is shown isn't kept: the store refused it, or another tab changed the same to something else */
  refused: 'store' | 'otherTab' | null;
}

export const begun = <T>(stored: T): KeptState<T> => ({
  stored,
  shown: stored,
  base: stored,
  confirmed: stored,
  underWay: 0,
  rev: 0,
  refused: null,
});

/** A change, as it is sent. */
export const sent = <T>(s: KeptState<T>, next: T): KeptState<T> => ({
  ...s,
  shown: next,
  base: next,
  underWay: s.underWay + 1,
  refused: null,
});

/**
 * The action's answer to a change. What was refused stays on the screen, and the next change sends it again; where
 * another tab changed the same, with the rest of what it changed, so that mine then stands over theirs.
 */
export function answered<T>(s: KeptState<T>, next: T, answer: ActionResult | undefined): KeptState<T> {
  const now = { ...s, underWay: s.underWay - 1 };
  if (answer && 'errors' in answer) return { ...now, base: s.confirmed, refused: 'store' };
  if (answer && 'conflicts' in answer) {
    const theirs = answer.theirs as T;
    return { ...now, shown: answer.merged as T, base: theirs, confirmed: theirs, refused: 'otherTab' };
  }
  return { ...now, confirmed: next, rev: Math.max(s.rev, answer?.rev ?? 0) };
}

/**
 * What comes from the store takes the place of what is shown, unless that is more than the store had then: an answer
 * to the first of two changes would take the second off the screen, with the field somebody types in.
 * @param rev of the trial it is read from
 */
export const arrived = <T>(s: KeptState<T>, stored: T, rev: number): KeptState<T> =>
  s.stored === stored || s.underWay > 0 || s.refused || rev < s.rev ? s : begun(stored);
