/** Takes what lies on a scale once it rests, and waits until it was taken off before it takes again. */
interface Steady {
  /** the last thing taken, g; null: nothing yet */
  takenG: number | null;
  armed: boolean;
}

export const beginSteady: Steady = { takenG: null, armed: true };

/** Below this nothing lies there, g. */
const NOTHING_G = 1;

/**
 * The next state, and the weight to take now, if any.
 * @param floorG what is there without anything to be weighed: the container's tare
 */
export function nextSteady(
  before: Steady,
  reading: { grams: number; atRest: boolean },
  floorG: number,
): { state: Steady; take: number | null } {
  const over = reading.grams - floorG;
  const takenOver = before.takenG === null ? 0 : before.takenG - floorG;
  // Taken off: less than half of what was taken is left on it.
  const armed = before.armed || over < Math.max(NOTHING_G, takenOver / 2);
  if (!armed || !reading.atRest || over < NOTHING_G) return { state: { ...before, armed }, take: null };
  return { state: { takenG: reading.grams, armed: false }, take: reading.grams };
}
