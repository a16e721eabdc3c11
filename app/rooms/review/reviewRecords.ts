import type { z } from 'zod';
import { ReviewText } from '~core/log/trial';
import { recordForm } from '../../form/recordForm';

/** Sentences rewritten and sections left out: kept by themselves, beside what is typed in the form. */
const Own = ReviewText.pick({
  edits: true,
  hidden: true,
  order: true,
  photos: true,
  figures: true,
}).required();
export type Own = z.infer<typeof Own>;
/** That part of a review. */
export const ownOf = ({ edits, hidden, order, photos, figures }: ReviewText): Own => ({
  edits: edits ?? [],
  hidden: hidden ?? [],
  order: order ?? [],
  photos: photos ?? [],
  figures: figures ?? 'plain',
});

/** The review as its form shows and changes it. */
export const reviewRecord = recordForm({
  name: 'introduction',
  of: (review: ReviewText) => review,
  schema: ReviewText,
  apply: (_, values) => values,
});

/** Sentences of one's own, what is left out and in which order. */
export const ownRecord = recordForm({
  name: 'own',
  of: ownOf,
  schema: Own,
  apply: (review, own) => ({ ...review, ...own }),
});
