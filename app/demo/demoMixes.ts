import { letterOf } from '~core/plan/letters';
import { seededRandom } from '~core/stats/random';
import { dueMixes } from '~core/mixing/dueMixes';
import { programmeDays } from '~core/mixing/programme';
import { type Tools, recipeOf } from '~core/mixing/recipe';
import { smallestBatch } from '~core/mixing/rounding';
import type { EntryBody } from '~core/log/entry';
import type { TreatmentId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import type { Day } from './demoParts';

/**
 * What was mixed, read and fed on the programme's days before `untilDay`, as the reviewer would have logged
 * it: batches large enough for the scale, and strength and pH of each where the regimen is to measure.
 *
 * @param order treatments in the order of their letters; of their codes in a blind trial
 * @param start offset of the trial's first day from the day the bench is made
 */
export function mixesOf(
  plan: Plan,
  day: Day,
  start: number,
  untilDay: number,
  tools: Tools,
  order: readonly TreatmentId[] = plan.treatments.map((t) => t.id),
): { body: EntryBody; at: string }[] {
  const random = seededRandom(401);
  const water = plan.mixing.water;
  return programmeDays(plan)
    .filter((d) => d < untilDay)
    .flatMap((d) => {
      const at = (minute: number) => `${day(start + d)}T17:${String(minute).padStart(2, '0')}:00Z`;
      return dueMixes(plan, d, plan.units).flatMap((due) => {
        const index = order.indexOf(due.treatmentId);
        const batch = `${plan.code}-${letterOf(index)}-d${d}`;
        const needed = (due.perUnitL ?? 0) * due.unitIds.length;
        const perL = recipeOf(due.uses, plan.products, 1, tools, water).lines.map((l) => ({
          perL: l.perBase,
          step: l.step || null,
        }));
        const volumeL = smallestBatch(perL, needed * 1.1, { mostL: 10 }) ?? needed;
        const recipe = recipeOf(due.uses, plan.products, volumeL, tools, water);
        const reading = (quantity: 'ec' | 'ph', value: number): EntryBody => ({
          kind: 'reading',
          quantity,
          value: Number(value.toFixed(quantity === 'ec' ? 2 : 1)),
          subject: `batch ${batch}`,
          unitId: null,
          treatmentId: due.treatmentId,
          instrument: 'pocket meter',
          batch,
        });
        const measured: EntryBody[] =
          plan.mixing.regimen === 'measure' && recipe.made
            ? [
                reading('ec', Math.max(0.05, recipe.made.strength.ec * (1 + 0.04 * random.normal()))),
                reading('ph', 6.1 + 0.15 * random.normal()),
              ]
            : [];
        const bodies: EntryBody[] = [
          {
            kind: 'mix',
            treatmentId: due.treatmentId,
            batch,
            volumeL,
            day: d,
            way: due.way ?? null,
            ...(tools.scaleStepG !== null && { stepG: tools.scaleStepG }),
            amounts: recipe.lines.map((l) => ({
              productId: l.product.id,
              amount: l.measured,
              unit: l.unit,
              wanted: Number(l.wanted.toPrecision(8)),
              ...(l.product.packs[0] && { packId: l.product.packs[0].id }),
            })),
          },
          ...measured,
          {
            kind: 'feed',
            unitIds: due.unitIds,
            batch,
            volumeLPerUnit: due.perUnitL ?? 0,
            day: d,
            ...(due.kind === 'flush' && { purpose: 'flush' as const }),
          },
        ];
        return bodies.map((body, i) => ({ body, at: at(index * 6 + i) }));
      });
    });
}
