import { type Json, mergeChanges } from '~core/model/merge';
import type { Plan } from '~core/model/plan';
import { bench } from './bench';
import type { ChangeError } from './errors';
import { type Result, err, ok } from '~core/model/result';
import { tabId } from './tab';
import { savePlan } from './trials';

/** How many changes of the plan this tab can take back. */
export async function undoDepth(id: string): Promise<number> {
  return (await bench()).steps.where('[trialId+tab]').equals([id, tabId()]).count();
}

/**
 * Takes back this tab's last change of a plan: that change alone, out of the plan as it now is. What another tab
 * did since stays; where both touched the same the change can't be taken back by itself.
 *
 * @returns whether there was anything to take back
 */
export async function undoPlan(
  id: string | undefined,
): Promise<Result<boolean, ChangeError | { tag: 'tangled' }>> {
  const db = await bench();
  const step = id
    ? await db.steps.where('[trialId+tab]').equals([id, tabId()]).reverse().sortBy('seq')
    : undefined;
  const last = step?.[0];
  if (!last) return ok(false);
  const saved = await savePlan<{ tag: 'tangled' }>(
    id,
    (now) => {
      const { value, conflicts } = mergeChanges(last.after as Json, last.before as Json, now as Json);
      return conflicts.length > 0 ? err({ tag: 'tangled' }) : ok(value as Plan);
    },
    { isUndo: true },
  );
  if (!saved.ok) return saved;
  await db.steps.delete(last.seq!);
  return ok(true);
}

export const TANGLED =
  'Another tab has changed the same since: that change can’t be taken back by itself. Nothing was done.';
