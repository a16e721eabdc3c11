import Button from '@mui/material/Button';
import { FormProvider, useWatch } from 'react-hook-form';
import { doseAmount } from '~core/model/plan';
import { parseDecimal } from '~core/quantity/decimal';
import { productCodeKey } from '~core/mixing/productCodes';
import { Choice, Field, Tick } from '../../form/fields';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { openDoses } from './doseChange';
import type { MixingData } from './mixingData';

/** A dose changed on the way: written down with its day and reason, and gone by from then on. */
export function DoseChangePanel({ data }: { data: MixingData }) {
  const { state, shown, names, today } = data;
  const { form, busy, onSubmit } = useRecordForm({
    intent: 'doseChange' as const,
    which: '',
    day: String(Math.max(0, today)),
    stop: false,
    amount: '',
    everyDays: '',
    times: '',
    alike: false,
    reason: '',
  });
  const [which, typedDay, stop] = useWatch({ control: form.control, name: ['which', 'day', 'stop'] });
  const day = parseDecimal(typedDay);
  const open = openDoses(state, day ?? today);
  const one = open.find((d) => d.key === which);
  const basis = (litres: number | null) => (litres === null ? `each ${state.plan.unitNoun}` : 'per L');
  const nameOf = (id: string) => shown.treatments.find((t) => t.id === id)?.name ?? '?';
  return (
    <section>
      <h2>A dose changed on the way</h2>
      <p className="small quiet">
        The sealed plan stays as it is. From the day you say, Mixing, calendar, stock and cost go by the new
        dose, and the review tells both. For one contender alone it is another treatment from that day: then
        judge the rounds before and after it apart.
      </p>
      <FormProvider {...form}>
        <form onSubmit={onSubmit} noValidate>
          <UnsavedGuard busy={busy} />
          <div className="fields">
            <Choice
              name="which"
              label="Which dose"
              size="small"
              options={openDoses(state, 0).map((d) => [
                d.key,
                `${nameOf(d.treatment.id)}: ${names[productCodeKey(d.treatment.id, d.rest.productId)] ?? ''}${d.rest.stage ? `, ${d.rest.stage}` : ''}`,
              ])}
              helperText={
                which === ''
                  ? undefined
                  : one
                    ? `Left from that day: ${one.rest.timesPerUnit} times ${Number(doseAmount(one.rest).toPrecision(3))} ${one.rest.unit} ${basis(one.rest.solutionLPerUnit)}${one.rest.everyDays === null ? '' : `, every ${one.rest.everyDays} days`}`
                    : 'Nothing of it is left from that day on.'
              }
            />
            <Field name="day" label="From day" numeric size="small" />
            {!stop && (
              <>
                <Field
                  name="amount"
                  label="Dose from then on"
                  numeric
                  size="small"
                  suffix={one ? `${one.rest.unit} ${basis(one.rest.solutionLPerUnit)}` : undefined}
                  helperText="empty: as before"
                />
                <Field
                  name="everyDays"
                  label="Every"
                  suffix="days"
                  numeric
                  size="small"
                  helperText="empty: as before"
                />
                <Field
                  name="times"
                  label="Times to come"
                  numeric
                  size="small"
                  helperText="empty: as before"
                />
              </>
            )}
          </div>
          <Tick name="stop" label="Not given any more" />
          <Tick name="alike" label="The same for all who are fed, each by the same share of its own dose" />
          <div className="fields">
            <Field name="reason" label="Why" size="small" className="all" />
          </div>
          <Button type="submit" variant="outlined" disabled={busy}>
            Write the change down
          </Button>
        </form>
      </FormProvider>
    </section>
  );
}
