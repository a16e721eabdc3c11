import type { TrialState } from '../log/state';
import { panelOutcome } from './panelOutcome';
import { sessionsOf } from './sessions';

/**
 * What the revealed sessions of a trial say of each contender, thing by thing: what a heading of the scorecard can be
 * made from. Sessions whose key isn't the one they began with are left out.
 */
export const panelFigures = (state: Pick<TrialState, 'byKind' | 'plan'>) =>
  sessionsOf(state).flatMap((held) => {
    const outcome = held.revealed?.holds
      ? panelOutcome(
          held,
          state.plan.treatments.map((t) => t.id),
        )
      : null;
    return (outcome?.scored ?? []).map((thing) => ({
      sessionId: held.session.id as string,
      name: `${thing.name} (${held.session.name})`,
      thing: thing.name,
      moreIsBetter: thing.moreIsBetter,
      treatments: thing.treatments.map((t) => ({ id: t.id as string, values: t.values })),
    }));
  });
