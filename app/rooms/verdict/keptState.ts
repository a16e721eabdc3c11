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
  /** sent, and the screen isn't yet worked out anew with it */
  underWay: number;
  /** what is shown isn't kept: the store refused it */
  refused: boolean;
}

export const begun = <T>(stored: T): KeptState<T> => ({
  stored,
  shown: stored,
  base: stored,
  confirmed: stored,
  underWay: 0,
  refused: false,
});

/** A change, as it is sent. */
export const sent = <T>(s: KeptState<T>, next: T): KeptState<T> => ({
  ...s,
  shown: next,
  base: next,
  underWay: s.underWay + 1,
  refused: false,
});

/** The store's answer. What it refused stays on the screen, and the next change sends it again. */
export const answered = <T>(s: KeptState<T>, next: T, kept: boolean): KeptState<T> =>
  kept ? { ...s, confirmed: next } : { ...s, base: s.confirmed, refused: true };

/** The screen was worked out anew with one of those sent. */
export const drawn = <T>(s: KeptState<T>): KeptState<T> => ({ ...s, underWay: s.underWay - 1 });

/**
 * What comes from the store takes the place of what is shown, unless that is more than the store has: an answer to the
 * first of two changes would take the second off the screen, with the field somebody types in.
 */
export const arrived = <T>(s: KeptState<T>, stored: T): KeptState<T> =>
  s.stored === stored || s.underWay > 0 || s.refused ? s : begun(stored);
