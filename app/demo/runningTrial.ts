import { type SimulatedTrait, simulateEntries } from '~core/design/simulate';
import { PRACTICE_SOURCE } from '~core/mixing/practiceBands';
import { type Trial, emptyReview } from '~core/log/trial';
import { END_EVENT, type PlannedTask } from '~core/model/task';
import { taskOn } from '~core/schedule/agenda';
import { plannedTask } from '~core/schedule/protocols/tasks';
import { usMeasures } from '~core/quantity/units';
import { type DemoSeries, demoSeries } from './demoAir';
import { type DemoPhoto, demoPhotos } from './demoPhotos';
import type { EntryId } from '~core/model/ids';
import type { PanelKey } from '~core/model/panel';
import { readyTasting } from './demoTastings';
import { BY, type Day, means, sigmoid, withLog } from './demoParts';
import { planOf, traitId, treatmentId } from './demoTrials';
import { mixesOf } from './demoMixes';

/** 12 g in five US gallons, g/L (NIST SP 811). */
const TWELVE_TO_FIVE = Number((12 / (5 * 3.785411784)).toPrecision(12));
const threeParts = { from: 3, every: 2, times: 14 };

/** What the shelf asks for beside rounds and mixing. */
const benchTasks: PlannedTask[] = [
  plannedTask(
    'cover-off',
    4,
    'Covers off, lamps on',
    'Mould comes under covers left three to five days (practice).',
  ),
  plannedTask(
    'photo',
    17,
    'Photograph every tray from the mark',
    'Only pictures from one spot can be compared.',
    {
      atHand: 'camera, mark on the floor, grey card',
      minutes: 15,
      everyDays: 7,
    },
  ),
  plannedTask('top-up', 17, 'Top up the saucers, and write down how much', 'Water used is a result.', {
    atHand: 'measuring jug',
    everyDays: 2,
  }),
  plannedTask('water', 18, 'Water all alike', 'A missed watering in one arm is another treatment.', {
    atHand: 'measuring jug',
    minutes: 10,
    everyDays: 1,
    at: '08:30',
  }),
  plannedTask('lamp', 18, 'Lamps to the same distance again', 'Taller plants stand closer to the lamp.', {
    atHand: 'tape measure',
    caution: 'Don’t stare into lamps; hang them from what holds them.',
    everyDays: 7,
  }),
  plannedTask('pests', 19, 'Look under the leaves for pests', 'What hits one arm alone is bias.', {
    atHand: 'hand lens',
    everyDays: 3,
  }),
  plannedTask('apart', 0, 'Set the trays apart, or end for all', 'Neighbours that touch shade each other.', {
    after: 'leaves of neighbours touch',
    minutes: 20,
  }),
  plannedTask('dry', 0, 'Dry what was cut, to constant weight', 'Water content differs between feeds.', {
    after: END_EVENT,
    atHand: 'paper bags with codes, oven at low heat',
    caution: 'Ventilate; low heat; nothing treated with pesticide in an oven used for food.',
    minutes: 20,
  }),
  plannedTask('dispose', 1, 'Dispose of spent solution', 'On garden soil within reason.', {
    after: END_EVENT,
    caution: 'Never into a watercourse; local rules come first.',
    minutes: 15,
  }),
  plannedTask('wash', 1, 'Wash the trays', 'The next trial starts clean.', {
    after: END_EVENT,
    atHand: 'brush, soap, gloves',
    minutes: 30,
  }),
];

/** Running: heights of parsley, a round due today and begun. */
export function running(day: Day): {
  trial: Trial;
  series: DemoSeries[];
  photos: DemoPhoto[];
  panelKey: PanelKey;
} {
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
      tasks: benchTasks,
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
    body: { kind: 'taskDone', task: taskOn('Covers off, lamps on', 4) },
    at: `${day(-13)}T08:10:00Z`,
  });
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
  const codes = (...numbers: string[]) =>
    plan.units.filter((u) => numbers.includes(u.code.slice(-2))).map((u) => u.id);
  mixed.push(
    {
      body: {
        kind: 'replacement',
        unitId: codes('12')[0]!,
        sample: null,
        reason: 'damped off under the cover',
      },
      at: `${day(-12)}T09:40:00Z`,
    },
    {
      body: {
        kind: 'deviation',
        unitIds: [],
        what: 'heat',
        text: 'sun on the shelf all afternoon, blind left up',
      },
      at: `${day(-5)}T18:30:00Z`,
    },
    {
      body: {
        kind: 'deviation',
        unitIds: codes('03', '08'),
        what: 'missedWatering',
        text: 'jug ran out, not refilled',
      },
      at: `${day(-2)}T08:50:00Z`,
    },
  );
  const [level1, level2] = plan.areas;
  const logged = { startDate: day(-17), days: 17, hotDay: 12 };
  const series = [
    demoSeries('demo-air-1', 'Logger below', level1!.id, { ...logged, warmerAtNight: 0, seed: 5 }),
    demoSeries('demo-air-2', 'Logger above', level2!.id, { ...logged, warmerAtNight: 1.8, seed: 6 }),
  ];
  mixed.push(...series.map(({ body }) => ({ body, at: `${day(0)}T07:00:00Z` })));
  // Photographed from the mark, growing from day to day, the fed ones sooner and greener.
  const ahead = [0.62, 0.86, 1, 0.93, 0.6];
  const drawn = demoPhotos(
    plan,
    {
      days: [3, 10, 17],
      each: () => 1,
      cover: (i, d) => ahead[i]! * (0.04 + 0.66 / (1 + Math.exp(-(d - 11) / 2.6))),
      leaf: (i) => ([0, 4].includes(i) ? [112, 152, 74] : [78, 142, 58]),
    },
    (d) => day(d - 17),
    (n) => `demo-${code}-extra-${n}` as EntryId,
    mixed.length + 1,
  );
  mixed.push(...drawn.lines);
  const tasting = readyTasting(plan, day);
  const trial: Trial = {
    plan,
    log: withLog(plan, day(-18), simulated, [...mixed, ...tasting.extra]),
    review: emptyReview,
    key: null,
    sealedAs: null,
    conflicts: [],
  };
  return { trial, series, photos: drawn.photos, panelKey: tasting.key };
}
