import { expose } from 'comlink';
import { deriveState } from '~core/log/state';
import type { Entry } from '~core/model/entry';
import type { RoundId, TraitId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { makeFinding } from '~core/verdict/finding';

/** One question to the worker: a trait, perhaps one round of it. */
export interface FindingRequest {
  traitId: TraitId;
  roundId?: RoundId;
  withExcluded?: boolean;
  /** one crop within the units alone */
  crop?: number;
}

const api = {
  /** Findings for several requests on one trial; the log is read once. */
  findings: (plan: Plan, log: Entry[], requests: FindingRequest[]) => {
    const state = deriveState(plan, log);
    return requests.map(({ traitId, ...options }) => {
      const trait = plan.traits.find((t) => t.id === traitId)!;
      return makeFinding(state, trait, options);
    });
  },
};

export type FindingsApi = typeof api;
expose(api);
