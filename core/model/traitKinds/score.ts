import { type TraitKindSpec, typedFigure } from './kind';

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
  choices: ({ scale }) => [...scale].reverse(),
  jumpsAreOdd: false,
  takenAs: (drawn, trait) => {
    const steps = trait.scale.map((s) => s.value);
    return steps.length === 0
      ? Number(drawn.toFixed(trait.decimals))
      : Math.min(Math.max(...steps), Math.max(Math.min(...steps), Math.round(drawn)));
  },
};
