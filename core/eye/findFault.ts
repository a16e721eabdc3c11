import { audit } from '../fairness/audit';
import type { AuditInput } from '../fairness/rule';
import { layOut } from '../design/layOut';
import { blankPlan, blankTreatment } from '../model/blankPlan';
import { blankProduct } from '../model/blankProduct';
import type { AreaId, PackId, ProductId, RoundId, TraitId, TreatmentId, TrialId } from '../model/ids';
import { type Plan, type Treatment, noConditions } from '../model/plan';
import { countWord, formatFigure, listNames, sentenceCase } from '../quantity/format';
import { type Random, seededRandom } from '../stats/random';

/** A line of a plan or its log, with the faults that are in it. */
export interface FaultLine {
  id: string;
  text: string;
  /** of the rules that fire on it: what is wrong, and why it matters; empty: nothing is */
  faults: { title: string; why: string }[];
}

export interface FaultCase {
  seed: number;
  lines: FaultLine[];
}

const pick = <T>(random: Random, items: readonly T[]): T => items[random.int(0, items.length - 1)]!;

const waterId = 'water' as TreatmentId;
const feeds = ['a', 'b'] as const;
const shelf = 'shelf' as AreaId;
/** as many of each as leave twelve to judge chance by */
const EACH = 7;

const crops = [
  { crop: 'cress', unit: 'tray', plants: 200, medium: 'plain coir', days: 12 },
  { crop: 'lettuce', unit: 'pot', plants: 1, medium: 'washed sand', days: 35 },
  { crop: 'basil', unit: 'pot', plants: 4, medium: 'plain coir', days: 40 },
] as const;

/** A plan no reader could object to. @throws where it can't be laid out, which is a fault of this file */
function cleanPlan(random: Random): Plan {
  const c = pick(random, crops);
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
type Happened = Partial<AuditInput>;

const inputOf = (plan: Plan, happened: Happened = {}): AuditInput => ({
  ...{ plan, labelsPrinted: true, disclosure: '', me: '', ecByTreatment: new Map() },
  ...happened,
});

interface Spoiled {
  plan: Plan;
  happened: Happened;
}

/** A fault, and what rule finds it. */
interface Fault {
  rule: string;
  put: (s: Spoiled, random: Random) => Spoiled;
}

const planned = (rule: string, put: (p: Plan, random: Random) => Plan): Fault => ({
  rule,
  put: (s, random) => ({ ...s, plan: put(s.plan, random) }),
});
const logged = (rule: string, put: (p: Plan, random: Random) => Happened): Fault => ({
  rule,
  put: (s, random) => ({ ...s, happened: { ...s.happened, ...put(s.plan, random) } }),
});
const ofB = (p: Plan, change: (t: Treatment) => Treatment): Plan => ({
  ...p,
  treatments: p.treatments.map((t) => (t.id === 'b' ? change(t) : t)),
});
const unitsOf = (p: Plan, id: string) => p.units.filter((u) => u.treatmentId === id).map((u) => u.id);

/** From what everybody sees to what few do. */
const faults: readonly Fault[] = [
  planned('no-control', (p) => ({
    ...p,
    treatments: p.treatments.map((t) =>
      t.id === waterId
        ? { ...t, name: 'Feed C', role: 'test' as const, products: p.treatments[1]!.products }
        : t,
    ),
  })),
  planned('control-water', (p) => ofB(p, (t) => ({ ...t, water: 'tap' }))),
  planned('no-prediction', (p) => ({ ...p, prediction: '' })),
  planned('no-finishing-rule', (p) => ({ ...p, finishingRule: '' })),
  planned('unequal-light', (p) => ofB(p, (t) => ({ ...t, light: 'window' }))),
  planned('different-plants', (p) =>
    ofB(p, (t) => ({ ...t, conditions: { ...t.conditions, seedLot: '4' } })),
  ),
  planned('two-questions', (p) => ({
    ...p,
    question: `${p.question.replace('?', '')}, and which needs less water?`,
  })),
  planned('shared-place', (p) => ({ ...p, unitsShare: 'place' as const, ...inOwnAreas(p) })),
  planned('not-randomised', (p) => inColumns(p)),
  planned('unequal-room', (p) =>
    ofB(p, (t) => ({ ...t, conditions: { ...t.conditions, containerVolumeL: 3 } })),
  ),
  planned('above-label', (p) =>
    ofB(p, (t) => ({ ...t, products: t.products.map((u) => ({ ...u, amount: 4 })) })),
  ),
  planned('dose-error', (p) => ({ ...p, scaleStepG: 5 })),
  planned('no-smallest-difference', (p) => ({ ...p, smallestDifference: null })),
  planned('undisclosed', (p) => ({
    ...p,
    products: p.products.map((x) => (x.id === 'b' ? { ...x, obtained: 'sent free' as const } : x)),
  })),
  logged('hit-unevenly', (p) => ({
    happened: [{ what: 'missedWatering', unitIds: unitsOf(p, 'b').slice(0, 3), text: 'jug empty' }],
  })),
  logged('ended-apart', (p) => ({
    ended: p.units.map((u) => ({ unitId: u.id, day: u.treatmentId === 'b' ? 15 : 12 })),
  })),
  logged('dose-changed', () => ({ doseChanges: [{ treatmentId: 'b' as TreatmentId, day: 9 }] })),
  logged('mixed-otherwise', () => ({
    batches: [{ batch: 'EYE-B', amounts: [{ given: 20, wanted: 4 }] }],
  })),
];

/** Each contender on a shelf of its own. */
function inOwnAreas(p: Plan): Pick<Plan, 'areas' | 'units'> {
  const areas = p.treatments.map((_, i) => ({
    ...p.areas[0]!,
    ...{ id: `own${i}` as AreaId, name: `Shelf ${i + 1}`, rows: 2, columns: 3 },
  }));
  const put = new Map<string, number>();
  const units = p.units.map((u) => {
    const nth = put.get(u.treatmentId) ?? 0;
    put.set(u.treatmentId, nth + 1);
    const area = areas[p.treatments.findIndex((t) => t.id === u.treatmentId)]!;
    return { ...u, block: null, position: { areaId: area.id, row: Math.floor(nth / 3), column: nth % 3 } };
  });
  return { areas, units };
}

/** Placed by hand, a contender a column. */
const inColumns = (p: Plan): Plan => ({
  ...p,
  design: { ...p.design!, kind: 'hand' },
  units: p.units.map((u) => ({
    ...u,
    block: null,
    treatmentId: p.treatments[u.position.column % p.treatments.length]!.id,
  })),
});

/** What each line of the sheet says, and which rules look at it. */
interface Kind {
  id: string;
  rules: readonly string[];
  say: (s: Spoiled) => string;
}

/** One value for all, or each with its own. */
function alike(p: Plan, of: (t: Treatment) => string): string {
  const values = p.treatments.map(of);
  return new Set(values).size === 1
    ? `${values[0]} for all`
    : listNames(p.treatments.map((t, i) => `${t.name} ${values[i]}`));
}

const kinds: readonly Kind[] = [
  { id: 'question', rules: ['two-questions'], say: ({ plan }) => `Question: ${plan.question}` },
  {
    id: 'contenders',
    rules: ['no-control', 'peers-only'],
    say: ({ plan }) => `Compared: ${listNames(plan.treatments.map((t) => t.name))}.`,
  },
  {
    id: 'dose',
    rules: ['above-label', 'unequal-dose'],
    say: ({ plan }) =>
      `Doses: ${listNames(plan.treatments.flatMap((t) => t.products.map((u) => `${t.name} ${u.amount} g/L`)))}; every label says 2 g/L.`,
  },
  {
    id: 'scale',
    rules: ['dose-error'],
    say: ({ plan }) =>
      `The scale shows steps of ${plan.scaleStepG} g; a batch for all takes about ${formatFigure(2 * 0.5 * EACH, 0)} g.`,
  },
  { id: 'water', rules: ['control-water'], say: ({ plan }) => `Water: ${alike(plan, (t) => t.water)}.` },
  { id: 'light', rules: ['unequal-light'], say: ({ plan }) => `Light: ${alike(plan, (t) => t.light)}.` },
  {
    id: 'plants',
    rules: ['different-plants'],
    say: ({ plan }) => `Seed lot: ${alike(plan, (t) => `lot ${t.conditions.seedLot}`)}.`,
  },
  {
    id: 'room',
    rules: ['unequal-room', 'nearly-equal-room'],
    say: ({ plan }) => `Volume of medium: ${alike(plan, (t) => `${t.conditions.containerVolumeL} L`)}.`,
  },
  {
    id: 'units',
    rules: ['shared-place', 'not-randomised', 'whole-lines', 'places-unbalanced'],
    say: ({ plan }) =>
      plan.areas.length > 1
        ? `Where they stand: ${countWord(EACH)} of each; each contender has a shelf of its own, watered from one tank.`
        : plan.design?.kind === 'hand'
          ? `Where they stand: ${countWord(EACH)} of each on one shelf, a contender in each column, so that nobody mixes them up.`
          : `Where they stand: ${countWord(EACH)} of each on one shelf, in blocks, drawn by lot.`,
  },
  {
    id: 'prediction',
    rules: ['no-prediction'],
    say: ({ plan }) => `Expected: ${plan.prediction || 'we shall see.'}`,
  },
  {
    id: 'difference',
    rules: ['no-smallest-difference'],
    say: ({ plan }) =>
      plan.smallestDifference
        ? `Smallest difference that matters: ${plan.smallestDifference.value} % of water’s.`
        : 'Smallest difference that matters: any that shows.',
  },
  {
    id: 'end',
    rules: ['no-finishing-rule'],
    say: ({ plan }) => `The end: ${plan.finishingRule || 'when it looks good.'}`,
  },
  {
    id: 'bought',
    rules: ['undisclosed'],
    say: ({ plan }) =>
      plan.products.some((p) => p.obtained !== 'bought')
        ? 'Bought or not: Feed B came free from its maker; the review says nothing of it.'
        : 'Bought or not: both feeds were bought at the counter.',
  },
  {
    id: 'watering',
    rules: ['hit-unevenly'],
    say: ({ happened }) =>
      happened.happened
        ? 'Log, day 6: the jug was empty; three of Feed B got nothing.'
        : 'Log, day 6: watered all, the same jug.',
  },
  {
    id: 'mixing',
    rules: ['mixed-otherwise', 'dose-changed'],
    say: ({ happened }) =>
      happened.batches
        ? 'Log, day 4: the bucket of Feed B took 20 g; the recipe wanted 4 g.'
        : happened.doseChanges
          ? 'Log, day 9: Feed B looked pale; it gets more from now on, the others as before.'
          : 'Log, day 4: both buckets mixed by the recipe.',
  },
  {
    id: 'harvest',
    rules: ['ended-apart'],
    say: ({ happened, plan }) =>
      happened.ended
        ? 'Log, the end: water and Feed A cut on day 12; Feed B on day 15, it was behind.'
        : `Log, the end: ${sentenceCase(countWord(plan.units.length))} ${plan.unitNoun}s cut the same morning.`,
  },
];

/** @param level how hard, 0 … 1: the harder, the more faults, and the less seen */
export function faultCase(seed: number, level: number): FaultCase {
  const random = seededRandom(seed);
  const start: Spoiled = { plan: cleanPlan(random), happened: {} };
  const reach = Math.max(6, Math.ceil(faults.length * (0.4 + 0.6 * level)));
  const wanted = random.int(level < 0.3 ? 1 : 0, 1 + Math.round(3 * level));
  const chosen = random.shuffle(faults.slice(0, reach));
  let made = start;
  const lines = new Set<string>();
  for (const fault of chosen) {
    if (lines.size >= wanted) break;
    const line = kinds.find((k) => k.rules.includes(fault.rule))!.id;
    if (lines.has(line)) continue;
    lines.add(line);
    made = fault.put(made, random);
  }
  const found = new Map(audit(inputOf(made.plan, made.happened)).map((f) => [f.ruleId, f]));
  return {
    seed,
    lines: kinds.map((k) => ({
      id: k.id,
      text: k.say(made),
      faults: k.rules.flatMap((r) => {
        const f = found.get(r);
        return f ? [{ title: f.title, why: f.why }] : [];
      }),
    })),
  };
}

/** What was marked against what is there. */
export function markFaults({ lines }: FaultCase, marked: ReadonlySet<string>) {
  const there = lines.filter((l) => l.faults.length > 0);
  const hit = there.filter((l) => marked.has(l.id));
  const wrong = lines.filter((l) => l.faults.length === 0 && marked.has(l.id));
  return {
    there: there.length,
    hit: hit.length,
    wrong: wrong.length,
    right: hit.length === there.length && wrong.length === 0,
  };
}
