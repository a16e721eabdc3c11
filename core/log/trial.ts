import { figureRegionIds } from '../quantity/region';
import { z } from 'zod';
import { Entry } from './entry';
import { EntryId, TreatmentId } from '../model/ids';
import { CardHeading, CostSettings, SetClaim } from '../model/judgement';
import { Plan } from '../model/plan';

/** What the reviewer writes around the figures; it isn't part of the sealed plan. */
export const ReviewText = z.object({
  author: z.string().trim().max(120),
  introduction: z.string().trim().max(8000),
  conclusion: z.string().trim().max(8000),
  disclosure: z.string().trim().max(4000),
  /** the scorecard's headings; left out: none was made */
  headings: z.array(CardHeading).max(20).optional(),
  /** claims of labels set against traits */
  claims: z.array(SetClaim).max(200).optional(),
  /** sentences of the review in the reviewer's own words, beside the generated ones */
  edits: z
    .array(z.object({ was: z.string().min(1).max(4000), text: z.string().trim().min(1).max(4000) }))
    .max(200)
    .optional(),
  /** photos of the log that stand in the review, in this order; empty words: what the log says of them */
  photos: z
    .array(
      z.object({
        photoId: z.string().min(1),
        caption: z.string().trim().max(300),
        alt: z.string().trim().max(300),
      }),
    )
    .max(60)
    .optional(),
  /** how figures and days are written in the review; left out: plain */
  figures: z.enum(figureRegionIds).optional(),
  /** headings of sections in the reviewer's own order; what isn't in it stays where it was */
  order: z.array(z.string().max(200)).max(60).optional(),
  /** headings of sections that are left out of the review */
  hidden: z.array(z.string().max(200)).max(60).optional(),
  /** what is counted of the cost beside products; left out: products alone */
  costs: CostSettings.optional(),
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
  /** the plan in the words of the file version it was sealed in, where the format has changed since */
  sealedAs: z.object({ version: z.number().int(), plan: z.unknown() }).nullable(),
  /** lines of other copies that share an id with a line of the log and don't say the same */
  conflicts: z.array(z.object({ id: EntryId, other: Entry })),
});
export type Trial = z.infer<typeof Trial>;
