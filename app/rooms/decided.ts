import { isTaken } from '~core/log/response';
import type { TrialState } from '~core/log/state';
import { planIndex } from '~core/plan/planIndex';

/** Units that have a value of the deciding trait, and whether all that live have. */
export function decidedUnits(state: TrialState): { decided: number; all: boolean } {
  const { plan } = state;
  const primary = plan.primaryTraitId ? planIndex(plan).trait(plan.primaryTraitId) : undefined;
  const decided = primary ? plan.units.filter((u) => isTaken(state, u.id, primary)).length : 0;
  return { decided, all: decided > 0 && decided >= plan.units.length - state.deaths.size };
}
