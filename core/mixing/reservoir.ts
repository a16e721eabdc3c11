/** A solution in a vessel: how much and how strong. */
export interface Held {
  volumeL: number;
  /** mS/cm at 25 °C, which adds up like a concentration as long as it isn't strong */
  ec: number;
}

/**
 * Two solutions poured together; the dissolved mass is kept.
 * @example poured({ volumeL: 8, ec: 2 }, { volumeL: 2, ec: 0 }) // { volumeL: 10, ec: 1.6 }
 */
export function poured(a: Held, b: Held): Held {
  const volumeL = a.volumeL + b.volumeL;
  return { volumeL, ec: volumeL > 0 ? (a.volumeL * a.ec + b.volumeL * b.ec) / volumeL : 0 };
}

/**
 * What is left when plants and air have taken pure water out and the salts stayed: the strongest it can get.
 *
 * @param lostL water gone, less than there was
 * @param takenShare share of the dissolved mass the plants took as well, 0 to 1
 * @example afterLoss({ volumeL: 10, ec: 1.6 }, 2) // { volumeL: 8, ec: 2 }
 * @throws RangeError when more is lost than there was
 */
export function afterLoss(held: Held, lostL: number, takenShare = 0): Held {
  if (!(lostL >= 0 && lostL < held.volumeL)) throw new RangeError('More was lost than there was.');
  const volumeL = held.volumeL - lostL;
  return { volumeL, ec: (held.volumeL * held.ec * (1 - takenShare)) / volumeL };
}

/**
 * Litres of water (or weaker solution) that bring a solution down to a strength; 0 when it isn't above it.
 * @param withEc strength of what is poured in, mS/cm
 * @returns L; null when it can't be reached with it
 */
export function toWeaken(held: Held, targetEc: number, withEc = 0): number | null {
  if (held.ec <= targetEc) return 0;
  return withEc < targetEc ? (held.volumeL * (held.ec - targetEc)) / (targetEc - withEc) : null;
}

/**
 * How much of a dose (in units of its planned amount per litre) brings a solution up to a strength.
 *
 * @param perDoseEc strength that one planned dose per litre adds, mS/cm: measured on the fresh mix, or estimated
 * @returns doses for the whole volume: times the amount per litre; 0 when it is strong enough
 */
export const toStrengthen = (held: Held, targetEc: number, perDoseEc: number): number =>
  perDoseEc > 0 ? Math.max(0, ((targetEc - held.ec) / perDoseEc) * held.volumeL) : 0;

/** A reading at a time. */
export interface ReadingAt {
  /** ISO date-time */
  at: string;
  value: number;
}

export interface Drift {
  start: ReadingAt;
  end: ReadingAt;
  change: number;
  days: number;
  /** change a day between first and last reading; null within an hour */
  perDay: number | null;
}

/** From the first reading to the last; null with fewer than two. Readings in any order. */
export function driftOf(readings: readonly ReadingAt[]): Drift | null {
  const sorted = [...readings].sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  const [start, end] = [sorted[0], sorted[sorted.length - 1]];
  if (!start || !end || sorted.length < 2) return null;
  const days = (Date.parse(end.at) - Date.parse(start.at)) / 86_400_000;
  const change = end.value - start.value;
  return { start, end, change, days, perDay: days >= 1 / 24 ? change / days : null };
}

/** Where a value stands in a band; null where the band doesn't say. */
export function inBand(
  value: number,
  low: number | null,
  high: number | null,
): 'below' | 'within' | 'above' | null {
  if (low === null && high === null) return null;
  if (low !== null && value < low) return 'below';
  return high !== null && value > high ? 'above' : 'within';
}

/** Acid or alkali as it was given and what it did: one point of a titration. */
export interface Titration {
  at: string;
  agent: string;
  amountMl: number;
  volumeL: number;
  phBefore: number;
  phAfter: number;
}

export interface PhCorrection {
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

/** Bands that growers use, by kind of crop. All common practice, from memory: the user's own come first. */
export const practiceBands = [
  { crop: 'seedlings and cuttings', ecLow: 0.5, ecHigh: 1, phLow: 5.5, phHigh: 6.5 },
  { crop: 'shoots on a sheet', ecLow: 0.5, ecHigh: 1.2, phLow: 5.5, phHigh: 6.8 },
  { crop: 'leaf and herbs in water', ecLow: 1, ecHigh: 1.8, phLow: 5.5, phHigh: 6.5 },
  { crop: 'fruiting crops in water', ecLow: 2, ecHigh: 3.5, phLow: 5.5, phHigh: 6.5 },
] as const;
export const PRACTICE_SOURCE = 'common practice';
