import type { Conditions, Plan, Treatment } from '../model/plan';
import { controlOf } from '../plan/control';
import { areaText, holdsText, sizeUnitsOf } from '../quantity/sizeText';
import { comparesCategory, differenceText, type Rule, withTreatments } from './rule';

const sameFor = (plan: Plan, change: (t: Treatment, control: Treatment) => Treatment) => {
  const like = controlOf(plan) ?? plan.treatments[0]!;
  return {
    label: `All like ${like.name}`,
    apply: () => ({ plan: withTreatments(plan, (t) => change(t, like)) }),
  };
};

/** Conditions that go together, and what each is called. */
type Named = Partial<Record<keyof Conditions, string>>;

const plantNames = { crop: 'crop', variety: 'variety', seedLot: 'seed lot', startSize: 'start size' };
const roomNames = {
  plantsPerUnit: 'plants in a unit',
  containerVolumeL: 'volume',
  areaPerUnitCm2: 'area',
};
const handlingNames = { mediumLot: 'medium lot', handling: 'handling' };

const conditionText = (plan: Plan, { conditions: c }: Treatment, key: keyof Conditions): string | null => {
  const value = c[key];
  if (value === null) return null;
  if (key === 'containerVolumeL') return holdsText(Number(value), sizeUnitsOf(plan));
  if (key === 'areaPerUnitCm2') return areaText(Number(value), sizeUnitsOf(plan));
  return String(value);
};

/** Volumes and areas up to so many times as large are alike, or nearly so (practice). */
const ALIKE = 1.02;
const NEARLY = 1.1;

/** How many times the least the largest is; Infinity where it isn't a size that may differ a little. */
function ratioOf(plan: Plan, key: keyof Conditions): number {
  if (key !== 'containerVolumeL' && key !== 'areaPerUnitCm2') return Infinity;
  const sizes = plan.treatments.flatMap((t) => t.conditions[key] ?? []);
  return sizes.length === 0 ? 1 : Math.max(...sizes) / Math.min(...sizes);
}

/** One line for every condition the treatments differ in. @param counts by how many times as much that takes */
const conditionsDiffering = (
  plan: Plan,
  names: Named,
  counts: (ratio: number) => boolean = () => true,
): string[] =>
  (Object.keys(names) as (keyof Conditions)[]).flatMap((key) => {
    if (!counts(ratioOf(plan, key))) return [];
    const text = differenceText(plan.treatments, (t) => conditionText(plan, t, key));
    return text ? [`${names[key]}: ${text}`] : [];
  });

/** All treatments take these conditions from the control. */
const sameConditions = (plan: Plan, names: Named) =>
  sameFor(plan, (t, like) => ({
    ...t,
    conditions: {
      ...t.conditions,
      ...Object.fromEntries(
        (Object.keys(names) as (keyof Conditions)[]).map((key) => [key, like.conditions[key]]),
      ),
    },
  }));

const differentPlants: Rule = {
  id: 'different-plants',
  severity: 'breaks',
  title: 'Not the same plants',
  why: '“Different varieties” is the first thing readers say.',
  check: ({ plan }) => {
    if (comparesCategory(plan, ['seed'])) return null;
    const differing = conditionsDiffering(plan, plantNames);
    if (differing.length === 0) return null;
    return {
      found: `${differing.join('. ')}.`,
      cure: 'One seed lot or clones of one plant, all of one size, for every treatment.',
      room: 'contenders',
      fix: sameConditions(plan, plantNames),
    };
  },
};

const unequalRoom: Rule = {
  id: 'unequal-room',
  severity: 'breaks',
  title: 'Unequal plants, volume or area',
  why: '“You gave one more”: a plant with more room is larger, whatever it was fed.',
  check: ({ plan }) => {
    if (plan.wholeSystem) return null;
    // Strips of different size are put right by dividing; plants with more room aren't.
    const { areaPerUnitCm2, ...others } = roomNames;
    const decides = plan.traits.find((t) => t.id === plan.primaryTraitId);
    const plants = plan.treatments.some((t) => t.conditions.plantsPerUnit !== null);
    const names = decides?.per === 'area' && !plants ? others : { ...others, areaPerUnitCm2 };
    const differing = conditionsDiffering(plan, names, (r) => r > NEARLY);
    if (differing.length === 0) return null;
    return {
      found: `${differing.join('. ')}.`,
      cure: 'The same number of plants in the same volume on the same area.',
      room: 'contenders',
      fix: sameConditions(plan, names),
    };
  },
};

const nearlyEqualRoom: Rule = {
  id: 'nearly-equal-room',
  severity: 'note',
  title: 'Nearly the same volume or area',
  why: 'A twentieth more room is little beside what plants differ by; readers ask all the same.',
  check: ({ plan }) => {
    const { plantsPerUnit: _plants, ...sizes } = roomNames;
    const differing = plan.wholeSystem
      ? []
      : conditionsDiffering(plan, sizes, (r) => r > ALIKE && r <= NEARLY);
    if (differing.length === 0) return null;
    return {
      found: `${differing.join('. ')}.`,
      cure: 'The same vessels for all, where there are any.',
      room: 'contenders',
    };
  },
};

const controlWater: Rule = {
  id: 'control-water',
  severity: 'breaks',
  title: 'Different water',
  why: 'Tap water can carry as much calcium as a feed.',
  check: ({ plan }) => {
    // Whole systems bring their water with them: what did it can't be told, which is said.
    const text = plan.wholeSystem ? null : differenceText(plan.treatments, (t) => t.water);
    if (!text) return null;
    return {
      found: `${text}.`,
      cure: 'The same water for all, the control included.',
      room: 'contenders',
      fix: sameFor(plan, (t, like) => ({ ...t, water: like.water })),
    };
  },
};

const unequalLight: Rule = {
  id: 'unequal-light',
  severity: 'breaks',
  title: 'Different light',
  why: 'Light does more than most feeds.',
  check: ({ plan }) => {
    if (plan.wholeSystem || comparesCategory(plan, ['light'])) return null;
    const text = differenceText(plan.treatments, (t) => t.light);
    if (!text) return null;
    return {
      found: `${text}.`,
      cure: 'The same lamp, hours and height for all.',
      room: 'contenders',
      fix: sameFor(plan, (t, like) => ({ ...t, light: like.light })),
    };
  },
};

const unequalHandling: Rule = {
  id: 'unequal-handling',
  severity: 'weakens',
  title: 'Different medium lot or handling',
  why: 'A second bag or another hand is a second difference.',
  check: ({ plan }) => {
    if (plan.wholeSystem) return null;
    const differing = conditionsDiffering(plan, handlingNames);
    if (differing.length === 0) return null;
    return {
      found: `${differing.join('. ')}.`,
      cure: 'One new bag, one way of handling.',
      room: 'contenders',
      fix: sameConditions(plan, handlingNames),
    };
  },
};

const unequalFinish: Rule = {
  id: 'unequal-finish',
  severity: 'breaks',
  title: 'Treatments end on different days',
  why: 'A day more is a day’s growth more.',
  check: ({ plan }) => {
    const days = plan.treatments.map((t) => t.conditions.finishDay);
    if (days.every((d) => d === days[0])) return null;
    const names = plan.treatments
      .map(
        (t) =>
          `${t.name} ${t.conditions.finishDay === null ? 'with the last round' : `on day ${t.conditions.finishDay}`}`,
      )
      .join(', ');
    return {
      found: `${names}.`,
      cure: 'All end on the same day and at the same age.',
      room: 'contenders',
      fix: {
        label: 'All end with the last round',
        apply: () => ({
          plan: withTreatments(plan, (t) => ({ ...t, conditions: { ...t.conditions, finishDay: null } })),
        }),
      },
    };
  },
};

/** Seeds in a weight. @example seedCount(12, 3) // 4000 */
export const seedCount = (weightG: number, thousandSeedG: number): number => (1000 * weightG) / thousandSeedG;

const unequalSeedCount: Rule = {
  id: 'unequal-seed-count',
  severity: 'weakens',
  title: 'Equal seed weight, unequal seed count',
  why: 'Small seeds of the same weight are more plants.',
  check: ({ plan }) => {
    const sown = plan.treatments.filter((t) => t.conditions.seedWeightG && t.conditions.thousandSeedG);
    const counts = sown.map((t) =>
      Math.round(seedCount(t.conditions.seedWeightG!, t.conditions.thousandSeedG!)),
    );
    if (sown.length < 2 || Math.max(...counts) <= 1.05 * Math.min(...counts)) return null;
    return {
      found: `Seeds in each ${plan.unitNoun}: ${sown.map((t, i) => `${t.name} ${counts[i]}`).join(', ')}.`,
      cure: 'Weigh for the same count: seeds wanted × thousand-seed weight / 1000.',
      room: 'contenders',
      fix: {
        label: 'Weigh for the same count',
        apply: () => {
          const wanted = counts[0]!;
          return {
            plan: withTreatments(plan, (t) =>
              sown.some((s) => s.id === t.id)
                ? {
                    ...t,
                    conditions: {
                      ...t.conditions,
                      seedWeightG: Number(((wanted * t.conditions.thousandSeedG!) / 1000).toPrecision(3)),
                    },
                  }
                : t,
            ),
          };
        },
      },
    };
  },
};

const nothingSaid: Rule = {
  id: 'nothing-said-alike',
  severity: 'weakens',
  title: '“The same everything else” is blank',
  why: 'Readers look here first; what isn’t written down wasn’t kept the same as far as they know.',
  check: ({ plan }) => {
    const waterText = (t: Treatment) =>
      [t.container, t.medium, t.light, t.water, t.system, t.conditions.seedLot, t.conditions.variety].some(
        (text) => text !== '',
      );
    if (plan.treatments.length < 2 || plan.treatments.some(waterText)) return null;
    return {
      found: 'Nothing is written about container, medium, light, water or seed.',
      cure: 'Fill in what they share: “copy to all” copies a line.',
      room: 'contenders',
    };
  },
};

export const samenessRules = [
  nothingSaid,
  differentPlants,
  unequalRoom,
  nearlyEqualRoom,
  controlWater,
  unequalLight,
  unequalHandling,
  unequalFinish,
  unequalSeedCount,
];
