import { checkDose } from '../contenders/dose';
import { z } from 'zod';
import { ecFromPpm, ppmScales } from '~core/mixing/strength';
import { PackId, ProductId, TreatmentId, UnitId } from '~core/model/ids';
import { temperatureText } from '~core/quantity/temperature';
import { bucketUnits } from '~core/quantity/volume';
import { optionalNumber, optionalTemperature, typedNumber } from '../../form/schemaFields';

const ph = z.number().min(0, 'pH runs from 0 to 14.').max(14, 'pH runs from 0 to 14.');
const ec = z.number().min(0, 'Not below 0.').max(20, 'Up to 20 mS/cm: is it typed in µS/cm or ppm?');
const optional = (schema: z.ZodNumber) => optionalNumber().pipe(schema.nullable());
const temperature = z
  .number()
  .min(-5, 'Colder than water can be.')
  .max(60, { error: () => `Up to ${temperatureText(60, 0)}.` });

/** Strength, pH and temperature as read; all may stay empty: readings are never forced. */
const readingFields = {
  /** on the meter’s own scale */
  ec: optionalNumber(),
  /** 1: mS/cm; else the meter's ppm for 1 mS/cm */
  scale: z.union([z.literal(1), ...ppmScales.map((s) => z.literal(s))]),
  ph: optional(ph),
  temperature: optionalTemperature().pipe(temperature.nullable()),
  instrument: z.string().trim().max(80),
};
interface Strength {
  ec: number | null;
  scale: 1 | (typeof ppmScales)[number];
}

/** Strength is always kept as EC, whatever scale the meter shows. */
function strengthAsEc<F extends Strength>(f: F, ctx: z.RefinementCtx): F {
  const value = f.ec === null || f.scale === 1 ? f.ec : ecFromPpm(f.ec, f.scale);
  const checked = ec.nullable().safeParse(value);
  if (!checked.success) {
    ctx.addIssue({ code: 'custom', path: ['ec'], message: checked.error.issues[0]!.message });
  }
  return { ...f, ec: value };
}

const step = z.number().positive().nullable();

/** What a batch is measured with. */
const ToolsForm = z.object({
  scaleStepG: step,
  liquidStepMl: step,
  spoonStepMl: step.optional(),
  bucketIn: z.enum(bucketUnits).optional(),
});

/** “Mixed”: a card's figures as typed; the recipe behind them is worked out again from the plan. */
export const MixForm = z
  .object({
    intent: z.literal('mix'),
    day: z.number().int(),
    /** with the products that have no fixed days */
    anyDay: z.boolean(),
    /** the bottle's key on the day */
    bottle: z.string().max(200),
    /** in the marks of the bucket; empty for doses without water */
    volume: z.string().max(40),
    tools: ToolsForm,
    batch: z.string().trim().min(1, 'Give the batch a name.').max(40, 'Up to 40 letters.'),
    /** stock solution chosen by product; null: weighed from the pack */
    fromStock: z.record(z.string(), z.string().max(40).nullable()),
    /** what was really measured out, by line; empty: as the recipe says */
    lines: z.array(
      z.object({ actual: optionalNumber().pipe(z.number().min(0, 'Not less than nothing.').nullable()) }),
    ),
    ...readingFields,
  })
  .transform(strengthAsEc);

export const StockForm = z.object({
  intent: z.literal('stock'),
  productId: ProductId,
  packId: PackId.nullable(),
  batch: z.string().trim().min(1, 'Give it a name.').max(40, 'Up to 40 letters.'),
  /** g weighed; mL of a liquid that is thinned */
  unit: z.enum(['g', 'mL']),
  amount: typedNumber('How much was it?').pipe(z.number().positive('More than nothing.').max(100_000)),
  volumeMl: typedNumber('Made up to how much?').pipe(z.number().positive('More than 0 mL.').max(1_000_000)),
});

export const FeedForm = z.object({
  intent: z.literal('feed'),
  unitIds: z.array(UnitId).min(1),
  batch: z.string().max(40),
  day: z.number().int().nullable(),
  purpose: z.enum(['feed', 'topUp', 'change', 'flush']),
  volume: typedNumber('How much did each get?').pipe(z.number().positive('More than 0 L.').max(10_000)),
});

const vessel = {
  unitId: UnitId.nullable(),
  treatmentId: TreatmentId.nullable(),
  subject: z.string().max(80),
};

export const ReadingForm = z
  .object({
    intent: z.literal('reading'),
    ...vessel,
    ...readingFields,
  })
  .transform(strengthAsEc)
  .refine((f) => f.ec !== null || f.ph !== null || f.temperature !== null, {
    message: 'Type one reading at least.',
    path: ['ec'],
  });

export const PhForm = z
  .object({
    intent: z.literal('phDose'),
    ...vessel,
    agent: z.string().trim().min(1, 'Name what was given.').max(80),
    amountMl: typedNumber('How much?').pipe(z.number().positive('More than 0 mL.').max(10_000)),
    volumeL: typedNumber('Into how much?').pipe(z.number().positive('More than 0 L.').max(100_000)),
    phBefore: typedNumber('pH before?').pipe(ph),
    phAfter: typedNumber('pH after?').pipe(ph),
  })
  .refine((f) => f.phBefore !== f.phAfter, { message: 'Nothing changed?', path: ['phAfter'] });

/** A dose that is another from a day on; what stays empty goes on as it was. */
export const DoseChangeForm = z
  .object({
    intent: z.literal('doseChange'),
    /** treatment and which of its doses */
    which: z.string().min(1, 'Which dose?').max(200),
    day: typedNumber('From which day?').pipe(
      z.number().int('Whole days.').min(0, 'Not before the start.').max(2000),
    ),
    stop: z.boolean(),
    amount: z
      .string()
      .trim()
      .max(120)
      .superRefine((text, ctx) => {
        if (text !== '') checkDose(text, ctx);
      }),
    everyDays: optionalNumber().pipe(
      z.number().int('Whole days.').min(1, 'At least a day.').max(365).nullable(),
    ),
    times: optionalNumber().pipe(
      z.number().int('Whole times.').min(1, 'At least once; or stop it.').max(10_000).nullable(),
    ),
    /** the same share more or less for every contender that is fed */
    alike: z.boolean(),
    reason: z.string().trim().min(1, 'Why? It goes into the review.').max(500),
  })
  .refine((f) => f.stop || f.amount !== '' || f.everyDays !== null || f.times !== null, {
    message: 'Type what changes.',
    path: ['amount'],
  });

/** Readings of several vessels at once; what stays empty wasn't read. */
export const ReadingsForm = z
  .object({
    intent: z.literal('readings'),
    scale: z.coerce.number().pipe(readingFields.scale),
    instrument: readingFields.instrument,
    rows: z
      .array(
        z.object({
          unitId: UnitId.nullable(),
          treatmentId: TreatmentId.nullable(),
          subject: z.string().max(80),
          ec: optionalNumber(),
          ph: optional(ph),
          temperature: optionalTemperature().pipe(temperature.nullable()),
        }),
      )
      .max(500),
  })
  .transform((f, ctx) => ({
    ...f,
    rows: f.rows.map((row, i) => {
      const value = row.ec === null || f.scale === 1 ? row.ec : ecFromPpm(row.ec, f.scale);
      const checked = ec.nullable().safeParse(value);
      if (!checked.success) {
        ctx.addIssue({ code: 'custom', path: ['rows', i, 'ec'], message: checked.error.issues[0]!.message });
      }
      return { ...row, ec: value };
    }),
  }));
