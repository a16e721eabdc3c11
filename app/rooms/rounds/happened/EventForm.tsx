import Button from '@mui/material/Button';
import { FormProvider, useWatch } from 'react-hook-form';
import { Link } from 'react-router';
import { freePosition } from '~core/design/freePosition';
import { nextCode } from '~core/log/extraUnits';
import type { TrialState } from '~core/log/state';
import { type Happening, happenings } from '~core/model/happening';
import type { UnitId } from '~core/model/ids';
import { plural } from '~core/quantity/format';
import { Choice, Field, GroupError, WhenField } from '../../../form/fields';
import { LeaveGuard } from '../../../form/UnsavedGuard';
import { useSend } from '../../../form/usePost';
import { useTypedForm } from '../../../form/useTypedForm';
import { relativeDay, todayDate } from '../../../ui/clock';
import { isDay } from '../../../ui/day/whole';
import { type EventKind, type EventTyped, eventKinds, eventOf } from './eventForm';

const isHappening = (kind: EventKind): kind is Happening => kind in happenings;

interface Props {
  state: TrialState;
  /** units it happened to; none: all of the trial */
  chosen: ReadonlySet<UnitId>;
  onKept: () => void;
}

/** Writes down what happened, and says what a fair reviewer does about it. */
export function EventForm({ state, chosen, onKept }: Props) {
  const { plan } = state;
  const send = useSend();
  const today = todayDate();
  const { form, busy, onSubmit } = useTypedForm<EventTyped, object>(
    eventOf([...chosen], plan.startDate, today),
    {
      ...{ kind: 'missedWatering', text: '', treatmentId: '', into: '', minutes: '' },
      ...{ date: today, time: '' },
    },
    async (event) => {
      const isKept = await send(event);
      if (isKept) onKept();
      return isKept;
    },
    (typed) => ({ ...typed, text: '', minutes: '' }),
  );
  const [kind, date] = useWatch({ control: form.control, name: ['kind', 'date'] });
  const { text, minutes } = form.formState.dirtyFields;
  const shares = plan.treatments.map((t) => {
    const units = plan.units.filter((u) => u.treatmentId === t.id);
    return units.length === 0 ? 0 : units.filter((u) => chosen.has(u.id)).length / units.length;
  });
  const alike = chosen.size === 0 || Math.max(...shares) - Math.min(...shares) < 1e-9;
  return (
    <FormProvider {...form}>
      <form onSubmit={onSubmit} noValidate className="side stack" aria-label="What happened">
        <h2>Write it down</h2>
        <LeaveGuard unsaved={Boolean(text || minutes)} />
        <Choice name="kind" label="What happened" options={eventKinds} size="small" />
        <Field
          name="text"
          label={kind === 'work' ? 'What was done' : 'In a few words'}
          multiline
          minRows={2}
        />
        <WhenField
          name="date"
          label="On"
          helperText={date === today || !isDay(date) ? '' : relativeDay(date, today)}
        />
        <WhenField name="time" label="At" kind="time" />
        {kind === 'extraUnit' && (
          <>
            <Choice
              name="treatmentId"
              label="Of"
              size="small"
              options={plan.treatments.map((t) => [t.id, t.name] as const)}
            />
            <p className="note open">
              {nextCode(plan)}{' '}
              {freePosition(state) === null
                ? 'stands beside: no position is free on the plan.'
                : 'takes the next free position.'}{' '}
              It wasn’t drawn by lot: it is walked and measured like the others, and left out of the findings,
              where it can be taken in to see.
            </p>
          </>
        )}
        {kind === 'split' && <Field name="into" label="Into how many" numeric />}
        {kind === 'work' && (
          <>
            <Field
              name="minutes"
              label="It took"
              suffix="min"
              numeric
              helperText={
                chosen.size === 0
                  ? `Shared by all ${plan.units.length} ${plural(plan.unitNoun)}.`
                  : `Shared by the ${chosen.size} chosen.`
              }
            />
            <p className="small quiet">
              What an hour is worth, and whether it counts, is said in{' '}
              <Link to={`/trial/${plan.id}/verdict?view=cost`}>Verdict, Cost</Link>.
            </p>
          </>
        )}
        {isHappening(kind) && (
          <p className={`note ${alike ? 'open' : 'bad'}`}>
            {alike ? happenings[kind].alike : happenings[kind].apart}
          </p>
        )}
        {kind === 'replacement' && (
          <p className="note open">
            The same unit goes on with a new plant, dated; {plan.spares}{' '}
            {plan.spares === 1 ? 'spare was' : 'spares were'} planned. The review says so.
          </p>
        )}
        {kind === 'split' && (
          <p className="note open">
            It stays one unit: measured and weighed as one, all its vessels together. Labels are printed for
            each vessel, with the unit’s code.
          </p>
        )}
        {kind === 'doseChanged' && (
          <p className="small">
            With the new dose, so that mixing and cost go by it:{' '}
            <Link to={`/trial/${plan.id}/mixing?view=programme`}>Mixing, Programme</Link>.
          </p>
        )}
        {kind === 'mixedUp' && (
          <p className="note open">
            Values go on under the positions they stand at. Until they are told apart, findings leave them out
            and say so.
          </p>
        )}
        <GroupError name="units" />
        <Button type="submit" variant="contained" disabled={busy}>
          Write it down
        </Button>
      </form>
    </FormProvider>
  );
}
