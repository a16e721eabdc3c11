import { deriveState } from '../log/state';
import type { TrialState } from '../log/state';
import type { Trial } from '../log/trial';
import { planIndex } from '../plan/planIndex';
import type { FindingInput } from './finding';
import { findingInput } from './findingInput';
import { shownOf } from './shown';
import type { NameOf } from '../model/nameOf';

/** What goes into one finding of a trial, with what a reader calls it. */
export interface NamedInput {
  trait: string;
  /** null: the trait's own summary over its rounds */
  round: string | null;
  /** null: all crops of a unit */
  crop: string | null;
  input: FindingInput;
}

/**
 * What every finding of a trial is worked out from: each trait as a whole and round by round, all crops and one by one.
 * @returns inputs, and what contenders are called: their codes while the trial is blind
 */
export function trialFindings(
  trial: Pick<Trial, 'plan' | 'log' | 'key'>,
  state: TrialState = deriveState(trial.plan, trial.log),
): { inputs: NamedInput[]; order: string[]; nameOf: NameOf } {
  const { plan } = state;
  const shownIndex = planIndex(shownOf(state, trial.key).shown.plan);
  const inputs = plan.traits.flatMap((trait) =>
    [null, ...plan.rounds.filter((r) => r.traitIds.includes(trait.id))].flatMap((round) =>
      [null, ...plan.cropsWithin.keys()].map((crop): NamedInput => ({
        trait: trait.name,
        round: round?.name ?? null,
        crop: crop === null ? null : plan.cropsWithin[crop]!,
        input: findingInput(state, trait, { roundId: round?.id ?? null, crop }),
      })),
    ),
  );
  return {
    inputs,
    order: plan.treatments.map((t) => t.id),
    nameOf: (id) => shownIndex.treatment(id)?.name ?? id,
  };
}
