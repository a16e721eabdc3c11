import { audit } from '../fairness/audit';
import type { Plan, Treatment } from '../model/plan';
import { countWord, formatFigure, listNames, plural, sentenceCase } from '../quantity/format';
import { seededRandom } from '../stats/random';
import { EACH, cleanPlan, inputOf } from './cleanPlan';
import { type Spoiled, faults } from './faults';

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
        : `Log, the end: ${sentenceCase(countWord(plan.units.length))} ${plural(plan.unitNoun)} cut the same morning.`,
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
