import { simulateEntries } from '~core/design/simulate';
import { type Trial, emptyReview } from '~core/log/trial';
import { BY, type Day, means, withLog } from './demoParts';
import { planOf, traitId, trialId } from './demoTrials';

/** What a product does in these trials: its dose in 0.8 L, and what a tray weighs more than with water. */
const fed = {
  palestra: { name: 'Palestra Liquida', amount: 5, unit: 'mL', gain: 1.06 },
  duo: { name: 'Duo Lume', amount: 1, unit: 'g', gain: 1.27 },
  sarmenta: { name: 'Sarmenta Fine', amount: 0.8, unit: 'g', gain: 1.31 },
  ombretta: { name: 'Ombretta Bio', amount: 10, unit: 'mL', gain: 1.1 },
} as const;
type Fed = keyof typeof fed;

interface Sketch {
  code: string;
  crop: string;
  question: string;
  ended: number;
  /** cut weight with water, g a tray */
  waterG: number;
  /** how much of the products' usual effect this crop shows */
  shows: number;
  water: boolean;
  products: readonly Fed[];
  seed: number;
  /** the trial it repeats */
  retestOf?: string;
}

const sketches: readonly Sketch[] = [
  {
    ...{
      code: 'BAS',
      crop: 'basil',
      question: 'Do the two powders do for basil what they did for coriander?',
    },
    ...{ ended: -120, waterG: 82, shows: 1, water: true, products: ['duo', 'sarmenta'], seed: 2 },
  },
  {
    ...{
      code: 'LAT',
      crop: 'lettuce',
      question: 'Which liquid for lettuce, held against the powder we know?',
    },
    ...{
      ended: -165,
      waterG: 140,
      shows: 0.8,
      water: false,
      products: ['duo', 'palestra', 'ombretta'],
      seed: 3,
    },
  },
  {
    ...{ code: 'RUC', crop: 'rocket', question: 'Is the organic liquid enough for rocket?' },
    ...{ ended: -210, waterG: 64, shows: 1.2, water: true, products: ['ombretta', 'sarmenta'], seed: 4 },
  },
  {
    ...{
      code: 'RUD',
      crop: 'rocket',
      question: 'The same once more on rocket, with the old liquid beside it?',
    },
    ...{ ended: -90, waterG: 71, shows: 1.1, water: true, retestOf: 'RUC' },
    ...{ products: ['ombretta', 'sarmenta', 'palestra'], seed: 6 },
  },
];

function earlierTrial(day: Day, s: Sketch): Trial {
  const arms = [
    ...(s.water ? [{ key: 'water', name: 'Water', role: 'untreated' as const }] : []),
    ...s.products.map((key, i) => ({
      key,
      name: fed[key].name,
      role: s.water || i > 0 ? ('test' as const) : ('reference' as const),
      use: { product: key, amount: fed[key].amount, unit: fed[key].unit, solutionL: 0.8, times: 10 },
    })),
  ];
  const plan = planOf({
    ...{ code: s.code, question: s.question, crop: s.crop, unitNoun: 'tray' },
    startDate: day(s.ended - 28),
    prediction: 'The powders ahead of the liquids.',
    finishingRule: 'All trays cut on day 28.',
    traits: [{ key: 'weight', name: 'Cut weight', unit: 'g', kind: 'weighing', decimals: 1, summary: 'sum' }],
    primary: 'weight',
    smallest: { kind: 'percent', value: 10 },
    rounds: [{ name: 'Harvest', day: 28, traits: ['weight'] }],
    arms,
    areas: [{ name: 'Level 1', rows: 3, columns: 6, widthCm: 180, depthCm: 93 }],
    design: { kind: 'rcbd', replicates: 4, seed: s.seed },
    more: (p) => (s.retestOf ? { ...p, retestOf: trialId(s.retestOf) } : p),
  });
  const truth = {
    traitId: traitId(s.code, 'weight'),
    means: means(
      s.code,
      Object.fromEntries(
        arms.map(({ key }) => [key, s.waterG * (key === 'water' ? 1 : fed[key as Fed].gain ** s.shows)]),
      ),
    ),
    ...{ cvPercent: 6, blockCvPercent: 4, growth: () => 1 },
  };
  const simulated = simulateEntries({
    plan,
    seed: s.seed,
    traits: [truth],
    untilDay: 28,
    by: BY,
    tareG: 112.4,
  });
  return {
    plan,
    log: withLog(plan, day(s.ended - 29), simulated),
    review: { ...emptyReview, author: 'Loggia bench' },
    ...{ key: null, sealedAs: null, conflicts: [] },
  };
}

/** Smaller trials of the seasons before, with the products of the later ones: what the standings are made from. */
export const earlier = (day: Day): Trial[] => sketches.map((s) => earlierTrial(day, s));
