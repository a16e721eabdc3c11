import { keptOf } from './keptOf';
import type { RoundId, TraitId, UnitId } from '../model/ids';
import { type Observed, kindOf } from '../model/traitKinds';
import type { Plan, Trait } from '../model/plan';
import type { Observation } from './observation';
import { dryingVisits } from './drying';
import { pickVisits } from './picks';
import { type TrialState, observationsOf } from './state';

/** One sample of a unit as it was observed on one visit. */
export interface Sample {
  /** null when the unit is taken as a whole */
  sample: number | null;
  /** the crop within the unit it belongs to, from 0 */
  crop: number;
  observed: Observed;
}

/** One visit to a unit: all samples of one round, or one value that belongs to no round. */
export interface Visit {
  roundId: RoundId | null;
  /** day of the trial the visit belongs to */
  day: number;
  samples: Sample[];
}

/** What was observed of one trait on one unit, visit by visit in the order of their days. */
export interface Response {
  unitId: UnitId;
  traitId: TraitId;
  visits: Visit[];
}

/** Samples measured in a unit: so many of each crop within it. */
export const samplesIn = (plan: Pick<Plan, 'cropsWithin'>, trait: Trait): number =>
  cropsTaken(plan, trait) * kindOf(trait).samples(trait);

/** Crops of a unit that a trait is taken of, one by one; 1 where it is taken of the unit. */
export const cropsTaken = (plan: Pick<Plan, 'cropsWithin'>, trait: Pick<Trait, 'wholeUnit'>): number =>
  trait.wholeUnit ? 1 : Math.max(1, plan.cropsWithin.length);

/** The crop within the unit that a sample belongs to, from 0; samples are numbered crop by crop. */
export const cropOfSample = (trait: Trait, sample: number | null): number =>
  Math.floor(((sample ?? 1) - 1) / kindOf(trait).samples(trait));

/** Number of a sample within its crop, from 1. */
export const numberInCrop = (trait: Trait, sample: number | null): number =>
  (((sample ?? 1) - 1) % kindOf(trait).samples(trait)) + 1;

/**
 * What was observed of a trait on a unit. One rule for each thing that could be counted twice:
 * - samples: the newest value of each sample of a visit stands; a sample that died isn't taken
 * - visits: values of one round are one visit; a value without a round is a visit of its own
 * - the last visit is the one of the latest day of the plan, never the one typed last
 *
 * @param crop takes the samples of that crop within the unit alone, counted from 0
 * @example responseOf(state, unitId, rooted).visits[0].samples[0].observed // { type: 'kOfN', k: 4, n: 5 }
 */
export function responseOf(
  state: TrialState,
  unitId: UnitId,
  trait: Trait,
  crop: number | null = null,
): Response {
  return kept(state, trait, { unitId, crop });
}

const kept = keptOf(
  (state, trait, { unitId, crop }: { unitId: UnitId; crop: number | null }) =>
    observed(state, unitId, trait, crop),
  ({ unitId, crop }) => `${crop}/${unitId}`,
);

function observed(state: TrialState, unitId: UnitId, trait: Trait, crop: number | null): Response {
  const kind = kindOf(trait);
  if (kind.takenBy === 'oven')
    return { unitId, traitId: trait.id, visits: dryingVisits(state, unitId, trait) };
  if (kind.takenBy === 'picks') {
    return { unitId, traitId: trait.id, visits: pickVisits(state, unitId, trait) };
  }
  const visits: Visit[] =
    kind.takenBy === 'words'
      ? remarksOf(state, unitId, trait)
      : grouped(observationsOf(state, unitId, trait.id)).map((group) => ({
          roundId: group[0]!.roundId,
          day: group[0]!.day,
          samples: newestPerSample(group).map((o) => ({
            sample: o.sample,
            crop: cropOfSample(trait, o.sample),
            observed: kind.observed(o, trait),
          })),
        }));
  const dead = state.deadSamples.get(unitId);
  const wanted = visits
    .map((v) => ({
      ...v,
      samples: v.samples.filter(
        (s) => (crop === null || s.crop === crop) && !(s.sample !== null && dead?.has(s.sample)),
      ),
    }))
    .filter((v) => v.samples.length > 0);
  return { unitId, traitId: trait.id, visits: wanted };
}

/** Whether anything was observed of a trait on a unit. */
export function isTaken(state: TrialState, unitId: UnitId, trait: Trait): boolean {
  if (kindOf(trait).takenBy === 'picks') return pickVisits(state, unitId, trait).length > 0;
  if (kindOf(trait).takenBy === 'oven') return dryingVisits(state, unitId, trait).length > 0;
  return kindOf(trait).takenBy === 'words'
    ? state.notes.some((n) => n.unitId === unitId && n.traitId === trait.id)
    : observationsOf(state, unitId, trait.id).length > 0;
}

/** The newest observation of each sample; the list is in the order they were taken. */
function newestPerSample(observations: readonly Observation[]): Observation[] {
  const bySample = new Map<number | null, Observation>();
  for (const o of observations) bySample.set(o.sample, o);
  return [...bySample.values()];
}

/** Groups by round, keeping the order of days; values without a round are each their own visit. */
function grouped(observations: readonly Observation[]): Observation[][] {
  const groups = new Map<string, Observation[]>();
  observations.forEach((o, i) => {
    const key = o.roundId ?? `alone ${o.sample === null ? i : o.at}`;
    const group = groups.get(key);
    if (group) group.push(o);
    else groups.set(key, [o]);
  });
  return [...groups.values()];
}

/** Remarks that are the values of a trait taken in words: the newest of each round. */
function remarksOf(state: TrialState, unitId: UnitId, trait: Trait): Visit[] {
  const byRound = new Map<RoundId | null, Visit>();
  for (const n of state.notes) {
    if (n.unitId !== unitId || n.traitId !== trait.id) continue;
    const day = state.plan.rounds.find((r) => r.id === n.roundId)?.day ?? 0;
    byRound.set(n.roundId, {
      roundId: n.roundId,
      day,
      samples: [{ sample: null, crop: 0, observed: { type: 'words', text: n.text } }],
    });
  }
  return [...byRound.values()].sort((a, b) => a.day - b.day);
}

/** Why a unit is left out of the findings for a trait, or null when it is in. */
export function exclusionReason(state: TrialState, unitId: UnitId, traitId: TraitId): string | null {
  const exclusion = state.exclusions.find(
    (x) => x.unitId === unitId && (x.traitId === null || x.traitId === traitId),
  );
  return exclusion?.reason ?? null;
}
