import { layOut } from '~core/design/layOut';
import type { AreaId, ProductId, RoundId, TraitId, TreatmentId, TrialId, UnitId } from '~core/model/ids';
import { sha256Of } from '~core/plan/seal';
import { blankTreatment, newInVersion2, newInVersion3 } from '~core/model/blankPlan';
import type { Area, Design, Plan, ProductUse, Role, Trait, Treatment } from '~core/model/plan';
import { demoProducts } from './demoProducts';

/** Building blocks of the demo's plans: ids spell out what they are, so that every start is the same. */

export const trialId = (code: string) => `demo-trial-${code.toLowerCase()}` as TrialId;
export const traitId = (code: string, key: string) => `demo-${code}-trait-${key}` as TraitId;
/** An id that says nothing of the contender: exported files of a blind trial carry it. */
export const treatmentId = (code: string, key: string) =>
  `demo-${code}-${sha256Of([code, key]).slice(0, 12)}` as TreatmentId;

interface UseSketch {
  product: string;
  amount: number;
  unit: ProductUse['unit'];
  solutionL: number;
  times: number;
  rate?: string;
  stage?: string;
  from?: number;
  every?: number;
  strength?: number;
}

const productUse = (u: UseSketch): ProductUse => ({
  productId: `demo-${u.product}` as ProductId,
  packId: null,
  amount: u.amount,
  unit: u.unit,
  rateText: u.rate ?? '',
  solutionLPerUnit: u.solutionL,
  timesPerUnit: u.times,
  fromDay: u.from ?? null,
  everyDays: u.every ?? null,
  strengthPercent: u.strength ?? 100,
  stage: u.stage ?? '',
});

interface ArmSketch {
  key: string;
  name: string;
  role: Role;
  /** change against the control that was expected, per cent */
  expected?: number;
  use?: UseSketch | UseSketch[];
}

interface PlanSketch {
  code: string;
  question: string;
  crop: string;
  unitNoun: string;
  startDate: string;
  prediction: string;
  finishingRule: string;
  traits: (Pick<Trait, 'name' | 'unit' | 'kind' | 'decimals' | 'summary'> & {
    key: string;
  } & Partial<Trait>)[];
  primary: string;
  smallest: Plan['smallestDifference'];
  rounds: { name: string; day: number; traits: string[] }[];
  arms: ArmSketch[];
  areas: Pick<Area, 'name' | 'rows' | 'columns' | 'widthCm' | 'depthCm'>[];
  design: Pick<Design, 'kind' | 'replicates' | 'seed'> | null;
  /** anything else of the plan, before it is laid out */
  more?: (plan: Plan) => Plan;
}

function treatment(code: string, a: ArmSketch): Treatment {
  return {
    ...blankTreatment(a.name, a.role, treatmentId(code, a.key)),
    expectedPercent: a.expected ?? null,
    products: [a.use ?? []].flat().map(productUse),
    container: 'tray 27 × 27 cm',
    medium: 'plain coir, one new bale',
    light: 'LED bars, 16 h',
    water: 'rain water',
  };
}

/** The plan a sketch stands for, laid out with its seed; unit ids follow the codes. */
export function planOf(s: PlanSketch): Plan {
  const treatments = s.arms.map((a) => treatment(s.code, a));
  const used = new Set(treatments.flatMap((t) => t.products.map((p) => p.productId)));
  const sketched: Plan = {
    ...newInVersion2(),
    ...newInVersion3(),
    unitWidthCm: 27,
    unitDepthCm: 27,
    id: trialId(s.code),
    question: s.question,
    code: s.code,
    crop: s.crop,
    unitNoun: s.unitNoun,
    prediction: s.prediction,
    finishingRule: s.finishingRule,
    startDate: s.startDate,
    currency: 'EUR',
    primaryTraitId: traitId(s.code, s.primary),
    smallestDifference: s.smallest,
    traits: s.traits.map(({ key, ...t }) => ({
      direction: 'higher',
      bandLow: null,
      bandHigh: null,
      plausibleLow: null,
      plausibleHigh: null,
      samplesPerUnit: 1,
      outOf: null,
      scale: [],
      ...t,
      ...(key === 'height' && { role: key }),
      id: traitId(s.code, key),
    })),
    rounds: s.rounds.map((r, i) => ({
      id: `demo-${s.code}-round-${i + 1}` as RoundId,
      name: r.name,
      day: r.day,
      traitIds: r.traits.map((t) => traitId(s.code, t)),
    })),
    treatments,
    areas: s.areas.map((a, i) => ({
      ...a,
      id: `demo-${s.code}-area-${i + 1}` as AreaId,
      kind: 'shelf',
      reserved: [],
    })),
    design: s.design && { settings: [], balance: null, ...s.design },
    units: [],
    products: demoProducts.filter((p) => used.has(p.id)),
  };
  const plan = s.more ? s.more(sketched) : sketched;
  if (!plan.design) return plan;
  const units = layOut(plan, plan.design);
  if (!units.ok) throw new Error(`The demo plan ${s.code} has no room.`);
  return { ...plan, units: units.value.map((u) => ({ ...u, id: `demo-${u.code}` as UnitId })) };
}
