import Button from '@mui/material/Button';
import { binCommands } from '../form/binAction';
import { command, toAction } from '../form/command';
import { useBin } from '../form/useBin';
import { Link, redirect, useLoaderData, useSubmit } from 'react-router';
import { z } from 'zod';
import type { TrialId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { copyOf, freeCode } from '~core/plan/copy';
import { proposeCode } from '~core/plan/proposeCode';
import { actsBeforeSeal } from '~core/schedule/agenda';
import { dayOfDate } from '~core/plan/days';
import { unsavedSince } from '../store/unsaved';
import { benchName } from '../store/bench';
import { createTrial, deleteTrial, listPlans, listTrials, loadTrial } from '../store/trials';
import { RoomHead } from '../ui/RoomHead';
import { countOf, sentenceCase } from '~core/quantity/format';
import { RowMenu } from '../ui/RowMenu';
import { Tessera } from '../ui/Tessera';
import { download } from '../ui/download';
import { ActList, WaitingList, WeekStrip } from './Agenda';
import { BeforeSeal } from './BeforeSeal';
import { RemindButton } from './RemindButton';
import {
  actsOf,
  actsOn,
  atHandUntil,
  calendarEvents,
  dayWords,
  monthOf,
  restWords,
  waitingOf,
  weekFrom,
} from './acts';
import { EmptyBench } from './EmptyBench';
import { activeOf, benchTrials } from './benchTrials';
import { agendaCommands } from '../rooms/rounds/agendaAction';
import { shortDate, todayDate } from '../ui/clock';
import dayjs from 'dayjs';
import { weekStart } from '../ui/region';

export async function clientLoader({ request }: { request: Request }) {
  const today = todayDate();
  const search = new URL(request.url).searchParams;
  const asked = search.get('day') ?? today;
  const day = /^\d{4}-\d{2}-\d{2}$/.test(asked) ? asked : today;
  const weeks = search.get('view') === 'month' ? monthOf(day, weekStart()) : null;
  const until = [weeks?.at(-1)?.[6], day, weekFrom(today)[6]!].reduce<string>(
    (a, b) => (b && b > a ? b : a),
    today,
  );
  const { lines, active } = await benchTrials(today, weeks !== null || day < weekFrom(today)[0]!);
  return {
    today,
    day,
    weeks,
    acts: actsOf(active, today, until),
    unsaved: benchName() === 'own' ? await unsavedSince() : null,
    waiting: waitingOf(active),
    before: active.flatMap(({ id, state, question }) => {
      const acts = actsBeforeSeal(state);
      return acts.length === 0 ? [] : [{ id, question, from: acts[0]!.date, acts: acts.length }];
    }),
    trials: lines.map((line) => ({ ...line, day: dayOfDate(line.startDate, today) })),
  };
}

export const clientAction = toAction({
  copy: command(z.object({ copy: z.string().min(1) }), (_, { copy }) => copyTrial(copy)),
  ...agendaCommands,
  ...binCommands(deleteTrial),
});

/** Another trial with the plan of one that is here; opens its Question. */
async function copyTrial(id: string): Promise<Response> {
  const { row } = await loadTrial(id);
  const takenCodes = (await listPlans()).map((p) => p.code as string);
  const code = freeCode(row.plan.code, proposeCode(row.plan.crop, row.plan.question, takenCodes), takenCodes);
  const made = copyOf(row.plan, { id: newId<TrialId>(), code, startDate: todayDate() });
  await createTrial(made);
  return redirect(`/trial/${made.id}/question`);
}

/** Open acts of the bench, or of one trial, as a file that a calendar reads. */
async function saveCalendar(trialId?: string): Promise<void> {
  const [trials, { toICalendar }] = await Promise.all([listTrials(), import('~core/formats/iCalendar')]);
  const chosen = trials.filter((t) => trialId === undefined || t.row.id === trialId);
  const active = chosen.map(activeOf);
  const text = toICalendar(calendarEvents(actsOf(active, todayDate(), '9999-12-31')), {
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    now: Date.now(),
    name: trialId ? chosen[0]!.shown.plan.question : 'Palazzo',
  });
  download(
    new Blob([text], { type: 'text/calendar' }),
    `palazzo-${trialId ? chosen[0]!.row.plan.code : 'bench'}.ics`,
  );
}

export default function Today() {
  const { today, day, weeks, acts, waiting, before, trials, unsaved } = useLoaderData<typeof clientLoader>();
  if (trials.length === 0) return <EmptyBench />;
  const finished = trials.filter((t) => t.stage === 'finished' && !t.blind);
  const running = trials.filter((t) => t.stage !== 'finished' || t.blind);
  const dayActs = actsOn(acts, day, today);
  const onDay = (date: string) => actsOn(acts, date, today);
  // The day's own act is the one that is strong; where there is none, the way to a trial is.
  const due = dayActs.some((a) => a.state === 'open');
  const week = weekFrom(today);
  const atHand = atHandUntil(acts, week[6]!);
  return (
    <>
      <RoomHead
        title={`${dayjs(day).format('dddd')}: ${dayWords(dayActs)}.`}
        actions={
          <>
            <Button
              {...(due ? { variant: 'outlined', color: 'secondary' } : { variant: 'contained' })}
              component={Link}
              to="/trials/new"
            >
              Plan a trial
            </Button>
          </>
        }
      >
        {day === today ? restWords(dayActs, today, before.length > 0) : <Link to="?">Back to today</Link>}
      </RoomHead>
      {weeks ? (
        <div className="month" aria-label={dayjs(day).format('MMMM YYYY')} role="group">
          <div className="inline-row">
            <h2>{dayjs(day).format('MMMM YYYY')}</h2>
            {([-1, 1] as const).map((by) => (
              <Button
                key={by}
                size="small"
                color="secondary"
                component={Link}
                preventScrollReset
                to={`?day=${dayjs(day).add(by, 'month').format('YYYY-MM-DD')}&view=month`}
              >
                {by < 0 ? 'Month before' : 'Month after'}
              </Button>
            ))}
          </div>
          {weeks.map((days) => (
            <WeekStrip
              key={days[0]}
              days={days}
              actsOn={onDay}
              chosen={day}
              today={today}
              month={day.slice(0, 7)}
            />
          ))}
        </div>
      ) : (
        <WeekStrip days={week} actsOn={onDay} chosen={day} today={today} />
      )}
      {before.map((b) => (
        <BeforeSeal key={b.id} {...b} />
      ))}
      <ActList acts={dayActs} today={today} />
      <WaitingList waiting={waiting} />
      <div className="inline-row" style={{ marginBottom: '1.3rem' }}>
        <Button
          color="secondary"
          size="small"
          component={Link}
          to={weeks ? '?' : `?day=${day}&view=month`}
          preventScrollReset
        >
          {weeks ? 'Week' : 'Month'}
        </Button>
        <RemindButton />
        <Button color="secondary" size="small" onClick={() => void saveCalendar()}>
          Calendar file
        </Button>
      </div>
      {atHand.length > 0 && (
        <details style={{ marginBottom: '1.6rem' }}>
          <summary>To have at hand, bought or washed, until {dayjs(week[6]).format('dddd')}</summary>
          <p className="small">{atHand.join(' · ')}</p>
        </details>
      )}
      {unsaved && isOld(unsaved, today) && (
        <p className="small note">
          {unsaved.at === null
            ? 'Nothing of this bench is saved outside this browser yet.'
            : `${unsaved.trials === 1 ? 'One trial was' : `${unsaved.trials} trials were`} changed since the last backup.`}{' '}
          <Link to="/data">Save a backup</Link>
        </p>
      )}
      {running.length > 0 && (
        <section aria-labelledby="trials">
          <h2 id="trials">Trials</h2>
          <TrialTable trials={running} />
        </section>
      )}
      {finished.length > 0 && (
        <details className="finished" open={running.length === 0}>
          <summary>Finished: {countOf(finished.length, 'trial')}</summary>
          <TrialTable trials={finished} />
        </details>
      )}
    </>
  );
}

type TrialLine = Awaited<ReturnType<typeof clientLoader>>['trials'][number];

/** Trials of the bench, a row each, with what can be done with one. */
function TrialTable({ trials }: { trials: readonly TrialLine[] }) {
  const remove = useBin();
  const submit = useSubmit();
  return (
    <table className="ledger as-rows">
      <thead>
        <tr>
          <th>question</th>
          <th>contenders</th>
          <th>stage</th>
          <th>started</th>
          <th>
            <span className="quiet">next</span>
          </th>
          <th>
            <span className="sr-only">more</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {trials.map((t) => (
          <tr key={t.id}>
            <td>
              <Link className="open" to={`/trial/${t.id}`}>
                {t.question}
              </Link>
              <div className="small quiet">{t.about}</div>
            </td>
            <td data-label="contenders">
              <span style={{ display: 'inline-flex', gap: 4 }} title={t.contenders.join(', ')}>
                {t.contenders.map((name, i) => (
                  <Tessera key={`${i} ${name}`} index={t.tiles[i]!} size={18} />
                ))}
              </span>
            </td>
            <td data-label="stage">
              {t.stage === 'running'
                ? `day ${t.day}`
                : t.stage === 'planning'
                  ? 'being planned'
                  : t.blind
                    ? 'codes closed'
                    : 'finished'}
            </td>
            <td data-label="started" style={{ whiteSpace: 'nowrap' }}>
              {shortDate(t.startDate)}
            </td>
            <td data-label="next" className="small">
              {t.stage === 'finished' && !t.blind ? (
                <Link to={`/trial/${t.id}/verdict`}>{sentenceCase(t.summary)}</Link>
              ) : (
                t.summary
              )}
            </td>
            <td className="n">
              <RowMenu
                label={`More for ${t.question}`}
                acts={[
                  { text: 'Calendar file', act: () => void saveCalendar(t.id) },
                  ...(t.blind
                    ? []
                    : [
                        {
                          text: 'Plan another like it',
                          act: () =>
                            void submit(
                              { copy: t.id },
                              { method: 'post', action: '/?index', encType: 'application/json' },
                            ),
                        },
                      ]),
                  { text: 'Delete', act: () => remove(t.id, `“${t.question}”`) },
                ]}
              />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Whether something has lain in this browser alone for a week. */
const isOld = ({ at, trials }: { at: string | null; trials: number }, today: string): boolean =>
  trials > 0 && (at === null || dayjs(today).diff(dayjs(at), 'day') >= 7);
