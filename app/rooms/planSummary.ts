import type { TrialState } from '~core/log/state';
import { missingForSeal } from '~core/plan/seal';
import { isOpenRound, roundProgress, stageOf } from '~core/schedule/rounds';
import { relativeDay } from '../ui/clock';

/** What comes next in a trial, in a few words. */
export function planSummary(state: TrialState, today: string, blind = false): string {
  const stage = stageOf(state, today);
  if (stage === 'planning') {
    const missing = missingForSeal(state.plan);
    return missing.length > 0 ? `missing: ${missing[0]!.what}` : 'ready to be sealed';
  }
  if (stage === 'finished') return blind ? 'open the codes' : 'read the verdict';
  const next = roundProgress(state, today).find(isOpenRound);
  return next ? `${next.round.name}, ${relativeDay(next.date, today)}` : 'no round planned';
}
