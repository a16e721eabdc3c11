import { type SimulatedTrait, simulateEntries } from '~core/design/simulate';
import { type Trial, emptyReview } from '~core/log/trial';
import { BY, type Day, means, withLog } from './demoParts';
import { planOf, traitId } from './demoTrials';

/** Inconclusive: two trays each of two feeds and water; the spread swallows the difference. */
export function inconclusive(day: Day): Trial {
  const code = 'SUN';
  const plan = planOf({
    code,
    question: 'Do sunflower shoots need a feed at all?',
    crop: 'sunflower shoots',
    unitNoun: 'tray',
    startDate: day(-75),
    prediction: 'A little more weight with either feed.',
    finishingRule: 'All cut on day 10.',
    traits: [
      { key: 'weight', name: 'Cut weight', unit: 'g', kind: 'weighing', decimals: 0, summary: 'sum' },
      {
        key: 'height',
        name: 'Shoot height',
        unit: 'cm',
        kind: 'number',
        decimals: 1,
        summary: 'last',
        direction: 'band',
        bandLow: 6,
        bandHigh: 9,
      },
    ],
    primary: 'weight',
    smallest: { kind: 'absolute', value: 20 },
    rounds: [{ name: 'Harvest', day: 10, traits: ['height', 'weight'] }],
    arms: [
      { key: 'water', name: 'Water', role: 'untreated' },
      {
        key: 'ombretta',
        name: 'Ombretta Bio',
        role: 'test',
        use: { product: 'ombretta', amount: 10, unit: 'mL', solutionL: 0.5, times: 3 },
      },
      {
        key: 'duo',
        name: 'Duo Lume',
        role: 'test',
        use: { product: 'duo', amount: 1, unit: 'g', solutionL: 0.5, times: 5 },
      },
    ],
    areas: [{ name: 'Window shelf', rows: 1, columns: 6, widthCm: 180, depthCm: 30 }],
    design: { kind: 'crd', replicates: 2, seed: 31 },
  });
  const truth: SimulatedTrait[] = [
    {
      traitId: traitId(code, 'weight'),
      means: means(code, { water: 262, ombretta: 270, duo: 288 }),
      cvPercent: 9,
      blockCvPercent: 0,
      growth: () => 1,
    },
    {
      traitId: traitId(code, 'height'),
      means: means(code, { water: 8.1, ombretta: 8.6, duo: 9.6 }),
      cvPercent: 7,
      blockCvPercent: 0,
      growth: () => 1,
    },
  ];
  const simulated = simulateEntries({ plan, seed: 5, traits: truth, untilDay: 10, by: BY, tareG: 112.4 });
  return {
    plan,
    log: withLog(plan, day(-76), simulated),
    review: {
      ...emptyReview,
      author: 'Loggia bench',
      introduction: 'Two trays of each was all the window shelf could hold. It wasn’t enough.',
    },
    key: null,
    sealedAs: null,
    conflicts: [],
  };
}
