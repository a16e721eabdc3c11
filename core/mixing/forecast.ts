import type { PackLeft } from './packs';
import type { TreatmentId, UnitId } from '../model/ids';
import { type Plan, type ProductUse, doseAmount } from '../model/plan';
import { amountOf } from './density';
import { batchVolume, dueMixes } from './dueMixes';
import { programmeDays } from './programme';

interface StockForecast {
  /** what one feed of the trial takes, in the pack's unit: the largest of the programme's, spare included */
  perFeed: number;
  /** the first day on which the pack hasn't enough; null when it lasts */
  outOnDay: number | null;
  /** days of the programme still to come that take from it */
  ahead: number;
}

/**
 * How long a pack lasts with the feeds that are still to come.
 *
 * @param living units that still want something
 * @param fromDay first day whose feeds may still be to come
 * @param mixed treatments whose feed of that very day is in the log already
 * @returns null when the trial takes nothing from this pack
 */
export function stockForecast(
  plan: Plan,
  { product, pack, left }: Pick<PackLeft, 'product' | 'pack' | 'left'>,
  living: readonly { id: UnitId; treatmentId: TreatmentId }[],
  fromDay: number,
  mixed: ReadonlySet<TreatmentId> = new Set(),
): StockForecast | null {
  const first = product.packs[0]?.id;
  const own = (u: ProductUse) => u.productId === product.id && (u.packId ?? first) === pack.id;
  const inPack = (u: ProductUse, times: number): number => {
    const amount = amountOf(product, doseAmount(u) * times, u.unit, pack.unit);
    return amount.ok ? amount.value : 0;
  };
  const takenOn = (day: number, anyDay = false, units = living): number =>
    dueMixes(plan, day, units, anyDay).reduce((sum, due) => {
      const litres = batchVolume(due, plan.mixing.sparePercent);
      const times = litres === null ? due.unitIds.length : litres * (due.tanks ?? 1);
      return sum + due.uses.filter(own).reduce((s, u) => s + inPack(u, times), 0);
    }, 0);
  const days = programmeDays(plan);
  const perDay = days.map((day) => ({ day, taken: takenOn(day) }));
  const perFeed = Math.max(0, ...perDay.map((d) => d.taken)) || takenOn(-1, true);
  if (perFeed <= 0) return null;
  const ahead = perDay.filter((d) => d.day >= fromDay && d.taken > 0).length;
  let rest = left;
  const waiting = living.filter((u) => !mixed.has(u.treatmentId));
  for (const { day, taken } of perDay) {
    if (day < fromDay) continue;
    rest -= day === fromDay ? takenOn(day, false, waiting) : taken;
    if (rest < -1e-9) return { perFeed, outOnDay: day, ahead };
  }
  return { perFeed, outOnDay: null, ahead };
}
