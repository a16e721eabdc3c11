import { dealCodes } from '~core/design/blinding';
import { type SimulatedTrait, simulateEntries } from '~core/design/simulate';
import { type Trial, emptyReview } from '~core/log/trial';
import { BY, type Day, means, withLog } from './demoParts';
import { mixesOf } from './demoMixes';
import { planOf, traitId } from './demoTrials';

/** Blind and ready to reveal: two root inoculants on beans, a Latin square, scored by code. */
export function blind(day: Day): Trial {
  const code = 'FAG';
  const scale = (steps: string[]) => steps.map((text, i) => ({ value: i + 1, text }));
  const plan = planOf({
    code,
    question: 'Do root inoculants do anything for dwarf beans?',
    crop: 'dwarf French beans',
    unitNoun: 'pot',
    startDate: day(-57),
    prediction: 'No difference from untreated pots; if any, more roots.',
    finishingRule: 'All pots are washed out on day 56.',
    traits: [
      { key: 'weight', name: 'Plant weight', unit: 'g', kind: 'weighing', decimals: 1, summary: 'sum' },
      {
        key: 'roots',
        name: 'Roots',
        unit: 'points',
        kind: 'score',
        decimals: 1,
        summary: 'last',
        scale: scale([
          'brown, soft or smelling',
          'few roots, partly brown',
          'white but few',
          'white, filling half of the space',
          'white, dense, filling the space',
        ]),
      },
    ],
    primary: 'weight',
    smallest: { kind: 'percent', value: 15 },
    rounds: [
      { name: 'Potted on', day: 28, traits: ['roots'] },
      { name: 'Lifting', day: 56, traits: ['weight', 'roots'] },
    ],
    arms: [
      { key: 'none', name: 'Untreated', role: 'untreated' },
      {
        key: 'palestra',
        name: 'Palestra Liquida',
        role: 'reference',
        use: { product: 'palestra', amount: 5, unit: 'mL', solutionL: 0.2, times: 6, from: 7, every: 7 },
      },
      {
        key: 'mosto',
        name: 'Mosto Alga',
        role: 'test',
        use: { product: 'mosto', amount: 2, unit: 'mL', solutionL: 0.2, times: 6, from: 7, every: 7 },
      },
      {
        key: 'ombretta',
        name: 'Ombretta Bio',
        role: 'test',
        use: { product: 'ombretta', amount: 10, unit: 'mL', solutionL: 0.2, times: 6, from: 7, every: 7 },
      },
    ],
    areas: [{ name: 'Bench by the window', rows: 4, columns: 4, widthCm: 120, depthCm: 100 }],
    design: { kind: 'latin', replicates: 4, seed: 318 },
    more: (p) => ({
      ...p,
      protocolId: 'inoculants',
      unitShape: 'round',
      unitWidthCm: 21,
      unitDepthCm: 21,
      blinding: 'scorer',
      winning: 'More plant weight than untreated pots.',
      scorer: 'Loggia',
      matchedOn: 'label',
      spares: 3,
      areas: p.areas.map((a) => ({ ...a, kind: 'bench' })),
      treatments: p.treatments.map((t) => ({ ...t, container: 'pot 21 cm', light: 'south window' })),
    }),
  });
  const truth: SimulatedTrait[] = [
    {
      traitId: traitId(code, 'weight'),
      means: means(code, { none: 84, palestra: 112, mosto: 88, ombretta: 83 }),
      cvPercent: 7,
      blockCvPercent: 6,
      growth: () => 1,
    },
    {
      traitId: traitId(code, 'roots'),
      means: means(code, { none: 3.2, palestra: 3.4, mosto: 4.1, ombretta: 3.1 }),
      cvPercent: 14,
      blockCvPercent: 3,
      growth: (d) => (d < 40 ? 0.8 : 1),
    },
  ];
  const simulated = simulateEntries({ plan, seed: 61, traits: truth, untilDay: 56, by: BY, tareG: 112.4 });
  const key = dealCodes(
    plan.treatments.map((t) => t.id),
    77,
  );
  const mixed = mixesOf(plan, day, -57, 43, { scaleStepG: null, liquidStepMl: 0.5 }, key.order);
  return {
    plan,
    log: withLog(plan, day(-58), simulated, mixed),
    review: emptyReview,
    key,
    sealedAs: null,
    conflicts: [],
  };
}
