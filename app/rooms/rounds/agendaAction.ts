import { z } from 'zod';
import { milestone } from '~core/log/kinds/milestone';
import { taskDone } from '~core/log/kinds/taskDone';
import { taskSkipped } from '~core/log/kinds/taskSkipped';
import { work } from '~core/log/kinds/work';
import { ofKind } from '~core/log/state';
import { command, done } from '../../form/command';
import { ok } from '~core/model/result';
import { actsBeforeSeal, beforeSealTask, saidBeforeSeal } from '~core/schedule/agenda';
import { linesBeforeSeal } from '~core/schedule/beforeSeal';
import { change, momentOf, noonOf, takenBack } from '../../store/change';
import { appendEntries } from '../../store/trials';

const trialId = z.string().min(1);
const { task } = taskDone.body.shape;

/** Writes what was ticked, skipped or reached into its trial's log. */
export const agendaCommands = {
  /** what became of the days before the seal, said once */
  beforeSeal: command(
    z.object({ trialId, beforeSeal: z.enum(['planned', 'notDone', 'typed']) }),
    async (_, f) => {
      const changed = await change<never>(f.trialId, ({ trial: { state } }) => {
        if (actsBeforeSeal(state).length === 0) return ok({});
        const lines = linesBeforeSeal(state, f.beforeSeal);
        return ok({
          entries: lines.map((l) => l.body),
          happened: lines.map(({ on }) => (on ? momentOf(on.date, on.at ?? '12:00') : undefined)),
        });
      });
      return done(changed, 'Written into the log.');
    },
  ),
  askBeforeSeal: command(z.object({ trialId, askBeforeSeal: z.literal(true) }), async (_, f) =>
    done(
      await appendEntries(f.trialId, ({ state }) => {
        const beforeSeal = saidBeforeSeal(state);
        const answer = ofKind(state, 'taskDone').find(
          (e) => beforeSeal && e.body.task === beforeSealTask(beforeSeal),
        );
        // What was written with the answer is taken back with it.
        const written = [
          ...ofKind(state, 'taskDone'),
          ...ofKind(state, 'taskSkipped'),
          ...ofKind(state, 'move'),
        ].filter((e) => e.recordedAt === answer?.recordedAt && e.device === answer?.device);
        return written.map((e) => takenBack(e.standsFrom, 'asked again'));
      }),
      'Asked again; the log keeps all lines.',
    ),
  ),
  tick: command(
    // `on`: another day than today
    z.object({ trialId, task, on: z.iso.date().optional() }),
    async (_, f) =>
      done(
        await appendEntries(
          f.trialId,
          ({ state }) => (state.tasksDone.has(f.task) ? [] : [{ kind: 'taskDone', task: f.task }]),
          f.on ? noonOf(f.on) : undefined,
        ),
        'Done, and written into the log.',
      ),
  ),
  took: command(
    z.object({
      trialId,
      /** what is ticked off with it; left out: nothing, the log shows by itself that it is done */
      task: task.optional(),
      what: work.body.shape.task,
      minutes: work.body.shape.minutes,
    }),
    async (_, f) =>
      done(
        await appendEntries(f.trialId, ({ state }) => [
          ...(f.task === undefined || state.tasksDone.has(f.task)
            ? []
            : [{ kind: 'taskDone' as const, task: f.task }]),
          { kind: 'work', task: f.what, minutes: f.minutes, unitIds: [] },
        ]),
        'The minutes are in the log; Cost can count them.',
      ),
  ),
  untick: command(z.object({ trialId, task }), async (_, f) =>
    done(
      await appendEntries(f.trialId, ({ state }) =>
        [...ofKind(state, 'taskDone'), ...ofKind(state, 'taskSkipped')]
          .filter((e) => e.body.task === f.task)
          .map((e) => takenBack(e.standsFrom, 'not done after all')),
      ),
      'Open again; the log keeps both lines.',
    ),
  ),
  skip: command(
    z.object({ trialId, task: taskSkipped.body.shape.task, reason: taskSkipped.body.shape.reason }),
    async (_, f) =>
      done(
        await appendEntries(f.trialId, [{ kind: 'taskSkipped', task: f.task, reason: f.reason }]),
        'Written into the log.',
      ),
  ),
  reached: command(z.object({ trialId, event: milestone.body.shape.event }), async (_, f) =>
    done(
      await appendEntries(f.trialId, [{ kind: 'milestone', event: f.event }]),
      'Written into the log; what waited for it has its day now.',
    ),
  ),
};
