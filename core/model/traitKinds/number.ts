import { type TraitKindSpec, typedFigure } from './kind';

/** A figure read off a rule or a meter. */
export const number: TraitKindSpec = {
  ...typedFigure,
  name: 'number',
  observes: 'continuous',
  fields: ['direction', 'plausible', 'decimals', 'samples', 'summary', 'per'],
  observed: ({ value }) => ({ type: 'continuous', value }),
};
