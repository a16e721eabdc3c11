import type { CorrectionBody, Entry, EntryBody } from '../log/entry';
import { type Trial, emptyReview } from '../log/trial';
import type {
  AreaId,
  EntryId,
  PackId,
  ProductId,
  RoundId,
  TraitId,
  TreatmentId,
  TrialId,
  UnitId,
} from '../model/ids';
import { blankTreatment, newInVersion2, newInVersion3 } from '../model/blankPlan';
import type { Plan, ProductUse, Trait } from '../model/plan';
import type { LabelAnalysis, Product } from '../model/product';
import { emptyAnalysis } from '../mixing/analysisText';
import { usMeasures } from '../quantity/units';

/** Small made-up plans and logs for tests. */

export const trait = (over: Partial<Trait> = {}): Trait => ({
  id: 'weight' as TraitId,
  name: 'Cut weight',
  unit: 'g',
  kind: 'weighing',
  direction: 'higher',
  bandLow: null,
  bandHigh: null,
  decimals: 1,
  plausibleLow: null,
  plausibleHigh: null,
  samplesPerUnit: 1,
  summary: 'sum',
  outOf: null,
  scale: [],
  ...over,
});

export const heightTrait = (over: Partial<Trait> = {}): Trait =>
  trait({
    id: 'height' as TraitId,
    name: 'Height',
    role: 'height',
    unit: 'cm',
    kind: 'number',
    summary: 'last',
    ...over,
  });

export const product = (over: Partial<Product> = {}): Product => ({
  id: 'feed' as ProductId,
  name: 'Prova',
  maker: 'Casa Prova',
  category: 'fertilizer',
  form: 'liquid',
  analysis: null,
  densityKgPerL: null,
  directions: '',
  labelRate: '',
  labelMeasures: usMeasures,
  spoon: null,
  ownMeasures: [],
  solubilityGPerL: null,
  character: [],
  claims: [],
  packs: [
    { id: 'pack' as PackId, size: 1, unit: 'L', priceMinor: 1000, currency: 'EUR', boughtOn: null, count: 1 },
  ],
  obtained: 'bought',
  notes: '',
  ...over,
});

/** A product sold by the litre at a price. */
export const sold = (id: string, priceMinor: number, currency = 'EUR'): Product =>
  product({
    id: id as ProductId,
    packs: [{ id: 'pack' as PackId, size: 1, unit: 'L', priceMinor, currency, boughtOn: null, count: 1 }],
  });

/** A label by weight with nothing on it but what is given. */
export const analysis = (over: Partial<LabelAnalysis> = {}): LabelAnalysis => ({ ...emptyAnalysis, ...over });

export const use = (over: Partial<ProductUse> = {}): ProductUse => ({
  productId: 'feed' as ProductId,
  packId: null,
  amount: 10,
  unit: 'mL',
  solutionLPerUnit: null,
  timesPerUnit: 1,
  rateText: '',
  fromDay: null,
  everyDays: null,
  strengthPercent: 100,
  stage: '',
  ...over,
});

interface Shape {
  /** names in order; the first is the untreated control */
  treatments?: string[];
  replicates?: number;
  blocked?: boolean;
  traits?: Trait[];
}

/** A plan of some treatments on one shelf, one row a replicate; units are called after treatment and row. */
export function plan({
  treatments = ['Water', 'A'],
  replicates = 3,
  blocked = false,
  traits,
}: Shape = {}): Plan {
  const measured = traits ?? [trait(), heightTrait()];
  return {
    ...newInVersion2(),
    ...newInVersion3(),
    id: 'trial' as TrialId,
    question: 'Is it worth it?',
    code: 'TST',
    crop: 'cress',
    unitNoun: 'tray',
    prediction: 'Yes.',
    finishingRule: 'Day 10.',
    startDate: '2026-03-01',
    currency: 'EUR',
    primaryTraitId: measured[0]!.id,
    smallestDifference: { kind: 'percent', value: 10 },
    traits: measured,
    rounds: [
      {
        id: 'r1' as RoundId,
        name: 'First',
        day: 3,
        traitIds: measured.filter((t) => t.kind !== 'weighing').map((t) => t.id),
      },
      { id: 'r2' as RoundId, name: 'Harvest', day: 10, traitIds: measured.map((t) => t.id) },
    ].filter((r) => r.traitIds.length > 0),
    treatments: treatments.map((name, i) =>
      blankTreatment(name, i === 0 ? 'untreated' : 'test', name as TreatmentId),
    ),
    areas: [
      {
        id: 'shelf' as AreaId,
        name: 'Shelf',
        kind: 'shelf',
        rows: replicates,
        columns: treatments.length,
        widthCm: null,
        depthCm: null,
        reserved: [],
      },
    ],
    design: { kind: blocked ? 'rcbd' : 'crd', replicates, seed: 1, settings: [], balance: null },
    units: Array.from({ length: replicates }, (_, row) =>
      treatments.map((name, column) => ({
        id: unitId(name, row),
        code: `TST-${String(row * treatments.length + column + 1).padStart(2, '0')}`,
        treatmentId: name as TreatmentId,
        block: blocked ? row + 1 : null,
        columnBlock: null,
        setting: null,
        startSize: null,
        position: { areaId: 'shelf' as AreaId, row, column },
      })),
    ).flat(),
    products: [],
  };
}

/** The unit of a treatment in a replicate, counted from 0. */
export const unitId = (treatment: string, replicate: number): UnitId => `${treatment}-${replicate}` as UnitId;

let made = 0;

/**
 * A log line; later calls are written later, on one device.
 * @param id for lines that others refer to
 * @param second when it happened and was written, in place of “later than the last”
 */
export function entry(body: EntryBody | CorrectionBody | object, id?: string, second?: number): Entry {
  made += 1;
  const time = new Date(Date.UTC(2026, 2, 11) + (second ?? made) * 1000).toISOString();
  return {
    ...body,
    id: (id ?? `e${String(made).padStart(6, '0')}`) as EntryId,
    at: time,
    recordedAt: time,
    offsetMin: 0,
    by: 'Test',
    device: 'test',
    counter: second ?? made,
  } as Entry;
}

/** A whole trial around a plan and a log. */
export const trialOf = (plan: Plan, log: Entry[] = [], over: Partial<Trial> = {}): Trial => ({
  plan,
  log,
  review: emptyReview,
  key: null,
  sealedAs: null,
  conflicts: [],
  ...over,
});

/** A weighing with a tare of 10 g. */
export const weighing = (unit: UnitId, netG: number, over: object = {}): EntryBody => ({
  kind: 'weighing',
  unitId: unit,
  traitId: 'weight' as TraitId,
  roundId: 'r2' as RoundId,
  sample: null,
  grossG: netG + 10,
  tareG: 10,
  container: 'Bowl',
  instrument: 'scale',
  stepG: 0.1,
  steady: true,
  ...over,
});

/** A height in a round. */
export const height = (
  unit: UnitId,
  value: number,
  round = 'r1',
  sample: number | null = null,
): EntryBody => ({
  kind: 'measurement',
  unitId: unit,
  traitId: 'height' as TraitId,
  roundId: round as RoundId,
  sample,
  value,
});

/** Weighings for all units of a plan: one list of net grams a treatment. */
export const harvest = (values: Record<string, number[]>): Entry[] =>
  Object.entries(values).flatMap(([name, list]) => list.map((g, i) => entry(weighing(unitId(name, i), g))));
