import { type TraitKindSpec, typedFigure } from './kind';

/** Taken in Weigh-in as gross minus tare, in grams; each crop of a unit once. */
export const weighing: TraitKindSpec = {
  ...typedFigure,
  name: 'weighing',
  takenBy: 'scale',
  observes: 'continuous',
  fields: ['direction', 'plausible', 'decimals', 'summary', 'per'],
  fixedUnit: 'g',
  observed: ({ value }) => ({ type: 'continuous', value }),
  samples: () => 1,
  overCrops: 'sum',
};
