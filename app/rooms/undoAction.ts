import { z } from 'zod';
import { ok } from '~core/model/result';
import { command } from '../form/command';
import { refuse } from '../form/recordForm';
import { TANGLED, undoPlan } from '../store/undo';

/** Takes back this tab's last change of the plan. */
export const undoCommand = command(z.object({ intent: z.literal('undo') }), async (trialId) => {
  const undone = await undoPlan(trialId);
  if (undone.ok)
    return ok({ message: undone.value ? 'Taken back.' : 'There is nothing to take back in this tab.' });
  return undone.error.tag === 'tangled' ? refuse('intent', TANGLED) : { ok: false, error: undone.error };
});
