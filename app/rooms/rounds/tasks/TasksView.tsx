import Button from '@mui/material/Button';
import { type ReactNode, useMemo } from 'react';
import { FormProvider } from 'react-hook-form';
import { Link } from 'react-router';
import { type TrialState, ofKind } from '~core/log/state';
import { END_EVENT } from '~core/model/task';
import { dateOfDay } from '~core/plan/days';
import { beforeSealTask, daysOfTask, plannedTasks, saidBeforeSeal } from '~core/schedule/agenda';
import { whenWords } from '~core/schedule/taskWords';
import { events } from '~core/schedule/protocols/tasks';
import { shortDate } from '../../../ui/clock';
import { Choice, Field, WhenField } from '../../../form/fields';
import { UnsavedGuard } from '../../../form/UnsavedGuard';
import { usePost } from '../../../form/usePost';
import { forAllAlike } from '~core/schedule/forAll';
import { useRecordForm } from '../../../form/useRecordForm';
import { emptyTask } from './taskForm';

/** What is to be done on which day, beside rounds and mixing; before the seal a part of the plan. */
export function TasksView({ state, head }: { state: TrialState; head: ReactNode }) {
  const { plan } = state;
  const post = usePost();
  const defaults = useMemo(() => ({ ...emptyTask }), []);
  const { form, busy, onSubmit } = useRecordForm(defaults);
  const own = new Set(ofKind(state, 'taskPlanned').map((e) => e.body.task.key));
  const tasks = plannedTasks(state);
  const beforeSeal = saidBeforeSeal(state);
  const told = [...new Set([END_EVENT, ...Object.values(events), ...tasks.flatMap((t) => t.after ?? [])])];
  return (
    <>
      {head}
      {beforeSeal && (
        <p className="small quiet">
          {beforeSealTask(beforeSeal).replace(/^s/, 'S')}.{' '}
          <Button
            size="small"
            color="secondary"
            onClick={() => post({ trialId: plan.id, askBeforeSeal: true })}
          >
            Ask again
          </Button>
        </p>
      )}
      {tasks.length === 0 ? (
        <p className="quiet">
          Nothing is planned beside rounds, mixing and turns. The kind of trial fills in what is usually done;
          see the Question.
        </p>
      ) : (
        <table className="ledger as-rows">
          <thead>
            <tr>
              <th>task</th>
              <th>when</th>
              <th>first on</th>
              <th>at hand</th>
              <th>
                <span className="sr-only">remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {tasks.map((t) => {
              const first = daysOfTask(state, t)[0];
              return (
                <tr key={t.key}>
                  <td>
                    <strong>{t.what}</strong>
                    {t.why && <div className="small quiet">{t.why}</div>}
                  </td>
                  <td data-label="when" className="small">
                    {whenWords(t)}
                  </td>
                  <td data-label="first on" className="small">
                    {first === undefined ? 'not known yet' : shortDate(dateOfDay(plan.startDate, first))}
                  </td>
                  <td data-label="at hand" className="small">
                    {t.atHand || '–'}
                  </td>
                  <td className="n">
                    {(!state.seal || own.has(t.key)) && (
                      <Button
                        size="small"
                        color="inherit"
                        aria-label={`Remove ${t.what}`}
                        onClick={() => post({ intent: 'dropTask', key: t.key })}
                      >
                        Remove
                      </Button>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      <FormProvider {...form}>
        <details className="section folded" open={tasks.length === 0}>
          <summary>Plan a task of your own</summary>
          <form onSubmit={onSubmit} noValidate>
            <UnsavedGuard busy={busy} />
            <div className="inline-row" style={{ margin: '0.4rem 0 0.9rem' }}>
              {forAllAlike.map(({ name, ...task }) => (
                <Button
                  key={name}
                  size="small"
                  color="secondary"
                  onClick={() => {
                    for (const [field, text] of Object.entries(task))
                      form.setValue(field as keyof typeof task, text, { shouldDirty: true });
                    form.setFocus('what');
                  }}
                >
                  {name}
                </Button>
              ))}
            </div>
            <div className="fields">
              <div className="w6">
                <Field name="what" label="What is to be done?" />
              </div>
              <div className="w6">
                <Field name="why" label="Why" />
              </div>
              <div className="w3">
                <Choice
                  name="after"
                  label="Counted from"
                  options={[['', 'the start'], ...told.map((e) => [e, e] as const)]}
                />
              </div>
              <div className="w3 field-pair">
                <Field name="day" label="Day" numeric />
                <WhenField name="at" label="At" kind="time" />
              </div>
              <div className="w3 field-pair">
                <Field name="everyDays" label="Again every" numeric suffix="days" />
                <Field name="untilDay" label="To day" numeric />
              </div>
              <div className="w3">
                <Field name="minutes" label="Takes" numeric suffix="min" />
              </div>
              <div className="w6">
                <Field name="atHand" label="To have at hand" />
              </div>
              <div className="w6">
                <Field name="caution" label="Caution" />
              </div>
            </div>
            <div className="inline-row" style={{ marginTop: '0.8rem' }}>
              <Button type="submit" variant="contained" disabled={busy}>
                Plan it
              </Button>
              <span className="small quiet">
                {state.seal
                  ? 'The plan is sealed: it goes into the log. A task of the plan is left out with a reason in '
                  : 'It is sealed with the plan. What is due stands in '}
                <Link to="/">Today</Link>.
              </span>
            </div>
          </form>
        </details>
      </FormProvider>
    </>
  );
}
