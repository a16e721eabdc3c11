import { formatFigure, listNames } from '../quantity/format';
import { seededRandom } from '../stats/random';
import { type Knowledge, afterTrial, bestOf, drawer, topTwo, varianceOf } from './knowledge';

/** What the season is to tell. */
export type Goal =
  /** which is best */
  | { kind: 'best' }
  /** how all of them stand */
  | { kind: 'rank' }
  /** whether one is worth it against another */
  | { kind: 'pair'; a: string; b: string };

/** A place for some weeks. */
export interface Slot {
  area: string;
  /** units that fit */
  places: number;
  startDate: string;
  endDate: string;
}

export interface Wishes {
  goal: Goal;
  /** products that are asked about; the reference may stand beside them without being one */
  among: readonly string[];
  /** what nothing is added to; null: none stands beside them */
  reference: string | null;
  /** spread from unit to unit, as a share */
  cv: number;
  tau2: number;
  /** fewest of each that judge a spread */
  leastEach: number;
  /** most contenders in one trial, by what hands can manage */
  mostArms: number;
}

export interface Proposal {
  slot: Slot;
  arms: string[];
  /** units of each */
  each: number;
  /** half the width, per cent, of the 95 % interval of the pair it turns on, before and after */
  pair: { a: string; b: string; before: number; after: number };
  why: string;
  /** how often the one that would be recommended is truly the best, 0 … 1, before and after */
  sure: { before: number; after: number };
}

/** How much each pair of products matters, a square. */
function weightsOf(k: Knowledge, { goal, among }: Wishes, seed: number): number[][] {
  const own = among.map((n) => k.names.indexOf(n));
  if (goal.kind === 'best')
    return own.length < 2 ? k.names.map(() => k.names.map(() => 1)) : topTwo(k, own, seed);
  const [a, b] = goal.kind === 'pair' ? [k.names.indexOf(goal.a), k.names.indexOf(goal.b)] : [-1, -1];
  return k.names.map((_, i) =>
    k.names.map((__, j) =>
      goal.kind === 'pair'
        ? Number((i === a && j === b) || (i === b && j === a))
        : Number(i !== j && own.includes(i) && own.includes(j)),
    ),
  );
}

const loss = (k: Knowledge, weights: readonly (readonly number[])[]): number => {
  let sum = 0;
  for (let i = 0; i < k.names.length; i++)
    for (let j = i + 1; j < k.names.length; j++)
      if (weights[i]![j]! > 0) sum += weights[i]![j]! * varianceOf(k, i, j);
  return sum;
};

const eachOf = (slot: Slot, arms: number) => Math.floor(slot.places / arms);

/** What is known after a trial of these arms in this slot. */
export function foreseen(k: Knowledge, arms: readonly number[], slot: Slot, wishes: Wishes): Knowledge {
  const variance = wishes.tau2 / 2 + wishes.cv ** 2 / eachOf(slot, arms.length);
  return afterTrial(k, { arms, variances: arms.map(() => variance), values: null });
}

/**
 * The arms that teach most in one slot: those that leave the least variance in the contrasts that matter, by adding,
 * dropping and exchanging one at a time until none helps.
 */
export function bestArms(k: Knowledge, slot: Slot, wishes: Wishes, seed: number): number[] {
  const weights = weightsOf(k, wishes, seed);
  const all = k.names.map((_, i) => i);
  const most = Math.min(wishes.mostArms, Math.floor(slot.places / wishes.leastEach));
  if (most < 2) return [];
  const worth = (arms: readonly number[]) => loss(foreseen(k, arms, slot, wishes), weights);
  const pairs = all.flatMap((i) => all.filter((j) => i < j).map((j) => [i, j]));
  // From the best pair upwards, and from as many as fit downwards: the better of where the two end.
  const [up, down] = [bestIn(pairs, worth), exchanged(all.slice(0, most), all, most, worth)];
  return bestIn([exchanged(up, all, most, worth), down], worth);
}

type Worth = (arms: readonly number[]) => number;

const bestIn = (sets: readonly number[][], worth: Worth): number[] =>
  sets
    .map((arms) => ({ arms, left: worth(arms) }))
    .reduce((best, one) => (one.left < best.left - 1e-12 ? one : best)).arms;

/** Adds, drops and exchanges one at a time, the best of each turn, until none helps. */
function exchanged(from: readonly number[], all: readonly number[], most: number, worth: Worth): number[] {
  let now = [...from];
  for (;;) {
    const own = now;
    const out = all.filter((i) => !own.includes(i));
    const best = bestIn(
      [
        own,
        ...(own.length < most ? out.map((i) => [...own, i]) : []),
        ...(own.length > 2 ? own.map((i) => own.filter((x) => x !== i)) : []),
        ...own.flatMap((i) => out.map((o) => own.map((x) => (x === i ? o : x)))),
      ],
      worth,
    );
    if (best === own) return own;
    now = best;
  }
}

const Z = 1.959963984540054;
/** Half the width of a 95 % interval of a ratio, per cent. */
const halfWidth = (k: Knowledge, i: number, j: number) =>
  100 * Math.expm1(Z * Math.sqrt(varianceOf(k, i, j)));

/**
 * How often the one that would be recommended after these trials is truly the best: effects are drawn from what is known,
 * each trial is run on them, and what comes of it is judged.
 * @param trials arms and slot of each, in order; none: how sure one is now
 */
export function sureness(
  k: Knowledge,
  trials: readonly { arms: readonly number[]; slot: Slot }[],
  wishes: Wishes,
  seed: number,
  draws = 400,
): number {
  const random = seededRandom(seed);
  const draw = drawer(k);
  const among = wishes.among.map((n) => k.names.indexOf(n));
  let right = 0;
  for (let d = 0; d < draws; d++) {
    const theta = draw(random);
    let now = k;
    for (const { arms, slot } of trials) {
      const variance = wishes.tau2 / 2 + wishes.cv ** 2 / eachOf(slot, arms.length);
      now = afterTrial(now, {
        arms,
        variances: arms.map(() => variance),
        values: arms.map((i) => theta[i]! + Math.sqrt(variance) * random.normal()),
      });
    }
    if (bestOf(now.mean, among) === bestOf(theta, among)) right += 1;
  }
  return right / draws;
}

/** The pair of its own a trial does most for: by how much it matters, and how much of its variance goes. */
function turnsOn(
  arms: readonly number[],
  before: Knowledge,
  after: Knowledge,
  weights: readonly (readonly number[])[],
) {
  let [pair, most] = [[arms[0]!, arms[1]!] as [number, number], -1];
  for (const i of arms)
    for (const j of arms) {
      if (i >= j) continue;
      const gain = weights[i]![j]! * (varianceOf(before, i, j) - varianceOf(after, i, j));
      if (gain > most) [pair, most] = [[i, j], gain];
    }
  return pair;
}

/**
 * @param seen products that a finished trial tells of
 * @param earlier those that a trial proposed before this one will tell of
 */
function sayWhy(
  p: Omit<Proposal, 'why'>,
  wishes: Wishes,
  seen: ReadonlySet<string>,
  earlier: ReadonlySet<string>,
): string {
  const { a, b, before, after } = p.pair;
  // Where little is left to learn a whole per cent would hide what is learned.
  const known = (x: number) => `±${formatFigure(x, x < 10 ? 1 : 0)} %`;
  const nothingYet = seen.size + earlier.size === 0;
  const fresh = p.arms.filter((n) => n !== wishes.reference && !seen.has(n) && !earlier.has(n));
  const lead = nothingYet
    ? `Nothing is known of any of them yet: ${a} against ${b} would be uncertain by ${known(after)} after it`
    : wishes.goal.kind === 'best'
      ? `${a} and ${b} are the pair the best turns on: their difference is uncertain by ${known(before)}, after it by ${known(after)}`
      : `It does most for ${a} against ${b}: uncertain by ${known(before)}, after it by ${known(after)}`;
  const more =
    fresh.length > 0 && !nothingYet
      ? ` No finished trial has ${listNames(fresh)} beside ${fresh.length === 1 ? 'another' : 'others'} of these yet.`
      : '';
  return `${lead}.${more}`;
}

/**
 * The trials of a season, in their order, each for what is left to learn after those before it.
 *
 * @param seen products that a finished trial tells of, beside another of these
 * @param seed draws what can't be worked out; the same seed proposes the same
 */
export function proposeSeason(
  k: Knowledge,
  slots: readonly Slot[],
  wishes: Wishes,
  seen: ReadonlySet<string>,
  seed = 1,
): Proposal[] {
  const proposals: Proposal[] = [];
  const run: { arms: number[]; slot: Slot }[] = [];
  let now = k;
  let before = sureness(k, [], wishes, seed);
  for (const slot of [...slots].sort((x, y) => x.startDate.localeCompare(y.startDate))) {
    const arms = bestArms(now, slot, wishes, seed);
    if (arms.length < 2) continue;
    const next = foreseen(now, arms, slot, wishes);
    run.push({ arms, slot });
    const after = sureness(k, run, wishes, seed);
    const [i, j] = turnsOn(arms, now, next, weightsOf(now, wishes, seed));
    const made = {
      slot,
      arms: inOrder(arms, k.names, wishes.reference),
      each: eachOf(slot, arms.length),
      pair: { a: k.names[i]!, b: k.names[j]!, before: halfWidth(now, i, j), after: halfWidth(next, i, j) },
      sure: { before, after },
    };
    const earlier = new Set(proposals.flatMap((p) => p.arms));
    proposals.push({ ...made, why: sayWhy(made, wishes, seen, earlier) });
    [now, before] = [next, after];
  }
  return proposals;
}

/** The reference first, the others as they are listed. */
const inOrder = (arms: readonly number[], names: readonly string[], reference: string | null): string[] =>
  [...arms]
    .sort((a, b) => a - b)
    .map((i) => names[i]!)
    .sort((a, b) => Number(b === reference) - Number(a === reference));
