import { type TraitKindSpec, typedFigure } from './kind';

/** What is worked out from weighings on the way to constant weight. */
const fromDrying = { ...typedFigure, takenBy: 'oven' as const, jumpsAreOdd: false, samples: () => 1 };

/** Grams that are left when repeated weighings don't change any more. */
export const dryWeight: TraitKindSpec = {
  ...fromDrying,
  name: 'dry weight, to constant weight',
  observes: 'continuous',
  fields: ['direction', 'decimals', 'per', 'constant'],
  fixedUnit: 'g',
  observed: ({ value }) => ({ type: 'continuous', value }),
};

/** Of the fresh weight as it went into the oven. */
export const waterShare: TraitKindSpec = {
  ...fromDrying,
  name: 'per cent water, from the dry weight',
  observes: 'continuous',
  fields: ['direction', 'decimals'],
  fixedUnit: '%',
  observed: ({ value }) => ({ type: 'continuous', value }),
};
