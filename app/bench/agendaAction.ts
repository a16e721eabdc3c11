import { z } from 'zod';
import { milestone } from '~core/log/kinds/milestone';
import { taskDone } from '~core/log/kinds/taskDone';
import { taskSkipped } from '~core/log/kinds/taskSkipped';
import { work } from '~core/log/kinds/work';
import { ofKind } from '~core/log/state';
import { describeChangeError } from '../store/errors';
import { appendEntries } from '../store/trials';
import { announce } from '../ui/announce';
import { noonOf } from '../store/change';

const trialId = z.string().min(1);
/** What the agenda sends: ticks, untick, reasons, events. */
const AgendaForm = z.discriminatedUnion('intent', [
  z.object({
    intent: z.literal('tick'),
    trialId,
    task: taskDone.body.shape.task,
    /** another day than today */
    on: z.iso.date().optional(),
  }),
  z.object({
    intent: z.literal('took'),
    trialId,
    /** what is ticked off with it; left out: nothing, the log shows by itself that it is done */
    task: taskDone.body.shape.task.optional(),
    what: work.body.shape.task,
    minutes: work.body.shape.minutes,
  }),
  z.object({ intent: z.literal('untick'), trialId, task: taskDone.body.shape.task }),
  z.object({
    intent: z.literal('skip'),
    trialId,
    task: taskSkipped.body.shape.task,
    reason: taskSkipped.body.shape.reason,
  }),
  z.object({ intent: z.literal('reached'), trialId, event: milestone.body.shape.event }),
]);

/** Whether a form is the agenda's. */
export const isOfAgenda = (data: unknown): boolean => AgendaForm.safeParse(data).success;

/** Writes what was ticked, skipped or reached into its trial's log, and says what came of it. */
export async function agendaAction(data: unknown): Promise<null> {
  const form = AgendaForm.parse(data);
  const written = await appendEntries(
    form.trialId,
    ({ state }) => {
      switch (form.intent) {
        case 'tick':
          return state.tasksDone.has(form.task) ? [] : [{ kind: 'taskDone', task: form.task }];
        case 'took':
          return [
            ...(form.task === undefined || state.tasksDone.has(form.task)
              ? []
              : [{ kind: 'taskDone' as const, task: form.task }]),
            { kind: 'work', task: form.what, minutes: form.minutes, unitIds: [] },
          ];
        case 'untick':
          return [...ofKind(state, 'taskDone'), ...ofKind(state, 'taskSkipped')]
            .filter((e) => e.body.task === form.task)
            .map((e) => ({
              kind: 'correction' as const,
              supersedes: e.standsFrom,
              replacement: null,
              reason: 'not done after all',
            }));
        case 'skip':
          return [{ kind: 'taskSkipped', task: form.task, reason: form.reason }];
        case 'reached':
          return [{ kind: 'milestone', event: form.event }];
      }
    },
    form.intent === 'tick' && form.on ? noonOf(form.on) : undefined,
  );
  announce(
    !written.ok
      ? `Not kept: ${describeChangeError(written.error)}`
      : {
          tick: 'Done, and written into the log.',
          took: 'The minutes are in the log; Cost can count them.',
          untick: 'Open again; the log keeps both lines.',
          skip: 'Written into the log.',
          reached: 'Written into the log; what waited for it has its day now.',
        }[form.intent],
  );
  return null;
}
