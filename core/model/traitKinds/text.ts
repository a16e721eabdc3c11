import { type TraitKindSpec, typedFigure } from './kind';

/** Words: read, not compared. They are kept as remarks on the trait. */
export const text: TraitKindSpec = {
  ...typedFigure,
  name: 'words',
  takenBy: 'words',
  observes: 'words',
  fields: [],
  observed: ({ value }) => ({ type: 'words', text: String(value) }),
  samples: () => 1,
  jumpsAreOdd: false,
};
