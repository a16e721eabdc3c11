import { z } from 'zod';
import { type Result, err, ok } from '~core/model/result';
import { describeNumberFault, readNumber } from '~core/quantity/number';
import { type Asked, readQuantity } from '~core/quantity/quantity';
import { parseTemperature } from '~core/quantity/temperature';

/** What a text is read as; its fault is said at the field. */
const readBy =
  <T>(read: (text: string) => Result<T, string>) =>
  (text: string, ctx: z.RefinementCtx): T => {
    const result = read(text);
    if (result.ok) return result.value;
    ctx.addIssue({ code: 'custom', message: result.error });
    return z.NEVER;
  };

const number = (text: string): Result<number, string> => {
  const read = readNumber(text);
  return read.ok ? read : err(describeNumberFault(read.error));
};
const orNull =
  <T>(read: (text: string) => Result<T, string>) =>
  (text: string): Result<T | null, string> =>
    text === '' ? ok(null) : read(text);

/** A number typed into a text field. @param empty what to say when nothing was typed */
export const typedNumber = (empty: string) => z.string().trim().min(1, empty).transform(readBy(number));

/** As `typedNumber`, but an empty field means null. */
export const optionalNumber = () =>
  z
    .string()
    .trim()
    .transform(readBy(orNull(number)));

/** As `optionalNumber`, for a temperature in the degrees written here, or with C or F behind it; kept in °C. */
export const optionalTemperature = () =>
  z
    .string()
    .trim()
    .transform(
      readBy(
        orNull((text) => {
          const value = parseTemperature(text);
          return value === null ? err(`“${text}” isn’t a temperature: 21 C or 70 F.`) : ok(value);
        }),
      ),
    );

/** As `optionalNumber`, for a size that may carry its unit: “30 in”, “900 sq ft”; more than none, in cm, cm² or g. */
export const optionalSize = (of: Asked) =>
  z
    .string()
    .trim()
    .transform(readBy(orNull((text) => readQuantity(text, of))))
    .pipe(z.number().positive('More than 0.').nullable());

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
  mine?: unknown;
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
