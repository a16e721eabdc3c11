import { z } from 'zod';
import { ofKind } from '~core/log/state';
import type { Result } from '~core/model/result';
import { newId } from '~core/model/newId';
import { PlannedTask } from '~core/model/task';
import { type ActionResult, fieldErrors, optionalNumber, typedNumber } from '../../form/schemaFields';
import { type ChangeError, describeChangeError } from '../../store/errors';
import { appendEntries, loadTrial, savePlan } from '../../store/trials';
import { announce } from '../../ui/announce';

const shape = PlannedTask.shape;

/** A task of one's own, as typed. */
const TaskForm = z.object({
  intent: z.literal('task'),
  what: shape.what,
  why: shape.why,
  atHand: shape.atHand,
  caution: shape.caution,
  minutes: typedNumber('How long does it take?').pipe(shape.minutes),
  /** empty: the start */
  after: z
    .string()
    .trim()
    .max(60)
    .transform((t) => t || null),
  day: typedNumber('On which day?').pipe(shape.day),
  everyDays: optionalNumber().pipe(shape.everyDays),
  untilDay: optionalNumber().pipe(shape.untilDay),
  at: z
    .string()
    .transform((t) => t || null)
    .pipe(shape.at),
});
export type TaskFormInput = z.input<typeof TaskForm>;

export const emptyTask: TaskFormInput = {
  intent: 'task',
  ...{ what: '', why: '', atHand: '', caution: '', minutes: '5' },
  ...{ after: '', day: '', everyDays: '', untilDay: '', at: '' },
};

const DropForm = z.object({ intent: z.literal('dropTask'), key: z.string() });

/** Whether what was sent is about tasks. */
export const isOfTasks = (data: unknown): boolean =>
  ['task', 'dropTask'].includes(String((data as { intent?: unknown } | null)?.intent));

const answer = (written: Result<unknown, ChangeError>, message: string): ActionResult =>
  written.ok
    ? { saved: true, message, now: emptyTask }
    : { errors: { what: describeChangeError(written.error) } };

/** Adds a task, or drops one: to the plan until it is sealed, to the log from then on. */
export async function tasksAction(trialId: string | undefined, data: unknown): Promise<ActionResult> {
  const { state } = await loadTrial(trialId);
  const dropped = DropForm.safeParse(data);
  if (dropped.success) {
    const { key } = dropped.data;
    const own = ofKind(state, 'taskPlanned').find((e) => e.body.task.key === key);
    const result = own
      ? answer(
          await appendEntries(trialId, [
            { kind: 'correction', supersedes: own.standsFrom, replacement: null, reason: 'not needed' },
          ]),
          'Taken back.',
        )
      : answer(
          await savePlan(trialId, (plan) => ({
            ...plan,
            tasks: (plan.tasks ?? []).filter((t) => t.key !== key),
          })),
          'Not planned any more.',
        );
    announce('errors' in result ? Object.values(result.errors)[0]! : 'Not planned any more.');
    return result;
  }
  const parsed = TaskForm.safeParse(data);
  if (!parsed.success) return { errors: fieldErrors(parsed.error) };
  const { intent: _, ...typed } = parsed.data;
  const task: PlannedTask = { ...typed, key: newId() };
  return state.seal
    ? answer(
        await appendEntries(trialId, [{ kind: 'taskPlanned', task }]),
        'Planned, and written into the log.',
      )
    : answer(
        await savePlan(trialId, (plan) => ({ ...plan, tasks: [...(plan.tasks ?? []), task] })),
        'Planned.',
      );
}
