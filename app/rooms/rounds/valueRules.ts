import type { Trait } from '~core/model/plan';

/** What can't be a value of this trait, in words; null for a value that can. */
export function valueFault(trait: Trait, value: number): string | null {
  switch (trait.kind) {
    case 'count':
      return Number.isInteger(value) ? null : 'A count is a whole number.';
    case 'time':
      return Number.isInteger(value) ? null : 'Days are whole.';
    case 'ratio':
      if (!Number.isInteger(value)) return 'A count is a whole number.';
      return value > (trait.outOf ?? Infinity) ? `There are only ${trait.outOf}.` : null;
    case 'score': {
      const steps = trait.scale.map((s) => s.value);
      if (steps.length === 0) return null;
      const [low, high] = [Math.min(...steps), Math.max(...steps)];
      // Half steps between two described ones are common when scoring (practice).
      return value < low || value > high || !Number.isInteger(value * 2)
        ? `The scale goes from ${low} to ${high}, in halves at most.`
        : null;
    }
    case 'yesno':
      return value === 0 || value === 1 ? null : '1 for yes, 0 for no.';
    default:
      return null;
  }
}

/** The steps of a scale, or yes and no, best first; undefined where figures are typed. */
export function choicesOf(trait: Trait): { value: number; text: string }[] | undefined {
  if (trait.kind === 'yesno') {
    return [
      { value: 1, text: 'yes' },
      { value: 0, text: 'no' },
    ];
  }
  return trait.kind === 'score' && trait.scale.length > 0 ? [...trait.scale].reverse() : undefined;
}
