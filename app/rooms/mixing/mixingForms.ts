import { z } from 'zod';
import { ProductId, PackId, TreatmentId, UnitId } from '~core/model/ids';
import { ElementSymbol, elements } from '~core/model/element';
import { ExchangeRate, MixingSetUp, type Plan, SourceWater, TargetBand, regimens } from '~core/model/plan';
import { parseDecimal } from '~core/formats/csv';
import { ecFromPpm, ppmScales } from '~core/mixing/strength';
import { fieldText, optionalNumber, typedNumber } from '../../form/schemaFields';

const ph = z.number().min(0, 'pH runs from 0 to 14.').max(14, 'pH runs from 0 to 14.');
const ec = z.number().min(0, 'Not below 0.').max(20, 'Up to 20 mS/cm: is it typed in µS/cm or ppm?');
const optional = (schema: z.ZodNumber) => optionalNumber().pipe(schema.nullable());
const temperature = z.number().min(-5, 'Colder than water can be.').max(60, 'Up to 60 °C.');

/** Strength, pH and temperature as read; all may stay empty: readings are never forced. */
export const readingFields = {
  ec: optional(ec),
  ph: optional(ph),
  temperature: optional(temperature),
  instrument: z.string().trim().max(80),
};

/** “Mixed”: a card's figures as typed, amounts left empty being as the recipe says. */
export const MixForm = z
  .object({
    intent: z.literal('mix'),
    treatmentId: TreatmentId,
    day: z.number().int(),
    /** how many units a direct dose was for; the volume is then not asked */
    direct: z.boolean(),
    volume: typedNumber('How much was mixed?').pipe(
      z.number().min(0, 'Not less than nothing.').max(100_000, 'Up to 100,000 L.'),
    ),
    batch: z.string().trim().min(1, 'Give the batch a name.').max(40, 'Up to 40 letters.'),
    stepG: z.number().positive().nullable(),
    lines: z.array(
      z.object({
        productId: ProductId,
        packId: PackId.nullable(),
        unit: z.enum(['g', 'mL', 'piece']),
        wanted: z.number().min(0),
        measured: z.number().min(0),
        fromStock: z.string().nullable(),
        actual: optionalNumber().pipe(z.number().min(0, 'Not less than nothing.').nullable()),
      }),
    ),
    ...readingFields,
  })
  .refine((f) => f.direct || f.volume > 0, { message: 'More than 0 L.', path: ['volume'] });

export const StockForm = z.object({
  intent: z.literal('stock'),
  productId: ProductId,
  packId: PackId.nullable(),
  batch: z.string().trim().min(1, 'Give it a name.').max(40, 'Up to 40 letters.'),
  massG: typedNumber('How much was weighed?').pipe(z.number().positive('More than nothing.').max(100_000)),
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
    ec: optionalNumber(),
    /** 1: mS/cm; else the meter's ppm for 1 mS/cm */
    scale: z.union([z.literal(1), ...ppmScales.map((s) => z.literal(s))]),
  })
  .transform((f, ctx) => {
    const value = f.ec === null || f.scale === 1 ? f.ec : ecFromPpm(f.ec, f.scale);
    const checked = ec.nullable().safeParse(value);
    if (!checked.success) {
      ctx.addIssue({ code: 'custom', path: ['ec'], message: checked.error.issues[0]!.message });
    }
    return { ...f, ec: value };
  })
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

/** “Ca 40, Na 12”: a water report's elements. */
const waterElements = z
  .string()
  .trim()
  .transform((text, ctx) => {
    const out: Partial<Record<ElementSymbol, number>> = {};
    for (const part of text.split(/[,;]\s+|;|,(?=\s*[A-Z])/).filter((p) => p.trim() !== '')) {
      const [, symbol, figure] = /^\s*([A-Za-z]{1,2})\s*([\d.,]+)\s*$/.exec(part) ?? [];
      const element = elements.find((e) => e.toLowerCase() === symbol?.toLowerCase());
      const value = figure ? parseDecimal(figure) : null;
      if (!element || value === null || value < 0 || value > 5000) {
        ctx.addIssue({
          code: 'custom',
          message: `“${part.trim()}” isn’t an element and mg/L. Write: Ca 40, Mg 8, Na 12.`,
        });
        return z.NEVER;
      }
      out[element] = value;
    }
    return out;
  });

const rates = z
  .string()
  .trim()
  .transform((text, ctx) => {
    const out: ExchangeRate[] = [];
    for (const part of text.split(/[,;]\s+|;|\n/).filter((p) => p.trim() !== '')) {
      const [, currency, figure] = /^\s*([A-Za-z]{3})\s*=?\s*([\d.,]+)\s*$/.exec(part) ?? [];
      const read = ExchangeRate.safeParse({
        currency: currency?.toUpperCase(),
        rate: figure ? parseDecimal(figure) : null,
      });
      if (!read.success) {
        ctx.addIssue({
          code: 'custom',
          message: `“${part.trim()}” isn’t a currency and a rate. Write: USD 0.92.`,
        });
        return z.NEVER;
      }
      out.push(read.data);
    }
    return out;
  });

const positive = (what: string) => optionalNumber().pipe(z.number().positive(what).nullable());

export const SetUpForm = z
  .object({
    intent: z.literal('setUp'),
    regimen: z.enum(regimens),
    scaleStepG: positive('More than 0 g.'),
    liquidStepMl: positive('More than 0 mL.'),
    sparePercent: typedNumber('How much to spare?').pipe(MixingSetUp.shape.sparePercent),
    vesselL: positive('More than 0 L.'),
    waterEc: optionalNumber().pipe(SourceWater.shape.ec),
    waterPh: optionalNumber().pipe(SourceWater.shape.ph),
    waterElements,
    bicarbonate: optionalNumber().pipe(SourceWater.shape.bicarbonateMgPerL),
    ecLow: optionalNumber().pipe(TargetBand.shape.ecLow),
    ecHigh: optionalNumber().pipe(TargetBand.shape.ecHigh),
    phLow: optionalNumber().pipe(TargetBand.shape.phLow),
    phHigh: optionalNumber().pipe(TargetBand.shape.phHigh),
    source: TargetBand.shape.source,
    exchange: rates,
  })
  .superRefine((f, ctx) => {
    for (const [low, high, path] of [
      [f.ecLow, f.ecHigh, 'ecHigh'],
      [f.phLow, f.phHigh, 'phHigh'],
    ] as const) {
      if (low !== null && high !== null && low >= high) {
        ctx.addIssue({ code: 'custom', path: [path], message: `More than ${low}.` });
      }
    }
    const banded = [f.ecLow, f.ecHigh, f.phLow, f.phHigh].some((v) => v !== null);
    if (banded && f.source === '') {
      ctx.addIssue({
        code: 'custom',
        path: ['source'],
        message: 'Say where the band comes from: “my own” will do.',
      });
    }
  });
export type SetUpInput = z.input<typeof SetUpForm>;

export function toSetUpForm(plan: Plan): SetUpInput {
  const { mixing: m } = plan;
  return {
    intent: 'setUp',
    regimen: m.regimen,
    scaleStepG: fieldText(plan.scaleStepG),
    liquidStepMl: fieldText(m.liquidStepMl),
    sparePercent: String(m.sparePercent),
    vesselL: fieldText(m.vesselL),
    waterEc: fieldText(m.water.ec),
    waterPh: fieldText(m.water.ph),
    waterElements: Object.entries(m.water.elementsMgPerL)
      .map(([e, v]) => `${e} ${v}`)
      .join(', '),
    bicarbonate: fieldText(m.water.bicarbonateMgPerL),
    ecLow: fieldText(m.band.ecLow),
    ecHigh: fieldText(m.band.ecHigh),
    phLow: fieldText(m.band.phLow),
    phHigh: fieldText(m.band.phHigh),
    source: m.band.source,
    exchange: m.exchange.map((e) => `${e.currency} ${e.rate}`).join(', '),
  };
}

export const applySetUp = (plan: Plan, f: z.output<typeof SetUpForm>): Plan => ({
  ...plan,
  scaleStepG: f.scaleStepG,
  mixing: {
    ...plan.mixing,
    regimen: f.regimen,
    liquidStepMl: f.liquidStepMl,
    sparePercent: f.sparePercent,
    vesselL: f.vesselL,
    water: {
      ec: f.waterEc,
      ph: f.waterPh,
      elementsMgPerL: f.waterElements,
      bicarbonateMgPerL: f.bicarbonate,
    },
    band: { ecLow: f.ecLow, ecHigh: f.ecHigh, phLow: f.phLow, phHigh: f.phHigh, source: f.source },
    exchange: f.exchange,
  },
});

/** Doses made equal are written into the plan: each treatment's factor per product use. */
export const MatchForm = z.object({
  intent: z.literal('match'),
  matchedOn: z.enum(['label', 'nitrogen', 'strength', 'money']),
  element: ElementSymbol,
  factors: z.array(
    z.object({ treatmentId: TreatmentId, productId: ProductId, factor: z.number().positive().max(1e6) }),
  ),
});

/** The plan with every use of these products times its factor. */
export const applyMatch = (plan: Plan, f: z.output<typeof MatchForm>): Plan => ({
  ...plan,
  matchedOn: f.matchedOn,
  mixing: { ...plan.mixing, matchedElement: f.element },
  treatments: plan.treatments.map((t) => ({
    ...t,
    products: t.products.map((u) => {
      const factor =
        f.factors.find((x) => x.treatmentId === t.id && x.productId === u.productId)?.factor ?? 1;
      return Math.abs(factor - 1) < 1e-9
        ? u
        : { ...u, amount: Number((u.amount * factor).toPrecision(6)), rateText: '' };
    }),
  })),
});
