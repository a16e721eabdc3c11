import type { RoundId, TraitId, UnitId } from '../model/ids';
import type { Plan, Trait } from '../model/plan';
import { type Observation, type TrialState, observationsOf } from './state';

/** The newest observation of each sample. */
function newestPerSample(observations: readonly Observation[]): Observation[] {
  const bySample = new Map<number | null, Observation>();
  for (const o of observations) bySample.set(o.sample, o);
  return [...bySample.values()];
}

const total = (xs: readonly number[]) => xs.reduce((s, x) => s + x, 0);
const mean = (xs: readonly number[]) => total(xs) / xs.length;

/** Groups by round, keeping the order of time; values without a round are each their own visit. */
function visits(observations: readonly Observation[]): Observation[][] {
  const groups = new Map<string, Observation[]>();
  observations.forEach((o, i) => {
    const key = o.roundId ?? `alone ${o.sample === null ? i : o.at}`;
    const group = groups.get(key);
    if (group) group.push(o);
    else groups.set(key, [o]);
  });
  return [...groups.values()].map(newestPerSample);
}

/** What an observation counts as: k of n as per cent, all else as it was written down. */
export const observedValue = (trait: Trait, o: Pick<Observation, 'value' | 'outOf'>): number =>
  trait.kind === 'ratio' ? (100 * o.value) / (o.outOf ?? trait.outOf ?? 1) : o.value;

/** Samples measured in a unit: so many of each crop within it; each crop is weighed once. */
export const samplesIn = (plan: Pick<Plan, 'cropsWithin'>, trait: Trait): number =>
  Math.max(1, plan.cropsWithin.length) * (trait.kind === 'weighing' ? 1 : trait.samplesPerUnit);

/** The crop within the unit that a sample belongs to, from 0; samples are numbered crop by crop. */
export const cropOfSample = (trait: Trait, sample: number | null): number =>
  Math.floor(((sample ?? 1) - 1) / (trait.kind === 'weighing' ? 1 : trait.samplesPerUnit));

/**
 * The one value of a unit that goes into an analysis: samples averaged (weights of crops added) within each visit, then the last
 * visit's value or the sum over all picks, as the trait says.
 *
 * @param roundId takes that round alone
 * @param crop takes the samples of that crop within the unit alone, counted from 0
 * @returns value in the trait's unit (per cent for k of n), or null when nothing was measured
 */
export function unitValue(
  state: TrialState,
  unitId: UnitId,
  trait: Trait,
  roundId?: RoundId,
  crop?: number,
): number | null {
  const all = observationsOf(state, unitId, trait.id, roundId);
  const groups = visits(crop === undefined ? all : all.filter((o) => cropOfSample(trait, o.sample) === crop));
  if (groups.length === 0) return null;
  // Weights of several crops make the unit's weight together; all else is averaged over samples.
  const whole = trait.kind === 'weighing' ? total : mean;
  const values = groups.map((g) => whole(g.map((o) => observedValue(trait, o))));
  return trait.summary === 'sum' && roundId === undefined
    ? Number(values.reduce((s, v) => s + v, 0).toFixed(9))
    : values[values.length - 1]!;
}

/** Why a unit is left out of the findings for a trait, or null when it is in. */
export function exclusionReason(state: TrialState, unitId: UnitId, traitId: TraitId): string | null {
  const found = state.exclusions.find(
    (x) => x.unitId === unitId && (x.traitId === null || x.traitId === traitId),
  );
  return found?.reason ?? null;
}

/**
 * How good a value is for ranking: itself when higher or lower is better; for a wanted band the distance
 * outside it (0 inside), where less is better.
 */
export function traitScore(trait: Trait, value: number): number {
  if (trait.direction !== 'band') return value;
  if (value < trait.bandLow!) return trait.bandLow! - value;
  if (value > trait.bandHigh!) return value - trait.bandHigh!;
  return 0;
}
