import { missingForSeal } from '~core/plan/seal';
import type { Plan } from '~core/model/plan';
import type { RoomProgress } from './room';

/** How far a room that fills the plan is: by what the seal still wants of it. */
export function planProgress(
  plan: Plan,
  room: 'question' | 'contenders' | 'layout',
  begun: boolean,
): Pick<RoomProgress, 'progress' | 'hint'> {
  const lacks = missingForSeal(plan)
    .filter((m) => m.room === room)
    .map((m) => m.what);
  return {
    progress: lacks.length === 0 ? 'full' : begun ? 'half' : 'none',
    hint: lacks.length > 0 ? `Missing: ${lacks.join('; ')}` : 'Complete',
  };
}
