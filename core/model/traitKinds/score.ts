import { type Step, type TraitKindSpec, typedFigure } from './kind';

/** Steps that can be tapped: those described, and the whole ones between the ends where there are few. */
const MOST_TAPPED = 11;

function stepsBetween(scale: readonly Step[]): Step[] {
  const values = scale.map((s) => s.value);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  if (scale.length === 0 || high - low + 1 > MOST_TAPPED) return [...scale];
  return Array.from(
    { length: high - low + 1 },
    (_, i) => scale.find((s) => s.value === low + i) ?? { value: low + i, text: '' },
  );
}

/** A step of a written scale. Half steps between two described ones are common when scoring (practice). */
export const score: TraitKindSpec = {
  ...typedFigure,
  name: 'score on a scale',
  observes: 'level',
  fields: ['direction', 'decimals', 'samples', 'scale'],
  observed: ({ value }) => ({ type: 'level', level: value }),
  fault: (value, { scale }) => {
    const steps = scale.map((s) => s.value);
    if (steps.length === 0) return null;
    const [low, high] = [Math.min(...steps), Math.max(...steps)];
    return value < low || value > high || !Number.isInteger(value * 2)
      ? `The scale goes from ${low} to ${high}, in halves at most.`
      : null;
  },
  choices: ({ scale }) => stepsBetween(scale).reverse(),
  jumpsAreOdd: false,
  takenAs: (drawn, trait) => {
    const steps = trait.scale.map((s) => s.value);
    return steps.length === 0
      ? Number(drawn.toFixed(trait.decimals))
      : Math.min(Math.max(...steps), Math.max(Math.min(...steps), Math.round(drawn)));
  },
};
