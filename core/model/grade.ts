import { z } from 'zod';

/** Whether what was picked of a grade is yield: always, never, or lost to what isn't the product’s doing. */
export const gradeUses = {
  yield: 'counts as yield',
  no: 'doesn’t count',
  loss: 'lost (pests, neglect): counted only if you say so',
} as const;

/** What picked fruit is sorted into. */
export const Grade = z.object({
  name: z.string().trim().min(1, 'Name the grade.').max(40, 'Up to 40 letters.'),
  use: z.enum(['yield', 'no', 'loss']),
});
export type Grade = z.infer<typeof Grade>;

/** Fruit that rots at the blossom end where calcium doesn’t reach it (practice, from memory): nightshades and cucurbits. */
const rotting =
  /tomato|pepper|paprika|capsicum|chill?i|aubergine|eggplant|squash|courgette|zucchini|marrow|pumpkin|melon|cucumber|tomatillo/i;

/**
 * Grades to start from (practice); fruit that insects ate is lost, not the product’s doing.
 * @example usualGrades('strawberry').length // 4
 */
export const usualGrades = (crop: string): Grade[] => [
  { name: 'sound', use: 'yield' },
  { name: 'small', use: 'yield' },
  { name: 'split', use: 'no' },
  ...(rotting.test(crop) ? [{ name: 'rotten at the blossom end', use: 'no' } as const] : []),
  { name: 'eaten', use: 'loss' },
];
