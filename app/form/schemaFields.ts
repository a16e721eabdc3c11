import { z } from 'zod';
import { type Result, err, ok } from '~core/model/result';
import { describeNumberFault, readNumber } from '~core/quantity/number';
import { readQuantity } from '~core/quantity/quantity';
import { type SizeUnits, areaField, lengthField, weightField } from '~core/quantity/sizeText';
import { parseTemperature } from '~core/quantity/temperature';
import { usMeasures } from '~core/quantity/units';

const metric: SizeUnits = { inches: false, measures: usMeasures };

/** What is shown of what may be null or not said; empty for neither. */
const orEmpty =
  <T>(write: (value: T) => string) =>
  (value: T | null | undefined): string =>
    value == null ? '' : write(value);

/** A number as text for a form field; empty for null. */
export const fieldText = orEmpty<number>(String);

/** @param read its fault is said at the field */
const reading =
  <T>(read: (text: string) => Result<T, string>) =>
  (typed: string, ctx: z.core.ParsePayload): T => {
    const result = read(typed);
    if (result.ok) return result.value;
    ctx.issues.push({ code: 'custom', message: result.error, input: typed });
    return z.NEVER;
  };

/** What stands in a field whose value a record may leave out: Zod shows a key that isn't there only where its field has a default. */
export const standsIn = <T>(of: z.ZodType<T, T>, usual: T) =>
  z._default(of, usual as never) as unknown as z.ZodType<T, T>;

/** A field that is typed: what is kept of a text, and the text that says it again. */
export const typedAs = <T>(
  read: (text: string) => Result<T, string>,
  write: (value: T) => string,
  text = z.string().trim(),
) => z.codec(text, z.custom<T>(), { decode: reading(read), encode: write });

/** As `typedAs`, but an empty field means null. */
const optional = <T>(read: (text: string) => Result<T, string>, write: (value: T) => string) =>
  typedAs<T | null>((text) => (text === '' ? ok(null) : read(text)), orEmpty(write));

const number = (text: string): Result<number, string> => {
  const read = readNumber(text);
  return read.ok ? read : err(describeNumberFault(read.error));
};

/** A number typed into a text field. @param empty what to say when nothing was typed */
export const typedNumber = (empty: string) => typedAs(number, String, z.string().trim().min(1, empty));

/** A number within two ends, said in one line whatever is wrong with it but two readings. */
export const numberFrom = (low: number, high: number) => {
  const asked = `A number from ${low} to ${high}.`;
  return typedNumber(asked).pipe(z.number().min(low, asked).max(high, asked));
};

/** Minutes that something took. */
export const minutesTaken = () => {
  const asked = 'Minutes, above 0 and at most 1,440.';
  return typedNumber(asked).pipe(z.number().positive(asked).max(1440, asked));
};

/** As `typedNumber`, but an empty field means null. */
export const optionalNumber = () => optional(number, String);

/** As `optionalNumber`, but left out of the record where it is empty. @param kept what the record says of it */
export const unsaidNumber = <S extends z.ZodType<number | null | undefined, number | null | undefined>>(
  kept: S,
) =>
  z.codec(standsIn(z.string().trim(), ''), kept, {
    decode: reading<number | undefined>((text) => (text === '' ? ok(undefined) : number(text))) as (
      typed: string,
      ctx: z.core.ParsePayload,
    ) => z.input<S>,
    encode: (value) => fieldText(value),
  });

/** As `optionalNumber`, for a temperature in the degrees written here, or with C or F behind it; kept in °C. */
export const optionalTemperature = () =>
  optional((text) => {
    const value = parseTemperature(text);
    return value === null ? err(`“${text}” isn’t a temperature: 21 C or 70 F.`) : ok(value);
  }, String);

const sizes = { length: lengthField, area: areaField, mass: weightField };

/**
 * As `optionalNumber`, for a size that may carry its unit: “30 in”, “900 sq ft”; more than none, in cm, cm² or g.
 * @param units it is shown in
 */
export const optionalSize = (of: keyof typeof sizes, units: SizeUnits = metric) =>
  optional(
    (text) => readQuantity(text, of),
    (value) => sizes[of](value, units),
  ).pipe(z.number().positive('More than 0.').nullable());

/** A list typed into one field. @param read all of it */
export const typedList = <T>(
  read: (text: string) => Result<T[], string>,
  between: string,
  say: (one: T) => string = String,
) => typedAs(read, (list) => list.map(say).join(between));

/** Names between commas, each once, 60 letters at most. @param most how many @param tooMany said of more */
export const nameList = (most: number, tooMany: string) =>
  typedList<string>(
    (text) => ok([...new Set(text.split(/[,\n]/).map((s) => s.trim()))].filter(Boolean)),
    ', ',
  ).pipe(z.array(z.string().max(60, 'Up to 60 letters each.')).max(most, tooMany));

/** A tick that is kept as `kept`, or left out of the record. */
export const ticked = <const T extends true | string = true>(kept: T = true as T) =>
  z.codec(standsIn(z.boolean(), false), z.literal(kept).optional(), {
    decode: (on) => (on ? kept : undefined) as never,
    encode: (value) => value !== undefined,
  });

/** A choice whose usual one is left out of the record. */
export const usually = <T extends string, S extends z.ZodType<T | undefined, T | undefined>>(
  kept: S,
  usual: T,
  of: z.ZodType<T, T>,
) =>
  z.codec(standsIn(of, usual), kept, {
    decode: (value) => (value === usual ? undefined : value) as z.input<S>,
    encode: (value) => value ?? usual,
  });

/** A choice or a text that may be empty, which is kept as null. */
export const orNull = <S extends z.ZodType<string, string>>(of: S) =>
  z.codec(z.string(), of.nullable(), {
    decode: (value) => (value === '' ? null : value) as z.input<S> | null,
    encode: (value) => value ?? '',
  });

/** As `orNull`, but left out of the record. */
export const orUnsaid = <T extends string>(of: z.ZodType<T, T>) =>
  z.codec(standsIn<T | ''>(z.literal('').or(of), ''), of.optional(), {
    decode: (value) => (value === '' ? undefined : value),
    encode: (value) => value ?? '',
  });

/**
 * A record as its form shows it, whatever the form asks of what is typed: what was kept by other rules is shown too.
 * @throws for what the form can't hold at all
 */
export function shownIn<S extends z.ZodType>(form: S, kept: z.output<S>): z.input<S> {
  const { value, issues } = form._zod.run(
    { value: kept, issues: [] },
    { async: false, direction: 'backward', skipChecks: true },
  ) as z.core.ParsePayload;
  if (issues.length > 0) throw new Error(`A form can’t show its record: ${JSON.stringify(issues)}`);
  return value as z.input<S>;
}

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
