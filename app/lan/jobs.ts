import { z } from 'zod';
import { letterOf } from '~core/plan/letters';
import { agendaOf } from '~core/schedule/agenda';
import { stageOf } from '~core/schedule/rounds';
import { todayDate } from '../ui/clock';
import { listTrials } from '../store/trials';

/** What a helper gets: which jar goes to which units, and what is to be done; no names, no doses, no figures. */
export const Jobs = z.object({
  day: z.string(),
  trials: z
    .array(
      z.object({
        id: z.string(),
        title: z.string(),
        unitNoun: z.string(),
        jars: z.array(z.object({ jar: z.string(), units: z.array(z.string()) })),
        tasks: z.array(
          z.object({
            /** the name it is ticked off by; null where the log shows by itself that it is done */
            task: z.string().nullable(),
            what: z.string(),
            why: z.string(),
            atHand: z.string(),
            caution: z.string(),
            at: z.string().nullable(),
            done: z.boolean(),
          }),
        ),
      }),
    )
    .max(200),
});
export type Jobs = z.infer<typeof Jobs>;

/** Today’s jars and tasks of every trial that runs, under codes whether it is blind or not. */
export async function jobsToday(today = todayDate()): Promise<Jobs> {
  const trials = (await listTrials()).filter((t) => stageOf(t.state, today) === 'running');
  return {
    day: today,
    trials: trials.map((t) => {
      // In the order of their letters, which jars and tags have too.
      const { plan } = t.shown;
      return {
        id: plan.id,
        title: plan.crop || plan.code,
        unitNoun: plan.unitNoun,
        jars: plan.treatments.map(({ id }, i) => ({
          jar: letterOf(i),
          units: plan.units.filter((u) => u.treatmentId === id).map((u) => u.code),
        })),
        tasks: agendaOf(t.state, today, today)
          .filter((a) => a.date === today || a.state === 'open')
          .map((a) => ({
            ...{ task: a.task, what: a.what, why: a.why, atHand: a.atHand },
            ...{ caution: a.caution, at: a.at, done: a.state === 'done' },
          })),
      };
    }),
  };
}
