import { simulateEntries } from '~core/design/simulate';
import type { EntryBody } from '~core/log/entry';
import { type Trial, emptyReview } from '~core/log/trial';
import { usualGrades } from '~core/model/grade';
import { seededRandom } from '~core/stats/random';
import { BY, type Day, means, withLog } from './demoParts';
import { planOf, traitId, treatmentId } from './demoTrials';

/** Days of picking so far. */
const PICKS = [58, 62, 66, 70, 74, 78];

/** A season under way: fruit is picked every four days and sorted; slugs took some, one feed brings blossom-end rot. */
export function picking(day: Day): Trial {
  const code = 'POM';
  const plan = planOf({
    code,
    question: 'Which feed gives more sound fruit in buckets?',
    crop: 'tomato',
    unitNoun: 'bucket',
    startDate: day(-80),
    prediction: 'The liquid feed gives more fruit, but more of it rots.',
    finishingRule: 'Last pick on day 100, the same day for all.',
    traits: [
      { key: 'yield', name: 'Picked weight', unit: 'g', kind: 'pickWeight', decimals: 0, summary: 'last' },
      { key: 'share', name: 'Sound fruit', unit: '%', kind: 'pickSound', decimals: 0, summary: 'last' },
      { key: 'piece', name: 'Mean fruit weight', unit: 'g', kind: 'pickMean', decimals: 0, summary: 'last' },
      {
        key: 'first',
        name: 'Days to the first pick',
        unit: 'days',
        kind: 'pickFirst',
        decimals: 0,
        summary: 'last',
        direction: 'lower',
      },
      { key: 'height', name: 'Plant height', unit: 'cm', kind: 'number', decimals: 0, summary: 'last' },
    ],
    primary: 'yield',
    smallest: { kind: 'percent', value: 15 },
    rounds: [
      { name: 'Planted out', day: 21, traits: ['height'] },
      { name: 'The end', day: 100, traits: ['height'] },
    ],
    arms: [
      { key: 'water', name: 'Water', role: 'untreated' },
      {
        key: 'palestra',
        name: 'Palestra Liquida',
        role: 'test',
        use: { product: 'palestra', amount: 5, unit: 'mL', solutionL: 1, times: 12 },
      },
      {
        key: 'ombretta',
        name: 'Ombretta Bio',
        role: 'test',
        use: { product: 'ombretta', amount: 10, unit: 'mL', solutionL: 1, times: 12 },
      },
    ],
    areas: [{ name: 'South wall', rows: 2, columns: 6, widthCm: 360, depthCm: 120 }],
    design: { kind: 'rcbd', replicates: 4, seed: 12 },
    more: (p) => ({
      ...p,
      grades: usualGrades('tomato'),
      treatments: p.treatments.map((t) => ({ ...t, container: 'bucket 12 L', light: 'open sky' })),
    }),
  });
  const simulated = simulateEntries({
    plan,
    seed: 17,
    traits: [
      {
        traitId: traitId(code, 'height'),
        means: means(code, { water: 61, palestra: 68, ombretta: 65 }),
        cvPercent: 7,
        blockCvPercent: 2,
        growth: (d) => Math.min(1, d / 21),
      },
    ],
    untilDay: 21,
    by: BY,
    tareG: 0,
  });
  const chance = seededRandom(44);
  const arms = ['water', 'palestra', 'ombretta'].map((key) => treatmentId(code, key));
  const lines: { body: EntryBody; at: string }[] = [];
  for (const [n, picked] of PICKS.entries()) {
    plan.units.forEach((unit, i) => {
      const arm = arms.indexOf(unit.treatmentId);
      // Fruit ripens in a wave; the fed ones carry more.
      const wave = [0.5, 1.6, 3.2, 4, 3.4, 2.6][n]! * [0.75, 1.35, 1.1][arm]!;
      const many = (mean: number) => Math.max(0, Math.round(mean + 0.8 * chance.normal()));
      const piece = [62, 71, 66][arm]!;
      const item = (grade: string, count: number, of: number) => ({
        grade,
        count,
        weightG: Math.round(count * of * (1 + 0.06 * chance.normal())),
      });
      const rotten = arm === 1 && chance.uniform() < 0.35 ? 1 : 0;
      const eaten = chance.uniform() < 0.12 ? 1 : 0;
      const items = [
        item('sound', many(wave), piece),
        item('small', chance.uniform() < 0.3 ? 1 : 0, 28),
        item('split', chance.uniform() < 0.1 ? 1 : 0, piece),
        item('rotten at the blossom end', rotten, piece * 0.8),
        item('eaten', eaten, piece * 0.7),
      ].filter((x) => x.count > 0);
      lines.push({
        body: {
          kind: 'pick',
          unitId: unit.id,
          items,
          note: eaten > 0 ? 'slugs' : '',
          instrument: 'kitchen scale',
        },
        at: `${day(picked - 80)}T08:${String(10 + i * 2).padStart(2, '0')}:00Z`,
      });
    });
  }
  return {
    plan,
    log: withLog(plan, day(-81), simulated, lines),
    review: { ...emptyReview, author: 'Loggia bench' },
    key: null,
    sealedAs: null,
    conflicts: [],
  };
}
