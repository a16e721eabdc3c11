import { type TraitKindSpec, typedFigure, wholeNumber } from './kind';

/** k of n, e.g. rooted of 5 cuttings. */
export const ratio: TraitKindSpec = {
  ...typedFigure,
  name: 'k of n',
  observes: 'kOfN',
  fields: ['direction', 'outOf', 'samples', 'countsAs'],
  observed: ({ value, outOf, borderline, offType }, trait) => ({
    type: 'kOfN',
    k: value,
    n: outOf ?? trait.outOf ?? 1,
    ...(borderline && { borderline }),
    ...(offType && { offType }),
  }),
  fault: (value, trait) =>
    wholeNumber(value, 'A count is a whole number.') ??
    (value > (trait.outOf ?? Infinity) ? `There are only ${trait.outOf}.` : null),
  padUnit: (trait) => `of ${trait.outOf}`,
  jumpsAreOdd: false,
  takenAs: (drawn, trait) => Math.min(trait.outOf ?? 1, Math.round(drawn)),
};
