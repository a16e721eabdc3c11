import { type Result, err, ok } from '../model/result';
import { type DesignRow, type ModelError, prepareLinearModel } from '../stats/linearModel';
import { seededRandom } from '../stats/random';
import {
  type Analysed,
  type Counter,
  type Outcome,
  answer,
  bestOf,
  counter,
  judge,
  judgeProducts,
  plantAnswer,
  share,
  shownAsGood,
} from './rehearsalOutcome';

/** One unit of the plan as the rehearsal knows it. */
export interface RehearsedUnit {
  /** index of the treatment, 0 is the control */
  treatment: number;
  /** index of its block, 0 … ; all 0 without blocks */
  block: number;
  /** index of its column of a Latin square; all 0 in other designs */
  column: number;
  /** where it stands in the gradient: −0.5 at the worst place, 0.5 at the best, 0 without readings */
  gradient: number;
}

export interface RehearsalInput {
  units: readonly RehearsedUnit[];
  treatments: number;
  /** true change against the control in per cent, by treatment; the control's is 0 */
  predictedPercent: readonly number[];
  /** differences for the sweep: the best product differs by so much, the others not at all */
  sweepPercent: readonly number[];
  higherIsBetter: boolean;
  alpha: number;
  /** spread from unit to unit inside blocks, per cent of the control's mean */
  unitCvPercent: number;
  /** spread between blocks and between columns */
  blockCvPercent: number;
  /** difference between the best and the worst place of the gradient, per cent of the control's mean */
  gradientPercent: number;
  /** plants in a unit, and their spread; used to show what counting plants as units would do */
  plants: number;
  plantCvPercent: number;
  /** chance that a unit is lost */
  lossPercent: number;
  runs: number;
  seed: number;
  /** the question is whether others are as good as one; left out where it isn't */
  asGood?: { against: number; marginPercent: number };
  /** equals: every pair is one family, and none is a control */
  peers: boolean;
}

export interface Scenario {
  plan: Outcome;
  /** plants taken as units: the tests believe far more repeats than there are; null with one plant each */
  plantsAsUnits: Outcome | null;
  /** the same treatments over the same places without blocks; null where the plan has none */
  withoutBlocks: Outcome | null;
  /** no control: the winner is the product told better than every other */
  withoutControl: Outcome | null;
}

export interface RehearsalResult {
  runs: number;
  nothing: Scenario;
  predicted: Scenario;
  sweep: { percent: number; outcome: Outcome }[];
  /** where that is the question: share of runs in which one that is truly as good is shown to be; else null */
  asGood: number | null;
  /** runs in which so many units were lost that nothing could be compared */
  lostRuns: number;
}

export interface Rehearsal {
  total: number;
  done: () => number;
  /** runs some more trials; true when all are done */
  step: (runs: number) => boolean;
  /** of the runs done so far */
  result: () => RehearsalResult;
}

/** Ways in which units are lost are drawn beforehand: each takes a model of its own. */
const WAYS_TO_LOSE = 250;

/**
 * Rehearses a trial: thousands of made-up runs of this very plan, each analysed as the findings will be,
 * under “no difference”, “as predicted” and a sweep of differences.
 *
 * Effects add to every unit alike, so one analysis of the noise serves all scenarios.
 *
 * @param input every treatment has a unit; percentages of the control's mean
 * @returns a rehearsal to be stepped through, or why the plan can't be analysed
 * @example r.value.step(5000); r.value.result().nothing.plan.falseWinner // about alpha
 */
export function rehearse(input: RehearsalInput): Result<Rehearsal, ModelError | { tag: 'noResidual' }> {
  const { treatments: k, alpha, plants } = input;
  const sign = input.higherIsBetter ? 1 : -1;
  const blocks = Math.max(...input.units.map((u) => u.block)) + 1;
  const columns = Math.max(...input.units.map((u) => u.column)) + 1;
  const { peers } = input;
  const analysed = (rows: readonly DesignRow[], of: number): Result<Analysed, ModelError> => {
    const model = prepareLinearModel(...relabelled(rows, of));
    return model.ok ? ok({ model: model.value, rows, treatments: of, alpha, peers }) : model;
  };

  const own = analysed(input.units, k);
  if (!own.ok) return own;
  if (
    answer(
      own.value,
      input.units.map((_, i) => i % 2),
    ) === null
  )
    return err({ tag: 'noResidual' });

  const blocked = blocks > 1 || columns > 1;
  const plain = blocked
    ? analysed(
        input.units.map((u) => ({ ...u, block: 0, column: 0 })),
        k,
      )
    : null;
  const products = input.units.flatMap((u, i) => (u.treatment > 0 ? [i] : []));
  const among =
    k > 2 && !peers
      ? analysed(
          products.map((i) => ({ ...input.units[i]!, treatment: input.units[i]!.treatment - 1 })),
          k - 1,
        )
      : null;
  // Without a control the products are equals.
  const productModel = among?.ok ? { ...among.value, peers: true } : null;
  const random = seededRandom(input.seed);
  const zero = Array<number>(k).fill(0);
  const best = Math.max(1, bestOf(input.predictedPercent, sign));
  const sweepEffects = input.sweepPercent.map((p) => zero.map((_, i) => (i === best ? p * sign : 0)));
  const scenario = (effects: readonly number[]) => ({
    effects,
    plan: counter(),
    plants: counter(),
    plain: counter(),
    products: counter(),
  });
  const scenarios = [scenario(zero), scenario(input.predictedPercent)];
  const sweep = sweepEffects.map((effects) => ({ effects, count: counter() }));
  let done = 0;
  let lostRuns = 0;
  let asGood = 0;

  const n = input.units.length;
  const noise = new Float64Array(n);
  const place = new Float64Array(n);
  const values = new Float64Array(n);

  /** Sum of squares of plants about their unit’s mean, over all units. */
  const withinSquares = (units: number) => {
    let sum = 0;
    for (let i = 0; i < units * (plants - 1); i++) sum += random.normal() ** 2;
    return sum * input.plantCvPercent ** 2;
  };

  const ways: { alive: number[]; model: Analysed | null }[] = [];
  /** Some units lost, in one of the ways drawn so far or in a new one. */
  const lost = () => {
    if (ways.length === WAYS_TO_LOSE) return ways[done % WAYS_TO_LOSE]!;
    const alive = input.units.flatMap((_, i) => (random.uniform() * 100 >= input.lossPercent ? [i] : []));
    const model = analysed(
      alive.map((i) => input.units[i]!),
      k,
    );
    const way = { alive, model: model.ok ? model.value : null };
    ways.push(way);
    return way;
  };

  const run = () => {
    const blockEffect = Array.from(
      { length: blocks },
      () => random.normal() * (blocks > 1 ? input.blockCvPercent : 0),
    );
    const columnEffect = Array.from(
      { length: columns },
      () => random.normal() * (columns > 1 ? input.blockCvPercent : 0),
    );
    for (let i = 0; i < n; i++) {
      const u = input.units[i]!;
      place[i] = blockEffect[u.block]! + columnEffect[u.column]! + u.gradient * input.gradientPercent;
      noise[i] = random.normal() * input.unitCvPercent;
      values[i] = place[i]! + noise[i]!;
    }
    const left = input.lossPercent > 0 ? lost() : null;
    const model = left ? left.model : own.value;
    const a = model && answer(model, left ? left.alive.map((i) => values[i]!) : values);
    if (!a) {
      lostRuns += 1;
      return;
    }
    for (const s of scenarios) judge(a, s.effects, sign, s.plan);
    if (input.asGood && shownAsGood(a, input.asGood, sign)) asGood += 1;
    for (const s of sweep) judge(a, s.effects, sign, s.count);

    if (plants > 1 && (!left || left.alive.length === n)) {
      const p = plantAnswer(own.value, values, { plants, within: withinSquares(n) });
      for (const s of scenarios) judge(p, s.effects, sign, s.plants);
    }
    if (plain?.ok) {
      const order = random.shuffle(Array.from({ length: n }, (_, i) => i));
      const p = answer(
        plain.value,
        order.map((o, i) => place[o]! + noise[i]!),
      );
      if (p) for (const s of scenarios) judge(p, s.effects, sign, s.plain);
    }
    if (productModel) {
      const p = answer(
        productModel,
        products.map((i) => values[i]!),
      );
      if (p) for (const s of scenarios) judgeProducts(p, s.effects.slice(1), sign, s.products);
    }
  };

  const orNull = (c: Counter) => (c.runs > 0 ? share(c) : null);
  const shared = (s: (typeof scenarios)[number]): Scenario => ({
    plan: share(s.plan),
    plantsAsUnits: orNull(s.plants),
    withoutBlocks: orNull(s.plain),
    withoutControl: orNull(s.products),
  });
  return ok({
    total: input.runs,
    done: () => done,
    step: (runs) => {
      for (let i = 0; i < runs && done < input.runs; i++, done++) run();
      return done >= input.runs;
    },
    result: () => ({
      runs: done,
      nothing: shared(scenarios[0]!),
      predicted: shared(scenarios[1]!),
      sweep: sweep.map((s, i) => ({ percent: input.sweepPercent[i]!, outcome: share(s.count) })),
      asGood: input.asGood ? asGood / Math.max(1, done - lostRuns) : null,
      lostRuns,
    }),
  });
}

/** Blocks and columns numbered anew without gaps, for a model of some of the units. */
function relabelled(
  units: readonly DesignRow[],
  treatments: number,
): [rows: DesignRow[], treatments: number, blocks: number, columns: number] {
  const number = (pick: (u: DesignRow) => number) => {
    const known = [...new Set(units.map(pick))].sort((a, b) => a - b);
    return { of: (u: DesignRow) => known.indexOf(pick(u)), count: Math.max(1, known.length) };
  };
  const block = number((u) => u.block);
  const column = number((u) => u.column ?? 0);
  return [
    units.map((u) => ({ treatment: u.treatment, block: block.of(u), column: column.of(u) })),
    treatments,
    block.count,
    column.count,
  ];
}
