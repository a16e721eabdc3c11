import { type SimulatedTrait, simulateEntries } from '~core/design/simulate';
import { PRACTICE_SOURCE } from '~core/mixing/practiceBands';
import { type Trial, emptyReview } from '~core/log/trial';
import { usMeasures } from '~core/quantity/measure';
import { BY, type Day, means, sigmoid, withLog } from './demoParts';
import { planOf, traitId, treatmentId } from './demoTrials';
import { mixesOf } from './demoMixes';

/** 12 g in five US gallons, g/L (NIST SP 811). */
const TWELVE_TO_FIVE = Number((12 / (5 * 3.785411784)).toPrecision(12));
const threeParts = { from: 3, every: 2, times: 14 };

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
        use: {
          product: 'palestra',
          amount: 5,
          unit: 'mL',
          rate: '5 mL/L',
          solutionL: 0.6,
          times: 4,
          from: 3,
          every: 7,
        },
      },
      {
        key: 'duo',
        name: 'Duo Lume',
        role: 'test',
        use: [
          {
            ...{ product: 'duo', amount: 1, unit: 'g', rate: '1 g/L', solutionL: 0.6 },
            ...{ stage: 'seedling', strength: 50, from: 3, every: 2, times: 4 },
          },
          {
            ...{ product: 'duo', amount: 1, unit: 'g', rate: '1 g/L', solutionL: 0.6 },
            ...{ stage: 'leaf', from: 11, every: 2, times: 10 },
          },
        ],
      },
      {
        key: 'trittico',
        name: 'Trittico, three parts',
        role: 'test',
        use: [
          { product: 'trittico-1', amount: 0.5, unit: 'mL', rate: '0.5 mL/L', solutionL: 0.6, ...threeParts },
          {
            product: 'trittico-2',
            amount: TWELVE_TO_FIVE,
            unit: 'g',
            rate: '12 g / 5 gal',
            solutionL: 0.6,
            ...threeParts,
          },
          {
            product: 'trittico-3',
            amount: TWELVE_TO_FIVE,
            unit: 'g',
            rate: '12 g / 5 gal',
            solutionL: 0.6,
            ...threeParts,
          },
        ],
      },
      {
        key: 'ombretta',
        name: 'Ombretta Bio',
        role: 'test',
        use: {
          product: 'ombretta',
          amount: 10,
          unit: 'mL',
          rate: '10 mL/L',
          solutionL: 0.6,
          times: 8,
          from: 1,
          every: 4,
        },
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
      scaleStepG: 1,
      accepted: [
        {
          ruleId: 'dose-error',
          reason: 'More is mixed than the trays need, so that whole grams are near enough.',
        },
      ],
      mixing: {
        ...p.mixing,
        measures: usMeasures,
        regimen: 'measure',
        liquidStepMl: 0.5,
        vesselL: 10,
        water: { ec: 0.05, ph: 6.4, elementsMgPerL: { Ca: 4, Na: 2, Cl: 3 }, bicarbonateMgPerL: 12 },
        band: { ecLow: 0.3, ecHigh: 1.8, phLow: 5.5, phHigh: 6.5, source: PRACTICE_SOURCE },
      },
    }),
  });
  const truth: SimulatedTrait[] = [
    {
      traitId: traitId(code, 'height'),
      means: means(code, { water: 18, palestra: 20, duo: 22, trittico: 20.5, ombretta: 17.5 }),
      cvPercent: 6,
      blockCvPercent: 4,
      growth: sigmoid(14, 6),
    },
    {
      traitId: traitId(code, 'leaves'),
      means: means(code, { water: 15, palestra: 17, duo: 18, trittico: 18, ombretta: 15 }),
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
  const mixed = mixesOf(plan, day, -17, 17, { scaleStepG: 1, liquidStepMl: 0.5 });
  mixed.push({
    body: {
      kind: 'phDose',
      unitId: null,
      treatmentId: treatmentId(code, 'trittico'),
      batch: `${code}-D-d15`,
      agent: 'citric acid 10 %',
      amountMl: 4,
      volumeL: 8,
      phBefore: 7.1,
      phAfter: 6.2,
    },
    at: `${day(-2)}T17:24:00Z`,
  });
  return {
    plan,
    log: withLog(plan, day(-18), simulated, mixed),
    review: emptyReview,
    key: null,
    sealedAs: null,
    conflicts: [],
  };
}
