import { type TraitKindSpec, typedFigure } from './kind';

/** One of one, or none of one. */
export const yesno: TraitKindSpec = {
  ...typedFigure,
  name: 'yes or no',
  observes: 'kOfN',
  fields: ['direction', 'samples', 'countsAs'],
  observed: ({ value }) => ({ type: 'kOfN', k: value, n: 1 }),
  fault: (value) => (value === 0 || value === 1 ? null : '1 for yes, 0 for no.'),
  choices: () => [
    { value: 1, text: 'yes' },
    { value: 0, text: 'no' },
  ],
  jumpsAreOdd: false,
  takenAs: (drawn) => (drawn >= 0.5 ? 1 : 0),
};
