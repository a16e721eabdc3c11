import { z } from 'zod';
import { type Json, type MergeConflict, mergeChanges } from '~core/model/merge';
import { type Result, err, ok } from '~core/model/result';
import { type ChangeError, describeChangeError } from '../store/errors';
import { type ActionResult, type FieldErrors, fieldErrors } from './schemaFields';

/** What a form of a record sends: what it began with and what it holds now, both as typed. */
export const SentForm = z.object({ base: z.unknown(), values: z.unknown() });
export type SentForm = z.infer<typeof SentForm>;

export type MergeError =
  | { tag: 'invalid'; errors: FieldErrors }
  | { tag: 'conflicts'; conflicts: MergeConflict[]; merged: unknown; theirs: unknown };

/**
 * Puts what a form sends together with the record as it now is, and reads it.
 *
 * @param now the record as the form would show it now
 * @param schema of the form
 * @returns the values to save, or what to show at which fields
 */
export function mergedValues<S extends z.ZodType>(
  sent: SentForm,
  now: unknown,
  schema: S,
): Result<z.output<S>, MergeError> {
  // A form that doesn't say what it began with began with what is there.
  const base = sent.base === undefined ? now : sent.base;
  const { value, conflicts } = mergeChanges(base as Json, sent.values as Json, now as Json);
  if (conflicts.length > 0) return err({ tag: 'conflicts', conflicts, merged: value, theirs: now });
  const parsed = schema.safeParse(value);
  return parsed.success ? ok(parsed.data) : err({ tag: 'invalid', errors: fieldErrors(parsed.error) });
}

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
