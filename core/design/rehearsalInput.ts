import { type Result, err, ok } from '../model/result';
import type { Design, Plan } from '../model/plan';
import { positionKey, readingsOf } from '../model/positions';
import { comparesPeers, countedFrom, heldAgainst } from '../plan/control';
import { experimentalUnits, sharesPlace } from '../plan/sharing';
import { sha256Of } from '../plan/seal';
import { layOut } from './layOut';
import type { LayoutError } from './randomise';
import type { RehearsalInput, RehearsedUnit } from './rehearsal';

/** What is assumed about the crop, on top of the plan. */
interface Assumptions {
  unitCvPercent: number;
  blockCvPercent: number;
  gradientPercent: number;
  plantCvPercent: number;
  lossPercent: number;
  runs: number;
  seed: number;
  alpha: number;
}

type RehearsalInputError = LayoutError | { tag: 'noControl' } | { tag: 'tooFewTreatments' };

/** Plants measured in each unit: what the treatments say, else the samples of the primary trait. */
export function plantsPerUnit(plan: Plan): number {
  const plantsPerUnit = plan.treatments.map((t) => t.conditions.plantsPerUnit ?? 0);
  const primary = plan.traits.find((t) => t.id === plan.primaryTraitId);
  return Math.max(1, Math.round(Math.max(0, ...plantsPerUnit)), primary?.samplesPerUnit ?? 1);
}

/** The smallest difference that matters in per cent of the control; null when it is absolute or not set. */
export const differencePercent = (plan: Plan): number | null =>
  plan.smallestDifference?.kind === 'percent' ? plan.smallestDifference.value : null;

/** Whether somebody said what a contender will do. */
export function isPredicted(plan: Plan): boolean {
  const control = countedFrom(plan);
  return plan.treatments.some((t) => t.id !== control?.id && t.expectedPercent !== null);
}

/**
 * The true changes that are rehearsed: what was written for each treatment; where nothing was, the first
 * product differs by the smallest difference that matters and the others not at all.
 */
export function predictedPercent(plan: Plan, fallback: number): Map<string, number> {
  const control = countedFrom(plan);
  const primary = plan.traits.find((t) => t.id === plan.primaryTraitId);
  const better = primary && primary.direction !== 'higher' ? -1 : 1;
  const written = isPredicted(plan);
  let given = false;
  return new Map(
    plan.treatments.map((t) => {
      if (t.id === control?.id) return [t.id, 0];
      if (written) return [t.id, t.expectedPercent ?? 0];
      const first = !given && t.role === 'test';
      if (first) given = true;
      return [t.id, first ? fallback * better : 0];
    }),
  );
}

/**
 * What is needed to rehearse a plan: its own layout where there is one, else one drawn from its design (or
 * blocks of four units each).
 */
export function rehearsalInput(plan: Plan, a: Assumptions): Result<RehearsalInput, RehearsalInputError> {
  const control = countedFrom(plan);
  if (plan.treatments.length < 2) return err({ tag: 'tooFewTreatments' });
  if (!control) return err({ tag: 'noControl' });
  let units = experimentalUnits(plan).map((e) => e.unit);
  if (units.length === 0) {
    const replicates = plan.design?.replicates ?? 4;
    const design: Design = plan.design ?? {
      kind: 'rcbd',
      replicates,
      seed: a.seed,
      settings: [],
      balance: null,
    };
    const k = plan.treatments.length;
    const { unitsShare: _, ...alone } = plan;
    const room = {
      ...alone,
      areas: [
        {
          id: 'imagined' as Plan['areas'][number]['id'],
          name: 'imagined',
          kind: 'shelf' as const,
          rows: Math.ceil(replicates * Math.max(1, design.settings.length)),
          columns: k,
          widthCm: null,
          depthCm: null,
          reserved: [],
        },
      ],
    };
    const placed = layOut(room, design);
    if (!placed.ok) return placed;
    units = placed.value;
  }
  const order = [control.id, ...plan.treatments.map((t) => t.id).filter((id) => id !== control.id)];
  const readings = readingsOf(plan.gradient);
  const values = units.map((u) => readings.get(positionKey(u.position)));
  const known = values.filter((v) => v !== undefined);
  const [low, high] = [Math.min(...known), Math.max(...known)];
  const number = (pick: (u: (typeof units)[number]) => number | null) => {
    const labels = [...new Set(units.map(pick))];
    return (u: (typeof units)[number]) => labels.indexOf(pick(u));
  };
  const blocked = !sharesPlace(plan) && units.every((u) => u.block !== null);
  const inColumns = blocked && units.every((u) => u.columnBlock !== null);
  const blockOf = number((u) => (blocked ? u.block : null));
  const columnOf = number((u) => (inColumns ? u.columnBlock : null));
  const predicted = predictedPercent(plan, differencePercent(plan) ?? 10);
  const held = heldAgainst(plan);
  const largest = Math.max(differencePercent(plan) ?? 10, ...[...predicted.values()].map(Math.abs));
  const primary = plan.traits.find((t) => t.id === plan.primaryTraitId);
  return ok({
    units: units.map((u, i): RehearsedUnit => ({
      treatment: order.indexOf(u.treatmentId),
      block: blockOf(u),
      column: columnOf(u),
      gradient: values[i] === undefined || high <= low ? 0 : (values[i] - low) / (high - low) - 0.5,
    })),
    treatments: order.length,
    predictedPercent: order.map((id) => predicted.get(id)!),
    sweepPercent: [0.25, 0.5, 0.75, 1, 1.5, 2].map((f) => Number((f * largest).toPrecision(3))),
    ...(held && {
      asGood: {
        against: order.indexOf(held.id),
        marginPercent: differencePercent(plan) ?? 10,
      },
    }),
    higherIsBetter: !primary || primary.direction === 'higher',
    alpha: a.alpha,
    unitCvPercent: a.unitCvPercent,
    blockCvPercent: a.blockCvPercent,
    gradientPercent: a.gradientPercent,
    plants: plantsPerUnit(plan),
    plantCvPercent: a.plantCvPercent,
    lossPercent: a.lossPercent,
    runs: a.runs,
    seed: a.seed,
    peers: comparesPeers(plan),
  });
}

/** Nothing assumed of the crop: what is left of the input is the plan's own. */
const NOTHING: Assumptions = {
  ...{ unitCvPercent: 0, blockCvPercent: 0, gradientPercent: 0, plantCvPercent: 0, lossPercent: 0 },
  ...{ runs: 1, seed: 1, alpha: 0.05 },
};

/**
 * What a rehearsal depends on of a plan (layout, control, what contenders are expected to do), as a hash: another one
 * is another trial on paper.
 * @returns null where the plan can't be rehearsed
 */
export function rehearsedOf(plan: Plan): string | null {
  // Opened codes may have put contenders in another order.
  const treatments = plan.treatments.toSorted((a, b) => (a.id < b.id ? -1 : 1));
  const input = rehearsalInput({ ...plan, treatments }, NOTHING);
  return input.ok ? sha256Of(input.value) : null;
}
