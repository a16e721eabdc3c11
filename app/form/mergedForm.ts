import { z } from 'zod';
import type { MergeConflict } from '~core/model/merge';
import { type ChangeError, describeChangeError } from '../store/errors';
import type { ActionResult, FieldErrors } from './schemaFields';

/** What a form of a record sends: what it began with and what it holds now, both as typed. */
export const SentForm = z.object({ base: z.unknown(), values: z.unknown() });
export type SentForm = z.infer<typeof SentForm>;

export type MergeError =
  | { tag: 'invalid'; errors: FieldErrors }
  | { tag: 'conflicts'; conflicts: MergeConflict[]; merged: unknown; theirs: unknown };

/**
 * What an action answers where nothing was saved.
 * @param at the field a message about the whole record is shown at
 */
export function refusal(error: MergeError | ChangeError, at: string): ActionResult {
  switch (error.tag) {
    case 'invalid':
      return { errors: error.errors };
    case 'conflicts':
      return { conflicts: error.conflicts, merged: error.merged, theirs: error.theirs };
    default:
      return { errors: { [at]: describeChangeError(error) } };
  }
}
