import { z } from 'zod';
import { ofKind } from '~core/log/state';
import type { Plan } from '~core/model/plan';
import { type Result, ok } from '~core/model/result';
import { type Done, command, done } from '../../../form/command';
import { takenBack } from '../../../store/change';
import { newId } from '~core/model/newId';
import { PlannedTask } from '~core/model/task';
import { optionalNumber, orNull, typedNumber } from '../../../form/schemaFields';
import { appendEntries, loadTrial, savePlan } from '../../../store/trials';

const { key: _, ...shape } = PlannedTask.shape;

/** A task of one's own, as typed. */
const TaskForm = z.object({
  intent: z.literal('task'),
  ...shape,
  minutes: typedNumber('How long does it take?').pipe(shape.minutes),
  /** empty: the start */
  after: orNull(shape.after.unwrap()),
  day: typedNumber('On which day?').pipe(shape.day),
  everyDays: optionalNumber().pipe(shape.everyDays),
  untilDay: optionalNumber().pipe(shape.untilDay),
  at: orNull(shape.at.unwrap()),
});
type TaskFormInput = z.input<typeof TaskForm>;

export const emptyTask: TaskFormInput = {
  intent: 'task',
  ...{ what: '', why: '', atHand: '', caution: '', minutes: '5' },
  ...{ after: '', day: '', everyDays: '', untilDay: '', at: '' },
};

const planned = <T, E>(written: Result<T, E>, message: string): Result<Done, E> =>
  written.ok ? ok({ message, now: emptyTask }) : written;

/** Adds a task, or drops one: to the plan until it is sealed, to the log from then on. */
export const taskCommands = {
  task: command(TaskForm, async (trialId, { intent: _, ...typed }) => {
    const { state } = await loadTrial(trialId);
    const task: PlannedTask = { ...typed, key: newId() };
    return state.seal
      ? planned(
          await appendEntries(trialId, [{ kind: 'taskPlanned', task }]),
          'Planned, and written into the log.',
        )
      : planned(
          await savePlan(trialId, (plan) => ({ ...plan, tasks: [...(plan.tasks ?? []), task] })),
          'Planned.',
        );
  }),
  dropTask: command(z.object({ key: z.string() }), async (trialId, { key }) => {
    const { state } = await loadTrial(trialId);
    const own = ofKind(state, 'taskPlanned').find((e) => e.body.task.key === key);
    const without = (plan: Plan) => ({ ...plan, tasks: (plan.tasks ?? []).filter((t) => t.key !== key) });
    return own
      ? done(await appendEntries(trialId, [takenBack(own.standsFrom, 'not needed')]), 'Not planned any more.')
      : done(await savePlan(trialId, without), 'Not planned any more.');
  }),
};
