/** A solution in a vessel: how much and how strong. */
interface VesselContent {
  volumeL: number;
  /** mS/cm at 25 °C, which adds up like a concentration as long as it isn't strong */
  ec: number;
}

/**
 * Two solutions poured together; the dissolved mass is kept.
 * @example poured({ volumeL: 8, ec: 2 }, { volumeL: 2, ec: 0 }) // { volumeL: 10, ec: 1.6 }
 */
export function poured(a: VesselContent, b: VesselContent): VesselContent {
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
export function afterLoss(held: VesselContent, lostL: number, takenShare = 0): VesselContent {
  if (!(lostL >= 0 && lostL < held.volumeL)) throw new RangeError('More was lost than there was.');
  const volumeL = held.volumeL - lostL;
  return { volumeL, ec: (held.volumeL * held.ec * (1 - takenShare)) / volumeL };
}

/**
 * Litres of water (or weaker solution) that bring a solution down to a strength; 0 when it isn't above it.
 * @param withEc strength of what is poured in, mS/cm
 * @returns L; null when it can't be reached with it
 */
export function toDilute(held: VesselContent, targetEc: number, withEc = 0): number | null {
  if (held.ec <= targetEc) return 0;
  return withEc < targetEc ? (held.volumeL * (held.ec - targetEc)) / (targetEc - withEc) : null;
}

/**
 * How much of a dose (in units of its planned amount per litre) brings a solution up to a strength.
 *
 * @param perDoseEc strength that one planned dose per litre adds, mS/cm: measured on the fresh mix, or estimated
 * @returns doses for the whole volume: times the amount per litre; 0 when it is strong enough
 */
export const toStrengthen = (held: VesselContent, targetEc: number, perDoseEc: number): number =>
  perDoseEc > 0 ? Math.max(0, ((targetEc - held.ec) / perDoseEc) * held.volumeL) : 0;

/** What water loss does to a vessel over some days, and what topping up brings back. */
type WaterOutlook =
  | { kind: 'dry'; afterDays: number }
  | {
      kind: 'holds';
      goneL: number;
      /** when only water goes: the strongest it can get */
      later: VesselContent;
      /** once what went is put back as water */
      toppedUp: VesselContent;
    };

/**
 * Looks some days ahead in a vessel that loses water.
 *
 * @param lostLPerDay L a day, ≥ 0
 * @param waterEc strength of the water it is topped up with, mS/cm
 * @example waterOutlook({ volumeL: 10, ec: 1.6 }, 1, 2, 0) // later 8 L of 2 mS/cm, topped up 10 L of 1.6
 */
export function waterOutlook(
  held: VesselContent,
  lostLPerDay: number,
  days: number,
  waterEc: number,
): WaterOutlook {
  const goneL = lostLPerDay * days;
  if (goneL >= held.volumeL) return { kind: 'dry', afterDays: held.volumeL / lostLPerDay };
  const later = afterLoss(held, goneL);
  return { kind: 'holds', goneL, later, toppedUp: poured(later, { volumeL: goneL, ec: waterEc }) };
}
