import { type SimulatedTrait, simulateEntries } from '~core/design/simulate';
import { type Trial, emptyReview } from '~core/model/trial';
import { BY, type Day, means, sigmoid, withLog } from './demoParts';
import { planOf, traitId } from './demoTrials';

/** Running: heights of parsley, a round due today and begun. */
export function running(day: Day): Trial {
  const code = 'PAR';
  const plan = planOf({
    code,
    question: 'Which feed brings parsley on fastest?',
    crop: 'parsley',
    unitNoun: 'tray',
    startDate: day(-17),
    prediction: 'Duo Lume ahead of the others from day 17 on; Ombretta no better than water.',
    finishingRule: 'Cut together on day 31.',
    traits: [
      {
        key: 'weight',
        name: 'Cut weight',
        unit: 'g',
        kind: 'weighing',
        decimals: 1,
        summary: 'sum',
        plausibleLow: 5,
        plausibleHigh: 300,
      },
      {
        key: 'height',
        name: 'Plant height',
        unit: 'cm',
        kind: 'number',
        decimals: 1,
        summary: 'last',
        plausibleLow: 0.5,
        plausibleHigh: 40,
      },
      {
        key: 'leaves',
        name: 'Leaf count',
        unit: 'leaves',
        kind: 'count',
        decimals: 0,
        summary: 'last',
        plausibleLow: 0,
        plausibleHigh: 60,
      },
    ],
    primary: 'weight',
    smallest: { kind: 'percent', value: 8 },
    rounds: [
      { name: 'Round 1', day: 3, traits: ['height'] },
      { name: 'Round 2', day: 10, traits: ['height', 'leaves'] },
      { name: 'Round 3', day: 17, traits: ['height', 'leaves'] },
      { name: 'Round 4', day: 24, traits: ['height', 'leaves'] },
      { name: 'Harvest', day: 31, traits: ['height', 'weight'] },
    ],
    arms: [
      { key: 'water', name: 'Water', role: 'untreated' },
      {
        key: 'palestra',
        name: 'Palestra Liquida',
        role: 'reference',
        use: { product: 'palestra', amount: 5, unit: 'mL', solutionL: 0.6, times: 5 },
      },
      {
        key: 'duo',
        name: 'Duo Lume',
        role: 'test',
        use: { product: 'duo', amount: 1, unit: 'g', solutionL: 0.6, times: 14 },
      },
      {
        key: 'sarmenta',
        name: 'Sarmenta Fine',
        role: 'test',
        use: { product: 'sarmenta', amount: 0.8, unit: 'g', solutionL: 0.6, times: 14 },
      },
      {
        key: 'ombretta',
        name: 'Ombretta Bio',
        role: 'test',
        use: { product: 'ombretta', amount: 10, unit: 'mL', solutionL: 0.6, times: 9 },
      },
    ],
    areas: [
      { name: 'Level 1', rows: 2, columns: 5, widthCm: 150, depthCm: 62 },
      { name: 'Level 2', rows: 2, columns: 5, widthCm: 150, depthCm: 62 },
    ],
    design: { kind: 'rcbd', replicates: 4, seed: 2211 },
    more: (p) => ({
      ...p,
      protocolId: null,
      winning: 'More cut weight than water, by what matters or more.',
      scorer: 'Loggia',
      matchedOn: 'label',
      spares: 2,
      cvPercent: 7,
    }),
  });
  const truth: SimulatedTrait[] = [
    {
      traitId: traitId(code, 'height'),
      means: means(code, { water: 18, palestra: 20, duo: 22, sarmenta: 20.5, ombretta: 17.5 }),
      cvPercent: 6,
      blockCvPercent: 4,
      growth: sigmoid(14, 6),
    },
    {
      traitId: traitId(code, 'leaves'),
      means: means(code, { water: 15, palestra: 17, duo: 18, sarmenta: 18, ombretta: 15 }),
      cvPercent: 8,
      blockCvPercent: 4,
      growth: sigmoid(14, 6),
    },
  ];
  const simulated = simulateEntries({
    plan,
    seed: 77,
    traits: truth,
    untilDay: 10,
    partialUnits: 7,
    by: BY,
    tareG: 112.4,
  });
  return { plan, log: withLog(plan, day(-18), simulated), review: emptyReview, key: null };
}
