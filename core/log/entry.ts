import { z } from 'zod';
import { EntryId } from '../model/ids';
import { entryKinds } from './kinds';
import { stamp } from './kinds/kind';

export type { Stamp } from './kinds/kind';

const { measurement, ...others } = entryKinds;

/** What an entry says. Every kind of event in a trial is one of these. */
export const EntryBody = z.discriminatedUnion('kind', [
  measurement.body,
  ...Object.values(others).map((k) => k.body),
]);
export type EntryBody = z.infer<typeof EntryBody>;

/**
 * Puts right an earlier entry (or an earlier correction) without overwriting it. `replacement` stands in
 * its place; null takes it back: an entry then counts as never made, a correction as never applied.
 */
export const CorrectionBody = z.object({
  kind: z.literal('correction'),
  supersedes: EntryId,
  replacement: EntryBody.nullable(),
  reason: z.string().max(500),
});
export type CorrectionBody = z.infer<typeof CorrectionBody>;

const CorrectionLine = CorrectionBody.extend(stamp);
export type Correction = z.infer<typeof CorrectionLine>;

/** One line of the log. */
export const Entry = z.discriminatedUnion('kind', [
  CorrectionLine,
  ...Object.values(entryKinds).map((k) => k.line),
]);
export type Entry = z.infer<typeof Entry>;

/** A body of one kind, e.g. `BodyOf<'measurement'>`. */
export type BodyOf<K extends EntryBody['kind']> = Extract<EntryBody, { kind: K }>;

/** A line of the log: what it says, and its stamp. */
export const lineOf = (
  body: EntryBody | CorrectionBody,
  stamped: z.infer<z.ZodObject<typeof stamp>>,
): Entry => ({
  ...body,
  ...stamped,
});
