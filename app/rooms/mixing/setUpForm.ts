import { recordForm } from '../../form/recordForm';
import { z } from 'zod';
import { numberIn } from '~core/quantity/number';
import { elements } from '~core/model/element';
import { ExchangeRate, MixingSetUp, type Plan, SourceWater, TargetBand, regimens } from '~core/model/plan';
import { elementList } from '../../form/elementList';
import { fieldText, optionalNumber, typedNumber } from '../../form/schemaFields';

/** A water report's elements, mg/L. */
const waterElements = elementList(elements, 5000, 'mg/L. Write: Ca 40, Mg 8, Na 12.');

const rates = z
  .string()
  .trim()
  .transform((text, ctx) => {
    const out: ExchangeRate[] = [];
    for (const part of text.split(/[,;]\s+|;|\n/).filter((p) => p.trim() !== '')) {
      const [, currency, figure] = /^\s*([A-Za-z]{3})\s*=?\s*([\d.,]+)\s*$/.exec(part) ?? [];
      const read = ExchangeRate.safeParse({
        currency: currency?.toUpperCase(),
        rate: figure ? numberIn(figure) : null,
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
    mixedIn: z.enum(['unsaid', 'batch', 'tank']),
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
type SetUpInput = z.input<typeof SetUpForm>;

export function toSetUpForm(plan: Plan): SetUpInput {
  const { mixing: m } = plan;
  return {
    intent: 'setUp',
    regimen: m.regimen,
    scaleStepG: fieldText(plan.scaleStepG),
    liquidStepMl: fieldText(m.liquidStepMl),
    mixedIn: m.inOwnTank === undefined ? 'unsaid' : m.inOwnTank ? 'tank' : 'batch',
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

export const applySetUp = (
  { mixing: { inOwnTank: _, ...mixing }, ...plan }: Plan,
  f: z.output<typeof SetUpForm>,
): Plan => ({
  ...plan,
  scaleStepG: f.scaleStepG,
  mixing: {
    ...mixing,
    regimen: f.regimen,
    liquidStepMl: f.liquidStepMl,
    sparePercent: f.sparePercent,
    ...(f.mixedIn !== 'unsaid' && { inOwnTank: f.mixedIn === 'tank' }),
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

/** The plan as Mixing's set-up shows and changes it. */
export const setUpRecord = recordForm({
  name: 'setUp',
  shown: toSetUpForm,
  schema: SetUpForm,
  apply: applySetUp,
});
