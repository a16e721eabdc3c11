import { type TraitKindSpec, typedFigure, wholeNumber } from './kind';

/** So many leaves, fruits, tubers. */
export const count: TraitKindSpec = {
  ...typedFigure,
  name: 'count',
  observes: 'count',
  fields: ['direction', 'plausible', 'decimals', 'samples', 'summary', 'per', 'halves', 'countsAs'],
  observed: ({ value }) => ({ type: 'count', count: value, exposure: 1 }),
  fault: (value, { halfSteps }) =>
    halfSteps
      ? Number.isInteger(value * 2)
        ? null
        : 'Whole or half.'
      : wholeNumber(value, 'A count is a whole number.'),
  takenAs: (drawn) => Math.round(drawn),
};
