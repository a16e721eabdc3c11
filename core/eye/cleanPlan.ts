import { layOut } from '../design/layOut';
import { audit } from '../fairness/audit';
import type { AuditInput } from '../fairness/rule';
import { blankPlan, blankTreatment } from '../model/blankPlan';
import { blankProduct } from '../model/blankProduct';
import type { AreaId, PackId, ProductId, RoundId, TraitId, TreatmentId, TrialId } from '../model/ids';
import { type Plan, type Treatment, noConditions } from '../model/plan';
import { type Random, oneOf } from '../stats/random';

export const waterId = 'water' as TreatmentId;
const feeds = ['a', 'b'] as const;
const shelf = 'shelf' as AreaId;
/** as many of each as leave twelve to judge chance by */
export const EACH = 7;

const crops = [
  { crop: 'cress', unit: 'tray', plants: 200, medium: 'plain coir', days: 12 },
  { crop: 'lettuce', unit: 'pot', plants: 1, medium: 'washed sand', days: 35 },
  { crop: 'basil', unit: 'pot', plants: 4, medium: 'plain coir', days: 40 },
] as const;

/** A plan no reader could object to. @throws where it can't be laid out, which is a fault of this file */
export function cleanPlan(random: Random): Plan {
  const c = oneOf(random, crops);
  const products = feeds.map((id) => ({
    ...blankProduct(id as ProductId, id === 'a' ? 'Feed A' : 'Feed B'),
    form: 'powder' as const,
    labelRate: '2 g/L',
    packs: [
      {
        ...{ id: 'pack' as PackId, size: 500, unit: 'g' as const, priceMinor: 900, currency: 'EUR' },
        ...{ boughtOn: null, count: 1 },
      },
    ],
  }));
  const conditions = {
    ...noConditions,
    ...{ crop: c.crop, variety: 'one', seedLot: '7', plantsPerUnit: c.plants, containerVolumeL: 2 },
  };
  const of = (id: string): Partial<Treatment> => ({
    ...{
      water: 'rain',
      light: 'LED bars, 16 h',
      medium: c.medium,
      container: `${c.unit} of 2 L`,
      conditions,
    },
    products:
      id === 'water'
        ? []
        : [
            {
              ...{ productId: id as ProductId, packId: null, amount: 2, unit: 'g', solutionLPerUnit: 0.5 },
              ...{
                timesPerUnit: 4,
                rateText: '',
                fromDay: null,
                everyDays: null,
                strengthPercent: 100,
                stage: '',
              },
            },
          ],
  });
  const weight = {
    ...{
      id: 'weight' as TraitId,
      name: 'Cut weight',
      unit: 'g',
      kind: 'weighing' as const,
      direction: 'higher' as const,
    },
    ...{ bandLow: null, bandHigh: null, plausibleLow: null, plausibleHigh: null, outOf: null },
    ...{ decimals: 1, samplesPerUnit: 1, summary: 'last' as const, scale: [] },
  };
  const draft: Plan = {
    ...blankPlan({
      ...{ id: 'eye' as TrialId, question: `Does either feed beat water on ${c.crop}?`, code: 'EYE' },
      ...{ crop: c.crop, unitNoun: c.unit, startDate: '2026-03-01', currency: 'EUR' },
    }),
    prediction: 'Both beat water; the dearer is no better.',
    winning: 'More cut weight than water by a tenth or more.',
    finishingRule: `All are cut on day ${c.days}.`,
    scorer: 'Corte',
    matchedOn: 'label',
    smallestDifference: { kind: 'percent', value: 10 },
    cvPercent: 10,
    spares: 3,
    scaleStepG: 0.1,
    primaryTraitId: weight.id,
    traits: [weight],
    rounds: [{ id: 'r' as RoundId, name: 'Harvest', day: c.days, traitIds: [weight.id] }],
    treatments: [
      { ...blankTreatment('Water', 'untreated', waterId), ...of('water') },
      ...feeds.map((id) => ({
        ...blankTreatment(id === 'a' ? 'Feed A' : 'Feed B', 'test', id as TreatmentId),
        ...of(id),
      })),
    ],
    products,
    areas: [
      {
        ...{ id: shelf, name: 'The shelf', kind: 'shelf' as const, rows: EACH, columns: 3 },
        ...{ widthCm: null, depthCm: null, reserved: [] },
      },
    ],
  };
  for (let seed = random.int(1, 1_000_000), tries = 0; ; seed += 1, tries += 1) {
    if (tries > 500) throw new Error('no draw is fair');
    const design = { kind: 'rcbd' as const, replicates: EACH, seed, settings: [], balance: null };
    const units = layOut(draft, design);
    if (!units.ok) throw new Error(units.error.tag);
    const plan = { ...draft, design, units: units.value };
    if (audit(inputOf(plan)).every((f) => f.ruleId === 'edges')) return plan;
  }
}

/** What stands in the log beside the plan, as the audit takes it. */
export type Happened = Partial<AuditInput>;

export const inputOf = (plan: Plan, happened: Happened = {}): AuditInput => ({
  ...{ plan, labelsPrinted: true, disclosure: '', me: '', ecByTreatment: new Map() },
  ...happened,
});
