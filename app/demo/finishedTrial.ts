import { type SimulatedTrait, simulateEntries } from '~core/design/simulate';
import type { Trial } from '~core/log/trial';
import type { PanelKey } from '~core/model/panel';
import { finishedTasting } from './demoTastings';
import { BY, type Day, means, sigmoid, withLog } from './demoParts';
import type { UnitId } from '~core/model/ids';
import { type SetClaim, noCosts } from '~core/model/judgement';
import type { Plan } from '~core/model/plan';
import { mixesOf } from './demoMixes';
import { planOf, traitId, treatmentId } from './demoTrials';

/** What the rehearsal of this plan finds with these assumptions; the test rehearses it again. */
const REHEARSED = {
  of: 'c68a54678d9f0051d8f4bd30634f8c6ce9196ed154f118a909afc70fd68a306d',
  ...{ runs: 5000, seed: 4107, cvPercent: 7, hasPrediction: true, asksAsGood: false },
  ...{ right: 0.928, falseWinner: 0.0428, sees: null },
};

/** Finished: water and three feeds on coriander, five blocks on two shelf levels. */
export function finished(day: Day): { trial: Trial; panelKey: PanelKey } {
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
        expected: 10,
        name: 'Palestra Liquida',
        role: 'test',
        use: { product: 'palestra', amount: 5, unit: 'mL', solutionL: 0.8, times: 5, from: 7, every: 6 },
      },
      {
        key: 'duo',
        expected: 20,
        name: 'Duo Lume',
        role: 'test',
        use: { product: 'duo', amount: 1, unit: 'g', solutionL: 0.8, times: 15, from: 4, every: 2 },
      },
      {
        key: 'sarmenta',
        expected: 20,
        name: 'Sarmenta Fine',
        role: 'test',
        use: { product: 'sarmenta', amount: 0.8, unit: 'g', solutionL: 0.8, times: 15, from: 4, every: 2 },
      },
    ],
    areas: [
      { name: 'Level 1', rows: 2, columns: 5, widthCm: 150, depthCm: 62 },
      { name: 'Level 2', rows: 2, columns: 5, widthCm: 150, depthCm: 62 },
    ],
    design: { kind: 'rcbd', replicates: 5, seed: 4107 },
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
  const tasting = finishedTasting(plan, day, -3);
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
    { body: { kind: 'rehearsal', ...REHEARSED }, at: `${day(-39)}T16:50:00Z` },
    ...tasting.extra,
    ...minutesOf(plan, day),
    ...mixesOf(plan, day, -38, 35, { scaleStepG: 0.1, liquidStepMl: 0.5 }),
  ]);
  const [weight, height] = [plan.traits[0]!, plan.traits[1]!];
  const id = (key: string) => treatmentId('COR', key);
  const trial: Trial = {
    plan,
    log,
    review: {
      author: 'Loggia bench',
      introduction:
        'Three feeds at very different prices, one crop, and the question readers ask most: is the dear one worth it?\n\nEverything but the feed was the same: one seed lot, one bale of coir, the same rain water, the same light.',
      conclusion:
        'If leaf is what you are after, feed. Which of the two powders hardly matters; their price does.',
      headings: [
        { id: 'leaf', name: 'Yield', weight: 50, from: { kind: 'trait', traitId: weight.id } },
        { id: 'even', name: 'Evenness', weight: 10, from: { kind: 'evenness', traitId: weight.id } },
        {
          ...{ id: 'ease', name: 'Ease', weight: 10 },
          from: {
            kind: 'own',
            points: {
              [id('water')]: { points: 10, reason: 'Nothing to measure.' },
              [id('palestra')]: { points: 8, reason: 'One bottle, one cap.' },
              [id('duo')]: { points: 4, reason: 'Two powders, dissolved one after the other.' },
              [id('sarmenta')]: { points: 6, reason: 'Fine powder that dusts.' },
            },
          },
        },
        { id: 'cost', name: 'Low cost', weight: 30, from: { kind: 'cost' } },
      ],
      claims: [
        claim('palestra', 1, 'palestra', weight.id, { percent: 100 }),
        claim('duo', 2, 'duo', weight.id, { percent: 50 }),
        claim('duo', 3, 'duo', height.id, { direction: 'less' }),
        claim('sarmenta', 1, 'sarmenta', weight.id, { percent: 30, upTo: true }),
      ],
      costs: { ...noCosts, hourMinor: 1200, workAsLogged: true, limitMinor: 180 },
      disclosure: 'Sarmenta Fine was sent free of charge by its maker; nothing was promised in return.',
    },
    key: null,
    sealedAs: null,
    conflicts: [],
  };
  return { trial, panelKey: tasting.key };
}

/** Minutes as they were logged: watering for all, mixing for who is fed, and one tray that had to be propped up. */
function minutesOf(plan: Plan, day: Day) {
  const of = (key: string) =>
    plan.units.filter((u) => u.treatmentId === treatmentId('COR', key)).map((u) => u.id);
  const work = (task: string, minutes: number, unitIds: UnitId[], at: number) => ({
    body: { kind: 'work' as const, task, minutes, unitIds },
    at: `${day(at)}T18:20:00Z`,
  });
  return [-34, -24, -14].flatMap((at) => [
    work('Watering', 16, [], at),
    work('Mixing', 4, of('palestra'), at),
    work('Mixing', 14, of('duo'), at),
    work('Mixing', 9, of('sarmenta'), at),
    ...(at === -14 ? [work('Propping up', 5, of('duo').slice(0, 1), at)] : []),
  ]);
}

/** A label's claim set against a trait. */
const claim = (
  product: string,
  nth: number,
  treatment: string,
  traitId: string,
  over: Partial<SetClaim>,
): SetClaim => ({
  ...{
    claimId: `${product}-claim-${nth}`,
    productId: `demo-${product}`,
    treatmentId: treatmentId('COR', treatment),
    traitId,
  },
  ...{ direction: 'more', percent: null, upTo: false, absolute: false },
  ...over,
});
