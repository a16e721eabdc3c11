import type { Plan, Treatment } from '../model/plan';
import { listNames } from '../quantity/format';
import { type SizeUnits, areaText, holdsText, sizeUnitsOf, weightText } from '../quantity/sizeText';

const conditions: readonly (readonly [label: string, pick: (t: Treatment, units: SizeUnits) => string])[] = [
  ['Crop', (t) => t.conditions.crop],
  ['Variety', (t) => t.conditions.variety],
  ['Seed lot or mother plant', (t) => t.conditions.seedLot],
  ['Start size', (t) => t.conditions.startSize],
  ['Plants in a unit', (t) => sized(t.conditions.plantsPerUnit, String)],
  ['Seed weight', (t, units) => sized(t.conditions.seedWeightG, (g) => weightText(g, units))],
  ['Thousand-seed weight', (t) => sized(t.conditions.thousandSeedG, (g) => `${g} g`)],
  ['Container', (t) => t.container],
  ['Volume', (t, units) => sized(t.conditions.containerVolumeL, (l) => holdsText(l, units))],
  ['Area', (t, units) => sized(t.conditions.areaPerUnitCm2, (a) => areaText(a, units))],
  ['Medium', (t) => `${t.medium}${t.conditions.mediumFed ? ', which carries feed' : ''}`.replace(/^, /, '')],
  ['Medium lot', (t) => t.conditions.mediumLot],
  ['System', (t) => t.system],
  ['Light', (t) => t.light],
  ['Lamp over a unit', (t) => sized(t.conditions.lampW ?? null, (w) => `${w} W`)],
  ['Hours of light', (t) => sized(t.conditions.lampHours ?? null, (h) => `${h} h a day`)],
  ['Photon flux', (t) => sized(t.conditions.ppfd ?? null, (x) => `${x} µmol m⁻² s⁻¹`)],
  ['Water', (t) => t.water],
  ['Handling', (t) => t.conditions.handling],
  ['Ended on day', (t) => sized(t.conditions.finishDay, String)],
];

const sized = (value: number | null, say: (value: number) => string) => (value === null ? '' : say(value));

/**
 * What was the same for all and what wasn't, one thing a line; what nobody filled in is left out.
 * @example conditionItems(plan)[0] // 'Seed lot or mother plant: 2026-7, for all'
 */
export function conditionItems(plan: Pick<Plan, 'treatments' | 'mixing' | 'inches'>): string[] {
  const units = sizeUnitsOf(plan);
  return conditions.flatMap(([label, pick]) => {
    const groups = new Map<string, string[]>();
    for (const t of plan.treatments)
      groups.set(pick(t, units), [...(groups.get(pick(t, units)) ?? []), t.name]);
    if (groups.size === 1) return groups.has('') ? [] : [`${label}: ${[...groups.keys()][0]}, for all.`];
    const parts = [...groups].map(([value, names]) => `${value || 'not said'} (${listNames(names)})`);
    return [`${label}, not the same for all: ${parts.join('; ')}.`];
  });
}
