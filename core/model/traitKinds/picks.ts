import { type TraitKindSpec, typedFigure } from './kind';

/** What is worked out from picks, over all days on which every unit was looked at. */
const fromPicks = { ...typedFigure, takenBy: 'picks' as const, jumpsAreOdd: false };

/** Grams of the grades that count as yield. */
export const pickWeight: TraitKindSpec = {
  ...fromPicks,
  name: 'picks: weight of yield',
  observes: 'continuous',
  fields: ['direction', 'decimals', 'per'],
  fixedUnit: 'g',
  observed: ({ value }) => ({ type: 'continuous', value }),
};

/** Pieces of the grades that count as yield. */
export const pickCount: TraitKindSpec = {
  ...fromPicks,
  name: 'picks: number of yield',
  observes: 'count',
  fields: ['direction', 'decimals', 'per'],
  observed: ({ value }) => ({ type: 'count', count: value, exposure: 1 }),
};

/** How many of all picked count as yield. */
export const pickSound: TraitKindSpec = {
  ...fromPicks,
  name: 'picks: share that is yield',
  observes: 'kOfN',
  fields: ['direction'],
  fixedUnit: '%',
  observed: ({ value, outOf }) => ({ type: 'kOfN', k: value, n: outOf ?? 1 }),
};

/** Grams of yield for each piece of it. */
export const pickMean: TraitKindSpec = {
  ...fromPicks,
  name: 'picks: mean weight of a piece',
  observes: 'continuous',
  fields: ['direction', 'decimals'],
  fixedUnit: 'g',
  observed: ({ value }) => ({ type: 'continuous', value }),
};

/** Day of the trial on which the first yield was picked. */
export const pickFirst: TraitKindSpec = {
  ...fromPicks,
  name: 'picks: days to the first',
  observes: 'event',
  fields: ['direction'],
  fixedUnit: 'days',
  observed: ({ value, notYet }) => ({ type: 'event', happened: !notYet, day: value }),
};
