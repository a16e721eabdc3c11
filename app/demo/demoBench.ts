import dayjs from 'dayjs';
import { type SimulatedTrait, simulateEntries } from '~core/design/simulate';
import type { Entry, EntryBody } from '~core/model/entry';
import type { EntryId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import type { Product } from '~core/model/product';
import { planSha256 } from '~core/model/seal';
import { type Trial, emptyReview } from '~core/model/trial';
import { demoProducts } from './demoProducts';
import { planOf, traitId, treatmentId } from './demoTrials';

/**
 * The demo bench: the made-up Loggia bench with trials in different states. Everything comes from seeds;
 * dates count from the day it is made.
 */
export function demoBench(now: Date): { products: Product[]; trials: Trial[] } {
  const day = (offset: number) => dayjs(now).add(offset, 'day').format('YYYY-MM-DD');
  return { products: demoProducts, trials: [finished(day), running(day), inconclusive(day), planned(day)] };
}

type Day = (offset: number) => string;
const BY = 'Loggia';

/** True means by arm key, as the simulator wants them. */
function means(code: string, byArm: Record<string, number>): SimulatedTrait['means'] {
  return Object.fromEntries(Object.entries(byArm).map(([arm, mean]) => [treatmentId(code, arm), mean]));
}

/** Seal, then the simulated log, then what else was written down. */
function withLog(
  plan: Plan,
  sealedOn: string,
  simulated: Entry[],
  extra: { body: EntryBody; at: string }[] = [],
): Entry[] {
  const write = (body: EntryBody, at: string, n: string): Entry =>
    ({ ...body, id: `demo-${plan.code}-${n}` as EntryId, at, recordedAt: at, by: BY }) as Entry;
  return [
    write({ kind: 'seal', planSha256: planSha256(plan) }, `${sealedOn}T17:30:00Z`, 'seal'),
    write(
      {
        kind: 'reading',
        quantity: 'tare',
        value: 112.4,
        subject: 'Bowl 1',
        unitId: null,
        treatmentId: null,
        instrument: 'kitchen scale',
      },
      `${sealedOn}T17:40:00Z`,
      'tare',
    ),
    ...simulated,
    ...extra.map((e, i) => write(e.body, e.at, `extra-${i + 1}`)),
  ];
}

const sigmoid = (middle: number, width: number) => (day: number) =>
  1 / (1 + Math.exp(-(day - middle) / width));

/** Finished: water and three feeds on coriander, five blocks on two shelf levels. */
function finished(day: Day): Trial {
  const code = 'COR';
  const plan = planOf({
    code,
    question: 'Does a dearer feed earn its price on coriander?',
    crop: 'coriander',
    unitNoun: 'tray',
    startDate: day(-38),
    prediction: 'All three feeds beat water by a tenth or more; the dearest is no better than the cheapest.',
    finishingRule: 'All trays cut on day 35, or earlier together when leaves of neighbours touch.',
    traits: [
      {
        key: 'weight',
        name: 'Cut weight',
        unit: 'g',
        kind: 'weighing',
        decimals: 1,
        summary: 'sum',
        plausibleLow: 5,
        plausibleHigh: 250,
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
        samplesPerUnit: 1,
      },
    ],
    primary: 'weight',
    smallest: { kind: 'percent', value: 10 },
    rounds: [
      { name: 'First heights', day: 14, traits: ['height'] },
      { name: 'Second heights', day: 28, traits: ['height'] },
      { name: 'Harvest', day: 35, traits: ['height', 'weight'] },
    ],
    arms: [
      { key: 'water', name: 'Water', role: 'untreated' },
      {
        key: 'palestra',
        name: 'Palestra Liquida',
        role: 'test',
        use: { product: 'palestra', amount: 5, unit: 'mL', solutionL: 0.8, times: 5 },
      },
      {
        key: 'duo',
        name: 'Duo Lume',
        role: 'test',
        use: { product: 'duo', amount: 1, unit: 'g', solutionL: 0.8, times: 15 },
      },
      {
        key: 'sarmenta',
        name: 'Sarmenta Fine',
        role: 'test',
        use: { product: 'sarmenta', amount: 0.8, unit: 'g', solutionL: 0.8, times: 15 },
      },
    ],
    areas: [
      { name: 'Level 1', rows: 2, columns: 5, widthCm: 150, depthCm: 110 },
      { name: 'Level 2', rows: 2, columns: 5, widthCm: 150, depthCm: 110 },
    ],
    design: { kind: 'rcbd', replicates: 5, seed: 4107 },
  });
  const truth: SimulatedTrait[] = [
    {
      traitId: traitId(code, 'weight'),
      means: means(code, { water: 58, palestra: 61, duo: 74, sarmenta: 77 }),
      cvPercent: 5.5,
      blockCvPercent: 5,
      growth: () => 1,
    },
    {
      traitId: traitId(code, 'height'),
      means: means(code, { water: 16, palestra: 16.6, duo: 19.4, sarmenta: 20 }),
      cvPercent: 5,
      blockCvPercent: 4,
      growth: sigmoid(15, 6),
    },
  ];
  const simulated = simulateEntries({ plan, seed: 902, traits: truth, untilDay: 35, by: BY, tareG: 112.4 });
  const unit = plan.units[7]!;
  const log = withLog(plan, day(-39), simulated, [
    {
      body: {
        kind: 'deviation',
        unitIds: [unit.id],
        text: 'Missed at the watering of day 12; watered six hours later.',
      },
      at: `${day(-26)}T18:05:00Z`,
    },
  ]);
  return {
    plan,
    log,
    review: {
      author: 'Loggia bench',
      introduction:
        'Three feeds at very different prices, one crop, and the question readers ask most: is the dear one worth it?\n\nEverything but the feed was the same: one seed lot, one bale of coir, the same rain water, the same light.',
      conclusion:
        'If leaf is what you are after, feed. Which of the two powders hardly matters; their price does.',
      disclosure: '',
    },
    key: null,
  };
}

/** Running: heights of parsley, a round due today and begun. */
function running(day: Day): Trial {
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
      { name: 'Level 1', rows: 2, columns: 5, widthCm: 150, depthCm: 110 },
      { name: 'Level 2', rows: 2, columns: 5, widthCm: 150, depthCm: 110 },
    ],
    design: { kind: 'rcbd', replicates: 4, seed: 2211 },
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

/** Inconclusive: two trays each of two feeds and water; the spread swallows the difference. */
function inconclusive(day: Day): Trial {
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
    areas: [{ name: 'Window shelf', rows: 1, columns: 6, widthCm: 180, depthCm: 56 }],
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
  };
}

/** Being planned: an additive on radish, not laid out yet. */
function planned(day: Day): Trial {
  const code = 'RAD';
  const plan = planOf({
    code,
    question: 'Does an algae additive make rounder radishes?',
    crop: 'radish',
    unitNoun: 'box',
    startDate: day(6),
    prediction: '',
    finishingRule: '',
    traits: [
      { key: 'weight', name: 'Root weight', unit: 'g', kind: 'weighing', decimals: 1, summary: 'sum' },
    ],
    primary: 'weight',
    smallest: null,
    rounds: [{ name: 'Harvest', day: 30, traits: ['weight'] }],
    arms: [
      {
        key: 'base',
        name: 'Base feed only',
        role: 'base',
        use: { product: 'palestra', amount: 5, unit: 'mL', solutionL: 0.5, times: 4 },
      },
      {
        key: 'mosto',
        name: 'Base + Mosto Alga',
        role: 'test',
        use: { product: 'mosto', amount: 2, unit: 'mL', solutionL: 0.5, times: 4 },
      },
    ],
    areas: [],
    design: null,
  });
  return { plan, log: [], review: emptyReview, key: null };
}
