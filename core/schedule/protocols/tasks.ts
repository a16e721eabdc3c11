import { END_EVENT, type PlannedTask } from '../../model/task';
import { cautions } from './protocol';

/** What tasks wait for, as the button that logs it says it. */
export const events = {
  emergence: 'half of the seedlings up',
  trueLeaf: 'first true leaf',
  roots: 'first roots seen',
  flower: 'first flower',
  colour: 'first fruit colours',
} as const;

type Rest = Partial<Omit<PlannedTask, 'key' | 'what' | 'day'>>;

/** A task with what it says; whatever isn't said is nothing. @example plannedTask('sow', 0, 'Sow', '').minutes // 5 */
export const plannedTask = (
  key: string,
  day: number,
  what: string,
  why: string,
  rest: Rest = {},
): PlannedTask => ({
  key,
  what,
  why,
  day,
  atHand: '',
  caution: '',
  minutes: 5,
  after: null,
  everyDays: null,
  untilDay: null,
  at: null,
  ...rest,
});

const every = (everyDays: number, untilDay: number | null = null): Rest => ({ everyDays, untilDay });

// Days are common practice, meant to be changed; the sources of those that have one are in protocols.
const soak = (hours = 8) =>
  plannedTask(
    'soak',
    -1,
    'Soak the seed, all lots alike',
    `Seed that drank for ${hours} hours comes up together.`,
    {
      atHand: 'one bowl a lot, clean water, a clock',
      minutes: 10,
      at: '21:00',
    },
  );
/** What begins as plants is set out; nothing of it is weighed as seed. */
const setOut = (what: string) =>
  plannedTask('sow', 0, what, 'Unequal starts can’t be put right later.', {
    atHand: 'plants of one size, spares, labels on every unit',
    minutes: 40,
  });
const sow = (what = 'Sow: the same weight or count of seed in each') =>
  plannedTask('sow', 0, what, 'Unequal seed can’t be put right later.', {
    atHand: 'seed weighed out, spare seed, labels on every unit',
    minutes: 40,
  });
const photo = (day: number, days: number) =>
  plannedTask(
    'photo',
    day,
    'Photograph every unit from the mark',
    'Only pictures from one spot can be compared.',
    {
      atHand: 'camera, the mark on the floor, a grey card; coloured lamps off',
      minutes: 15,
      ...every(days),
    },
  );
const topUp = (day: number, days: number) =>
  plannedTask(
    'top-up',
    day,
    'Top up, and write down how much',
    'Water used is a result; a dry vessel ends it.',
    {
      atHand: 'measuring jug, plain water',
      minutes: 10,
      ...every(days),
    },
  );
const read = (day: number, days: number) =>
  plannedTask(
    'read',
    day,
    'Read EC (strength) and pH of every vessel',
    'pH above about 7.5 begins to lock nutrients out (practice).',
    { atHand: 'calibrated meter, clean water to rinse', minutes: 15, ...every(days) },
  );
const lamp = (day: number, days: number) =>
  plannedTask(
    'lamp',
    day,
    'Set the lamps to the same distance again',
    'Taller plants stand closer to the lamp.',
    {
      atHand: 'tape measure',
      caution: cautions.lamps,
      minutes: 10,
      ...every(days),
    },
  );
const thin = (after: string | null, day: number) =>
  plannedTask(
    'thin',
    day,
    'Thin to the same number in each',
    'By the same rule and on one day, by someone who doesn’t know the names.',
    {
      after,
      atHand: 'scissors, the rule in writing',
      minutes: 20,
    },
  );
const potOn = (day: number) =>
  plannedTask('pot-on', day, 'Pot on, one label at a time', 'Identities get lost at transplanting.', {
    atHand: 'pots labelled beforehand, medium from one bag',
    caution: cautions.dust,
    minutes: 60,
  });
const pests = (day: number, days: number) =>
  plannedTask(
    'pests',
    day,
    'Look under the leaves for pests and disease',
    'What hits one arm alone is bias.',
    {
      atHand: 'hand lens',
      minutes: 10,
      ...every(days),
    },
  );
const water = (day: number, days: number, rest: Rest = {}) =>
  plannedTask('water', day, 'Water all alike', 'A missed watering in one arm is another treatment.', {
    atHand: 'measured jug',
    minutes: 10,
    ...every(days),
    ...rest,
  });
const dry = plannedTask(
  'dry',
  0,
  'Dry what was cut, to constant weight',
  'Water content differs between feeds.',
  {
    after: END_EVENT,
    atHand: 'paper bags with unit codes, oven at low heat',
    caution: 'Ventilate; low heat; nothing treated with pesticide in an oven used for food.',
    minutes: 20,
  },
);
const wash = plannedTask('wash', 1, 'Wash the containers', 'The next trial starts clean.', {
  after: END_EVENT,
  atHand: 'brush, soap, gloves',
  minutes: 30,
});
const dispose = plannedTask(
  'dispose',
  1,
  'Dispose of spent solution',
  'It goes on garden soil within reason.',
  {
    after: END_EVENT,
    atHand: 'cans',
    caution: cautions.runoff,
    minutes: 15,
  },
);

/** Shoots: pressed down, dark, uncovered, cut. */
const shoots = (coverOff: number) => [
  soak(),
  sow(),
  plannedTask(
    'weight-on',
    0,
    'Stack, weight on',
    'Weight presses the seed to the ground, so it roots evenly.',
    {
      atHand: 'an empty tray and the same weight for each',
    },
  ),
  plannedTask('weight-off', 2, 'Weight off, blackout on', 'Stems stretch evenly in the dark.', {
    atHand: 'covers of one kind',
  }),
  plannedTask(
    'cover-off',
    coverOff,
    'Cover off, lamps on',
    'Mould comes under covers left three to five days (practice).',
    {
      atHand: 'timer, spray bottle',
      caution: cautions.lamps,
      minutes: 10,
    },
  ),
  water(coverOff, 1),
  photo(coverOff, 3),
  wash,
];
const pots = (rest: PlannedTask[] = []) => [sow(), water(1, 2), pests(7, 7), photo(7, 7), ...rest, wash];
const fruiting = [
  setOut('Plant: starters of one size, the poorest left out'),
  water(1, 1),
  pests(7, 7),
  photo(7, 7),
  plannedTask(
    'pick',
    0,
    'Begin to pick, by grade',
    'Picks are weighed at one ripeness; nothing ripe is a zero.',
    {
      after: events.colour,
      atHand: 'a bowl a unit, scale',
      minutes: 30,
      ...every(7),
    },
  ),
  wash,
];

/** Tasks of each kind of trial, by the protocol’s id. */
const byProtocol: Record<string, PlannedTask[]> = {
  'shoots-feed': shoots(4),
  'shoots-sheets': shoots(3),
  'leafy-reservoirs': [
    sow(),
    thin(events.emergence, 3),
    topUp(7, 7),
    read(0, 7),
    photo(7, 7),
    lamp(14, 7),
    dry,
    dispose,
    wash,
  ],
  pods: [
    sow('Plant the pods: the same seed in each'),
    plannedTask(
      'domes-off',
      3,
      'Domes off',
      'Mould comes under domes left on after the seedlings are up (practice).',
      {
        after: events.emergence,
        atHand: 'scissors',
      },
    ),
    thin(events.emergence, 7),
    topUp(7, 7),
    plannedTask(
      'nutrient',
      14,
      'Nutrient top-up, as each label says',
      'Every 14 days for countertop devices (practice).',
      {
        atHand: 'bottles labelled, syringe',
        ...every(14),
      },
    ),
    lamp(14, 7),
    photo(7, 7),
    wash,
  ],
  'machines-crops': [sow(), topUp(3, 3), read(0, 4), photo(4, 4), dispose, wash],
  additives: [
    setOut('Plant: one jar a plant, equal size'),
    topUp(7, 7),
    read(0, 7),
    photo(7, 7),
    dry,
    dispose,
    wash,
  ],
  'submerged-root-feeds': [setOut('Plant the pots under water'), photo(7, 7), pests(7, 7)],
  lamps: [
    sow(),
    plannedTask('light-map', 0, 'Read the light at every position', 'The middle under a lamp is brighter.', {
      atHand: 'light meter',
      caution: cautions.lamps,
      minutes: 20,
    }),
    lamp(7, 7),
    water(1, 1),
    photo(7, 7),
    dry,
  ],
  systems: fruiting,
  cuttings: [
    plannedTask(
      'cut',
      0,
      'Cut and stick: one length, one number of leaves',
      'From one mother plant, dealt out by chance.',
      {
        atHand: 'clean knife, dip for each arm in a vessel of its own',
        caution: cautions.hormones,
        minutes: 60,
      },
    ),
    plannedTask('cover', 0, 'Cover on', 'Cuttings without roots lose water through leaves.', {
      atHand: 'domes',
    }),
    plannedTask('air', 7, 'Air the cover', 'Mould comes in still wet air.', every(2)),
    plannedTask('cover-off', 7, 'Cover off', 'Roots can take it.', { after: events.roots }),
    photo(14, 14),
  ],
  'soil-rows': fruiting,
  inoculants: pots([potOn(28)]),
  containers: [setOut('Plant: the same number in each'), water(1, 1), pests(14, 14), photo(14, 14), wash],
  'root-buckets': [sow(), thin(events.emergence, 10), water(1, 1), pests(7, 7), photo(14, 14), wash],
  media: fruiting,
  palms: [water(7, 7), photo(30, 30), pests(14, 14)],
  lawn: [
    plannedTask('strips', 0, 'Mark and measure the strips', 'Unequal strips are put right by their area.', {
      atHand: 'string, pegs, tape',
      minutes: 30,
    }),
    plannedTask(
      'mow',
      14,
      'Mow all strips at one height, clippings apart',
      'On one day, in the order they lie.',
      {
        atHand: 'mower, one bag a strip, scale',
        minutes: 40,
        ...every(14),
      },
    ),
    photo(7, 7),
  ],
  'seed-lots': [
    soak(12),
    sow('Sow: the same count in each pot'),
    plannedTask('cover', 0, 'Cover on', 'Seed dries out on top.', { atHand: 'film or glass' }),
    plannedTask('cover-off', 4, 'Cover off', 'Mould comes after three to five days (practice).'),
    plannedTask('count', 3, 'Count what came up', 'Days to emergence need a look every day.', {
      atHand: 'toothpicks to mark what was counted',
      ...every(1, 21),
    }),
    photo(7, 7),
  ],
  supports: [setOut('Set up: each plant with its support'), water(3, 3), pests(14, 14), photo(30, 30)],
  'buckets-programmes': fruiting,
};

/** What is usually done when in a kind of trial; the plan takes a copy, which can be changed. */
export const tasksOf = (protocolId: string): PlannedTask[] => byProtocol[protocolId] ?? [];
