import { type TraitKindSpec, typedFigure } from './kind';

/** Place in an order made by eye, 1 is first; ties share a place. All units of a crop are put in order at once. */
export const rank: TraitKindSpec = {
  ...typedFigure,
  name: 'rank by eye',
  takenBy: 'order',
  observes: 'rank',
  fields: ['withinBlocks'],
  observed: ({ value }) => ({ type: 'rank', rank: value }),
  fault: (value) => (value >= 1 ? null : 'The first place is 1.'),
  samples: () => 1,
  jumpsAreOdd: false,
  takenAs: (drawn) => Math.max(1, Math.round(drawn)),
};
