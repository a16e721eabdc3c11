import type { EntryId, TraitId, UnitId } from '../model/ids';
import type { Trait } from '../model/plan';
import { dayOfDate } from '../plan/days';
import { netG } from './kinds/weighing';
import { localDay } from './localDay';
import type { Visit } from './response';
import { type TrialState, ofKind } from './state';

/** Change from one weighing to the next, per cent, under which a weight is called constant, where the plan says nothing (practice). */
export const USUAL_CONSTANT_PERCENT = 1;

/** One weighing on the way. */
interface DryingStep {
  entryId: EntryId;
  at: string;
  offsetMin: number | null;
  netG: number;
  /** change against the weighing before, per cent of it; null for the first */
  changePercent: number | null;
}

/** A unit's way to constant weight. */
export interface DryingSeries {
  /** net as it went in, g; null: not weighed fresh */
  freshG: number | null;
  steps: DryingStep[];
  /** constant weight, g; null: still drying, or only weighed once */
  dryG: number | null;
  /** per cent water of the fresh weight; null without both */
  waterPercent: number | null;
  /** heads or plants dried together */
  together: number;
}

/**
 * Whether a series of weights has come to rest: the last changed from the one before by less than a share of it. A
 * weight that rose counts as its change.
 *
 * @param weightsG in the order they were taken
 * @param percent the share the plan states
 * @example constantWeight([12, 8.1, 8.05], 1) // 8.05: 0.6 % less than before
 */
export function constantWeight(weightsG: readonly number[], percent: number): number | null {
  const [before, last] = weightsG.slice(-2);
  if (before === undefined || last === undefined || before <= 0) return null;
  return Math.abs(last - before) < (percent / 100) * before ? last : null;
}

/** The drying of a unit for a trait, and its constant weight where it has come to it. */
export function dryingOf(
  state: Pick<TrialState, 'byKind'>,
  unitId: UnitId,
  trait: Pick<Trait, 'constantPercent'> & { id: TraitId },
): DryingSeries | null {
  const own = ofKind(state, 'drying').filter((e) => e.body.unitId === unitId && e.body.traitId === trait.id);
  if (own.length === 0) return null;
  const fresh = own.findLast((e) => e.body.stage === 'fresh');
  const dried = own.filter((e) => e.body.stage === 'dry');
  const weights = dried.map((e) => netG(e.body));
  const freshG = fresh ? netG(fresh.body) : null;
  const dryG = constantWeight(weights, trait.constantPercent ?? USUAL_CONSTANT_PERCENT);
  return {
    freshG,
    steps: dried.map((e, i) => {
      const before = weights[i - 1];
      return {
        entryId: e.id,
        at: e.at,
        offsetMin: e.offsetMin,
        netG: weights[i]!,
        changePercent: before === undefined || before <= 0 ? null : (100 * (weights[i]! - before)) / before,
      };
    }),
    dryG,
    waterPercent: dryG === null || freshG === null || freshG <= 0 ? null : (100 * (freshG - dryG)) / freshG,
    together: own.at(-1)!.body.together,
  };
}

/** The trait whose weighings a trait rests on: its own, or for per cent water the plan's first dry weight. */
const driedTrait = (traits: readonly Trait[], trait: Trait): Trait | undefined =>
  trait.kind === 'waterShare' ? traits.find((t) => t.kind === 'dryWeight') : trait;

/** A unit's constant weight, or its per cent of water, as the one visit of the trait; none while it dries. */
export function dryingVisits(state: TrialState, unitId: UnitId, trait: Trait): Visit[] {
  const of = driedTrait(state.plan.traits, trait);
  const series = of && dryingOf(state, unitId, of);
  const value = trait.kind === 'waterShare' ? series?.waterPercent : series?.dryG;
  const last = series?.steps.at(-1);
  if (value == null || !last) return [];
  return [
    {
      roundId: null,
      day: dayOfDate(state.plan.startDate, localDay(last)),
      samples: [{ sample: null, crop: 0, observed: { type: 'continuous', value } }],
    },
  ];
}
