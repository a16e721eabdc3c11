import { amountWords } from '~core/quantity/format';
import { letterOf } from '~core/plan/letters';
import { tilesOf } from '~core/plan/tiles';
import { walkOrder } from '~core/design/layOut';
import type { UnitId } from '~core/model/ids';
import type { Plan, Position, Treatment } from '~core/model/plan';
import { productCodesOf } from '~core/mixing/productCodes';
import type { BlindKey } from '~core/log/trial';
import { shortDate } from '../../ui/clock';

/** What stands on one label. */
export interface LabelContent {
  id: string;
  /** of the tile */
  index: number;
  letter: string;
  /** large: the unit's code, or what a bottle is */
  title: string;
  /** the contender's name; empty on a blind label */
  name: string;
  small: string;
  /** what the QR code says */
  qr: string;
}

/** Dose as people say it. @example doseText(…) // '5 mL per L of Palestra' */
function doseText(t: Treatment, plan: Plan): string {
  return t.products
    .map((u) => {
      const name = plan.products.find((p) => p.id === u.productId)?.name ?? '';
      return `${amountWords(u.amount, u.unit)}${u.solutionLPerUnit ? ' per L' : ''} ${name}`.trim();
    })
    .join(' + ');
}

/**
 * Labels of all units in walking order.
 * @param plan under codes for a blind variant
 * @param parts vessels of units that were split: a label for each, with the unit's code
 */
export function unitLabels(
  plan: Plan,
  positions: ReadonlyMap<UnitId, Position>,
  blind: boolean,
  parts: ReadonlyMap<UnitId, number> = new Map(),
): LabelContent[] {
  return walkOrder(plan.units, positions).flatMap((unit) => {
    const index = plan.treatments.findIndex((t) => t.id === unit.treatmentId);
    const tile = tilesOf(plan)[index]!;
    const vessels = parts.get(unit.id) ?? 1;
    return Array.from({ length: vessels }, (_, k) => ({
      id: vessels === 1 ? unit.id : `${unit.id}/${k + 1}`,
      index: tile,
      letter: letterOf(index),
      title: unit.code,
      name: blind ? '' : (plan.treatments[index]?.name ?? ''),
      small: [
        unit.block !== null && !blind ? `block ${unit.block}` : '',
        unit.setting ?? '',
        vessels === 1 ? '' : `${k + 1} of ${vessels}`,
        shortDate(plan.startDate),
      ]
        .filter(Boolean)
        .join(' · '),
      qr: unit.code,
    }));
  });
}

/** Tags for the jars that products are filled into, so that a blind mix can be made by code. */
export const jarTags = (plan: Plan, key: BlindKey): LabelContent[] =>
  productCodesOf(plan, key).map((jar) => {
    const index = key.order.indexOf(jar.treatmentId);
    return {
      id: `jar ${jar.code}`,
      index,
      letter: letterOf(index),
      title: `Jar ${jar.code}`,
      name: '',
      small: `${plan.code} · concentrate, not for drinking · keep from children`,
      qr: `${plan.code} jar ${jar.code}`,
    };
  });

/** A tag for the bottle of each contender. */
export function bottleTags(plan: Plan, blind: boolean): LabelContent[] {
  return plan.treatments.map((t, index) => ({
    id: `bottle ${t.id}`,
    index: tilesOf(plan)[index]!,
    letter: letterOf(index),
    title: 'Bottle',
    name: blind ? '' : t.name,
    small: [plan.code, blind ? '' : doseText(t, plan) || t.water || 'water', 'not for drinking']
      .filter(Boolean)
      .join(' · '),
    qr: `${plan.code} bottle ${letterOf(index)}`,
  }));
}
