import { z } from 'zod';
import { MeasureSystem, usMeasures } from '../quantity/units';
import { ElementSymbol } from './element';

/**
 * How solutions are kept, two schools of practice:
 * - chart: mixed by the chart, topped up, never measured unless one likes to
 * - measure: strength and pH are read and brought back into a band
 */
export const regimens = ['chart', 'measure'] as const;
export type Regimen = (typeof regimens)[number];
export const regimenNames: Record<Regimen, string> = {
  chart: 'follow the chart and top up',
  measure: 'measure and correct',
};

const positive = (what: string) => z.number().positive(what).nullable();
const ec = z.number().min(0, 'Not below 0 mS/cm.').max(20, 'Up to 20 mS/cm.').nullable();
const ph = z.number().min(0, 'pH runs from 0 to 14.').max(14, 'pH runs from 0 to 14.').nullable();

/** The water everything is mixed with. */
export const SourceWater = z.object({
  /** mS/cm at 25 °C */
  ec,
  ph,
  /** what it brings, mg/L of each element */
  elementsMgPerL: z.partialRecord(ElementSymbol, z.number().min(0, 'Not below 0 mg/L.').max(5000)),
  /** mg/L of HCO₃⁻ */
  bicarbonateMgPerL: z.number().min(0, 'Not below 0 mg/L.').max(2000).nullable(),
});
export type SourceWater = z.infer<typeof SourceWater>;

/** The band a solution is kept in, and where it comes from. */
export const TargetBand = z.object({
  ecLow: ec,
  ecHigh: ec,
  phLow: ph,
  phHigh: ph,
  source: z.string().trim().max(200),
});
export type TargetBand = z.infer<typeof TargetBand>;

/** So much of the plan's currency for one of another, as the reviewer paid it. */
export const ExchangeRate = z.object({
  currency: z.string().regex(/^[A-Z]{3}$/, 'Use the three-letter code, such as USD.'),
  rate: z.number('Give the rate.').positive('A rate is more than 0.'),
});
export type ExchangeRate = z.infer<typeof ExchangeRate>;

/** How a trial's solutions are mixed and kept. */
export const MixingSetUp = z.object({
  measures: MeasureSystem,
  regimen: z.enum(regimens),
  /** smallest step that liquids are measured in (syringe, cylinder), mL */
  liquidStepMl: positive('More than 0 mL.'),
  /** how much more than the units need is mixed, per cent */
  sparePercent: z.number().min(0, 'Not below 0 %.').max(200, 'Up to 200 %.'),
  /** mixed in each unit's own tank, without any to spare; left out: see `mixedInUnits` */
  inOwnTank: z.boolean().optional(),
  /** the largest vessel there is, L; null: no limit */
  vesselL: positive('More than 0 L.'),
  water: SourceWater,
  band: TargetBand,
  exchange: z.array(ExchangeRate).max(20),
  /** which element is equal where the plan matches on one */
  matchedElement: ElementSymbol,
});
export type MixingSetUp = z.infer<typeof MixingSetUp>;

/** Nothing said yet: US measures, by the chart, a tenth to spare. */
export const plainSetUp: MixingSetUp = {
  measures: usMeasures,
  regimen: 'chart',
  liquidStepMl: null,
  sparePercent: 10,
  vesselL: null,
  water: { ec: null, ph: null, elementsMgPerL: {}, bicarbonateMgPerL: null },
  band: { ecLow: null, ecHigh: null, phLow: null, phHigh: null, source: '' },
  exchange: [],
  matchedElement: 'N',
};
