/** Acid or alkali as it was given and what it did: one point of a titration. */
export interface Titration {
  at: string;
  agent: string;
  amountMl: number;
  volumeL: number;
  phBefore: number;
  phAfter: number;
}

interface PhCorrection {
  agent: string;
  /** what the user's own last correction says the whole step would take, mL */
  fullMl: number;
  /** what to give first: half of it, since pH doesn't move in a straight line */
  firstMl: number;
  /** the correction it is worked out from */
  from: Titration;
  /** the step wanted is more than one and a half times the step that was seen */
  beyond: boolean;
}

/**
 * A pH correction worked out from the user's own last one in the same direction. Nothing is guessed: without
 * such a correction there is no figure. A straight line between two pH values is only true near them, so the
 * first half is given and read before the rest (common practice).
 *
 * @param target pH wanted; null is returned when it is reached within 0.05
 */
export function phCorrection(
  ph: number,
  target: number,
  volumeL: number,
  history: readonly Titration[],
): PhCorrection | null {
  const step = target - ph;
  if (Math.abs(step) < 0.05) return null;
  const last = [...history]
    .sort((a, b) => Date.parse(b.at) - Date.parse(a.at))
    .find((t) => (t.phAfter - t.phBefore) * step > 0 && Math.abs(t.phAfter - t.phBefore) >= 0.05);
  if (!last) return null;
  const perMlPerL = (last.phAfter - last.phBefore) / (last.amountMl / last.volumeL);
  const fullMl = (step / perMlPerL) * volumeL;
  return {
    agent: last.agent,
    fullMl,
    firstMl: fullMl / 2,
    from: last,
    beyond: Math.abs(step) > 1.5 * Math.abs(last.phAfter - last.phBefore),
  };
}
