import { rowsOf } from '../analysis/rows';
import type { TrialState } from '../log/state';
import type { Trait } from '../model/plan';
import type { Result } from '../model/result';
import { comparedTrait } from '../plan/divisor';
import { comparesPeers, countedFrom } from '../plan/control';
import { ownControl } from '../plan/ownControl';
import { planIndex } from '../plan/planIndex';
import {
  type Finding,
  type FindingError,
  type FindingInput,
  type FindingOptions,
  makeFinding,
} from './finding';

/** Gathers what a finding of a trait needs from the state of a trial. */
export function findingInput(state: TrialState, trait: Trait, options: FindingOptions = {}): FindingInput {
  const { plan } = state;
  const roundId = options.roundId ?? null;
  return {
    ...rowsOf(state, trait, options),
    trait: comparedTrait(trait),
    isPrimary: trait.id === plan.primaryTraitId,
    roundId,
    roundName: roundId === null ? null : (planIndex(plan).round(roundId)?.name ?? null),
    crop: options.crop == null ? null : (plan.cropsWithin[options.crop] ?? null),
    control: countedFrom(plan)?.id ?? null,
    peers: comparesPeers(plan),
    order: plan.treatments.map((t) => t.id),
    ownControls: plan.treatments.flatMap((t) => {
      const control = ownControl(plan.treatments, plan.factors, t);
      return control === null ? [] : [{ id: t.id, control: control.id }];
    }),
    alpha: options.alpha ?? 0.05,
    smallestDifference: plan.smallestDifference,
    method: options.method ?? null,
  };
}

/** The finding of a trait as the state of its trial has it. */
export const findingOf = (
  state: TrialState,
  trait: Trait,
  options: FindingOptions = {},
): Result<Finding, FindingError> => makeFinding(findingInput(state, trait, options));
