import { type TraitKindSpec, typedFigure, wholeNumber } from './kind';

/** Days from the start until something happened, or that it hadn't when last looked at. */
export const time: TraitKindSpec = {
  ...typedFigure,
  name: 'days until',
  observes: 'event',
  fields: ['direction', 'samples'],
  observed: ({ value, notYet }) => ({ type: 'event', happened: !notYet, day: value }),
  fault: (value) => wholeNumber(value, 'Days are whole.'),
  jumpsAreOdd: false,
  takenAs: (drawn) => Math.round(drawn),
};
