/**
 * How hard the next case is, so that in the long run three of four are right: a weighted up-down staircase (Kaernbach
 * 1991, Perception & Psychophysics 49, 227–229). A step up after each right answer and three down after each wrong one
 * balance where the share of right answers is 3/4.
 */
const STEP = 0.04;
const WANTED = 0.75;

/** Where a beginner starts: 0 is the easiest, 1 the hardest. */
export const FIRST_LEVEL = 0.2;

/** @param level 0 … 1 @example nextLevel(0.5, true) // 0.54 */
export const nextLevel = (level: number, right: boolean): number =>
  Math.min(1, Math.max(0, level + (right ? STEP : (-STEP * WANTED) / (1 - WANTED))));

/** The level after these answers, the oldest first. */
export const levelAfter = (answers: readonly { right: boolean }[]): number =>
  answers.reduce((level, { right }) => nextLevel(level, right), FIRST_LEVEL);
