import { z } from 'zod';
import { Entry } from './entry';
import { TreatmentId } from './ids';
import { Plan } from './plan';

/** What the reviewer writes around the figures; it isn't part of the sealed plan. */
export const ReviewText = z.object({
  author: z.string().trim().max(120),
  introduction: z.string().trim().max(8000),
  conclusion: z.string().trim().max(8000),
  disclosure: z.string().trim().max(4000),
});
export type ReviewText = z.infer<typeof ReviewText>;

export const emptyReview: ReviewText = { author: '', introduction: '', conclusion: '', disclosure: '' };

/** Which code each treatment has: the first of `order` is code A. Kept apart from the plan. */
export const BlindKey = z.object({ order: z.array(TreatmentId) });
export type BlindKey = z.infer<typeof BlindKey>;

/** A whole trial: what was planned, what happened, what is said about it, and the key of its codes. */
export const Trial = z.object({
  plan: Plan,
  log: z.array(Entry),
  review: ReviewText,
  key: BlindKey.nullable(),
});
export type Trial = z.infer<typeof Trial>;
