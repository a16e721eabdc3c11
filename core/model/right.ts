import { z } from 'zod';

/**
 * What whoever brings lines may do with a trial, each with what stands before it:
 * score: values, pictures, remarks, tasks done · mix: batches and feedings · plan: plan, places, panels, what is left out ·
 * all: seal the plan, open codes and cups
 */
export const Right = z.enum(['score', 'mix', 'plan', 'all']);
export type Right = z.infer<typeof Right>;

/** Whether one right holds another. @example holds('mix', 'score') // true */
export const holdsRight = (own: Right, wanted: Right): boolean =>
  Right.options.indexOf(own) >= Right.options.indexOf(wanted);
