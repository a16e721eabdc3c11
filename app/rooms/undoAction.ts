import type { ActionResult } from '../form/schemaFields';
import { describeChangeError } from '../store/errors';
import { TANGLED, undoPlan } from '../store/undo';
import { announce } from '../ui/announce';

/** Takes back this tab's last change of the plan and says what came of it. */
export async function undoAction(trialId: string | undefined): Promise<ActionResult> {
  const undone = await undoPlan(trialId);
  const text = undone.ok
    ? undone.value
      ? 'Taken back.'
      : 'There is nothing to take back in this tab.'
    : undone.error.tag === 'tangled'
      ? TANGLED
      : describeChangeError(undone.error);
  announce(text);
  return undone.ok ? { saved: true } : { errors: { intent: text } };
}
