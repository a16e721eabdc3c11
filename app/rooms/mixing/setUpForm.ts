import { z } from 'zod';
import { elements } from '~core/model/element';
import { ExchangeRate, MixingSetUp, Plan, SourceWater, TargetBand } from '~core/model/plan';
import { err, ok } from '~core/model/result';
import { numberIn } from '~core/quantity/number';
import { elementList } from '../../form/elementList';
import { recordForm } from '../../form/recordForm';
import { optionalNumber, standsIn, typedList, typedNumber } from '../../form/schemaFields';

const rates = typedList<ExchangeRate>(
  (text) => {
    const out: ExchangeRate[] = [];
    for (const part of text.split(/[,;]\s+|;|\n/).filter((p) => p.trim() !== '')) {
      const [, currency, figure] = /^\s*([A-Za-z]{3})\s*=?\s*([\d.,]+)\s*$/.exec(part) ?? [];
      const read = ExchangeRate.safeParse({
        currency: currency?.toUpperCase(),
        rate: figure ? numberIn(figure) : null,
      });
      if (!read.success) return err(`“${part.trim()}” isn’t a currency and a rate. Write: USD 0.92.`);
      out.push(read.data);
    }
    return out.length > 20 ? err('Up to 20 rates.') : ok(out);
  },
  ', ',
  (e) => `${e.currency} ${e.rate}`,
);

const { regimen, liquidStepMl, sparePercent, vesselL } = MixingSetUp.shape;
const { ec, ph, bicarbonateMgPerL } = SourceWater.shape;
const { ecLow, ecHigh, phLow, phHigh, source } = TargetBand.shape;

const band = z
  .object({
    ecLow: optionalNumber().pipe(ecLow),
    ecHigh: optionalNumber().pipe(ecHigh),
    phLow: optionalNumber().pipe(phLow),
    phHigh: optionalNumber().pipe(phHigh),
    source,
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

/** Where it is mixed, as it is chosen. */
const mixedIn = z.codec(standsIn(z.enum(['unsaid', 'batch', 'tank']), 'unsaid'), z.boolean().optional(), {
  decode: (where) => (where === 'unsaid' ? undefined : where === 'tank'),
  encode: (inOwnTank) => (inOwnTank === undefined ? 'unsaid' : inOwnTank ? 'tank' : 'batch'),
});

/** The plan as Mixing's set-up shows and changes it. */
export const setUpRecord = recordForm({
  name: 'setUp',
  schema: z.object({
    scaleStepG: optionalNumber().pipe(Plan.shape.scaleStepG),
    mixing: z.object({
      regimen,
      liquidStepMl: optionalNumber().pipe(liquidStepMl),
      inOwnTank: mixedIn,
      sparePercent: typedNumber('How much to spare?').pipe(sparePercent),
      vesselL: optionalNumber().pipe(vesselL),
      water: z.object({
        ec: optionalNumber().pipe(ec),
        ph: optionalNumber().pipe(ph),
        elementsMgPerL: elementList(elements, 5000, 'mg/L. Write: Ca 40, Mg 8, Na 12.'),
        bicarbonateMgPerL: optionalNumber().pipe(bicarbonateMgPerL),
      }),
      band,
      exchange: rates,
    }),
  }),
  of: (plan: Plan) => plan,
  apply: (plan, { scaleStepG, mixing }) => ({
    ...plan,
    scaleStepG,
    mixing: { ...plan.mixing, ...mixing },
  }),
});
