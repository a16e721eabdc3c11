import { z } from 'zod';
import type { Result } from '~core/model/result';
import { parseDecimal } from '~core/quantity/decimal';
import { parseTemperature } from '~core/quantity/temperature';

/** A number typed into a text field, with a point or a comma. @param empty what to say when nothing was typed */
export const typedNumber = (empty: string) =>
  z
    .string()
    .trim()
    .min(1, empty)
    .transform((text, ctx) => {
      const value = parseDecimal(text);
      if (value === null) {
        ctx.addIssue({ code: 'custom', message: `“${text}” isn’t a number.` });
        return z.NEVER;
      }
      return value;
    });

/** As `typedNumber`, but an empty field means null. */
export const optionalNumber = () =>
  z
    .string()
    .trim()
    .transform((text, ctx) => {
      if (text === '') return null;
      const value = parseDecimal(text);
      if (value === null) {
        ctx.addIssue({ code: 'custom', message: `“${text}” isn’t a number.` });
        return z.NEVER;
      }
      return value;
    });

/** As `optionalNumber`, for a temperature in the degrees written here, or with C or F behind it; kept in °C. */
export const optionalTemperature = () =>
  z
    .string()
    .trim()
    .transform((text, ctx) => {
      if (text === '') return null;
      const value = parseTemperature(text);
      if (value === null) {
        ctx.addIssue({ code: 'custom', message: `“${text}” isn’t a temperature: 21 C or 70 F.` });
        return z.NEVER;
      }
      return value;
    });

/**
 * As `optionalNumber`, for a size that may carry its unit: “30 in”, “900 sq ft”.
 * @param read what makes a figure of it, in the unit the field is kept in
 */
export const optionalSize = (read: (text: string) => Result<number, string>) =>
  z
    .string()
    .trim()
    .transform((text, ctx) => {
      if (text === '') return null;
      const size = read(text);
      if (!size.ok) {
        ctx.addIssue({ code: 'custom', message: size.error });
        return z.NEVER;
      }
      return size.value;
    });

/** Field errors by path (`traits.0.name`), as an action sends them back to its form. */
export type FieldErrors = Record<string, string>;

/** The first message for each field. */
export function fieldErrors(error: z.ZodError): FieldErrors {
  const out: FieldErrors = {};
  for (const issue of error.issues) out[issue.path.join('.')] ??= issue.message;
  return out;
}

/** A field that another tab changed as well, and not to the same. */
export interface FieldConflict {
  path: string;
  theirs?: unknown;
}

export type ActionResult =
  /** `now`: the record as it was saved, as the form shows it; `rev`: of the trial that has it */
  | { saved: true; message?: string; now?: unknown; rev?: number }
  | { errors: FieldErrors }
  | { conflicts: FieldConflict[]; merged: unknown; theirs: unknown };

/** The first thing an action said, for a notice. */
export function saidBy(result: ActionResult): string | undefined {
  if ('errors' in result) return Object.values(result.errors)[0];
  return 'conflicts' in result ? 'Another tab changed the same.' : result.message;
}

/** A number as text for a form field; empty for null. */
export const fieldText = (value: number | null | undefined): string => (value == null ? '' : String(value));
