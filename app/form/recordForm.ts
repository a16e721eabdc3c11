import { z } from 'zod';
import { type Json, type MergeConflict, mergeChanges } from '~core/model/merge';
import type { Product } from '~core/model/product';
import { type Result, err, ok } from '~core/model/result';
import { type FieldErrors, fieldErrors, shownIn } from './schemaFields';

/** A form of a record: how the record stands in it, what may be typed there, and the record as it is then. */
export interface RecordForm<R, S extends z.ZodType = z.ZodType> {
  /** told apart by it where an action takes several; where a message about the whole of it stands */
  name: string;
  shown: (record: R) => z.input<S>;
  schema: S;
  /** What isn't said (undefined) is left out. @param library products as they stand now */
  apply: (record: R, values: z.output<S>, library: readonly Product[]) => R | Result<R, Refused>;
}

/**
 * A form of a record by its schema, which says each field once: how it is typed, and how what is kept is shown.
 * @param of the part of the record that the form shows
 * @param in the schema for a record, where sizes are shown in the record's own units
 */
export const recordForm = <R, S extends z.ZodType>({
  of,
  in: shownBy,
  ...form
}: Omit<RecordForm<R, S>, 'shown'> & {
  of: (record: R) => z.output<S>;
  in?: (record: R) => S;
}): RecordForm<R, S> => ({
  ...form,
  shown: (record) => shownIn(shownBy?.(record) ?? form.schema, of(record)),
});

/** A record as it is stored: without what it leaves unsaid. */
const asStored = <R>(record: R): R => JSON.parse(JSON.stringify(record)) as R;

/** What a form of a record sends: what it began with and what it holds now, both as typed. */
export const SentForm = z.object({ base: z.unknown().optional(), values: z.unknown() });
export type SentForm = z.infer<typeof SentForm>;

/** Values that can't be kept, by field. */
export interface Refused {
  tag: 'refused';
  errors: FieldErrors;
}

export type MergeError =
  | Refused
  | { tag: 'conflicts'; conflicts: MergeConflict[]; merged: unknown; theirs: unknown };

/** A refusal in words, at a field. */
export const refuse = (at: string, text: string) => err<Refused>({ tag: 'refused', errors: { [at]: text } });

/**
 * Puts what a form sends together with the record as it now is.
 * @returns the record to save, or what to show at which fields
 */
export function applied<R, S extends z.ZodType>(
  form: RecordForm<R, S>,
  sent: SentForm,
  record: R,
  library: readonly Product[] = [],
): Result<R, MergeError> {
  const now = form.shown(record);
  // A form that doesn't say what it began with began with what is there.
  const base = sent.base === undefined ? now : sent.base;
  const { value, conflicts } = mergeChanges(base as Json, sent.values as Json, now as Json);
  if (conflicts.length > 0) return err({ tag: 'conflicts', conflicts, merged: value, theirs: now });
  const parsed = form.schema.safeParse(value);
  if (!parsed.success) return err({ tag: 'refused', errors: fieldErrors(parsed.error) });
  const next = form.apply(record, parsed.data, library);
  const result =
    typeof next === 'object' && next !== null && 'ok' in next ? (next as Result<R, Refused>) : ok(next as R);
  return result.ok ? ok(asStored(result.value)) : result;
}
