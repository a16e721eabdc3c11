import Button from '@mui/material/Button';
import { FormProvider, useWatch } from 'react-hook-form';
import { type ProductUse, doseAmount } from '~core/model/plan';
import { numberIn } from '~core/quantity/number';
import { productCodeKey } from '~core/mixing/productCodes';
import { Choice, Field, Tick } from '../../form/fields';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { type OpenDose, openDoses } from './doseChange';
import type { MixingData } from './mixingData';

/** A dose changed on the way: written down with its day and reason, and gone by from then on. */
export function DoseChangePart({ data }: { data: MixingData }) {
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
  const day = numberIn(typedDay);
  const open = openDoses(state, day ?? today);
  const one = open.find((d) => d.key === which);
  const basis = (use: ProductUse) =>
    use.solutionLPerUnit === null ? `each ${state.plan.unitNoun}` : 'per L';
  const sayRest = ({ rest }: OpenDose) =>
    `Left from that day: ${rest.timesPerUnit} times ${Number(doseAmount(rest).toPrecision(3))} ${rest.unit} ${basis(rest)}${rest.everyDays === null ? '' : `, every ${rest.everyDays} days`}`;
  const nameOf = (id: string) => shown.treatments.find((t) => t.id === id)?.name ?? '?';
  return (
    <section className="stack tight">
      <h2>A dose changed on the way</h2>
      <p className="small quiet">
        The sealed plan stays as it is. From the day you say, Mixing, calendar, stock and cost go by the new
        dose, and the review tells both. For one contender alone it is another treatment from that day: then
        judge the rounds before and after it apart.
      </p>
      <FormProvider {...form}>
        <form onSubmit={onSubmit} noValidate className="stack tight">
          <UnsavedGuard busy={busy} />
          <div className="fields">
            <div className="w6">
              <Choice
                name="which"
                label="Which dose"
                size="small"
                fullWidth
                options={openDoses(state, 0).map((d) => [
                  d.key,
                  `${nameOf(d.treatment.id)}: ${names[productCodeKey(d.treatment.id, d.rest.productId)] ?? ''}${d.rest.stage ? `, ${d.rest.stage}` : ''}`,
                ])}
                helperText={
                  which === '' ? undefined : one ? sayRest(one) : 'Nothing of it is left from that day on.'
                }
              />
            </div>
            <div className="w2">
              <Field name="day" label="From day" numeric size="small" fullWidth />
            </div>
            <div className="w4">
              <Tick name="stop" label="Not given any more" />
            </div>
            {!stop && (
              <>
                <div className="w4">
                  <Field
                    name="amount"
                    label="Dose from then on"
                    figures
                    size="small"
                    fullWidth
                    suffix={one ? `${one.rest.unit} ${basis(one.rest)}` : undefined}
                    helperText="Empty: as before. Or a rate: 1 tsp per tank."
                  />
                </div>
                <div className="w4">
                  <Field
                    name="everyDays"
                    label="Every"
                    suffix="days"
                    numeric
                    size="small"
                    fullWidth
                    helperText="Empty: as before."
                  />
                </div>
                <div className="w4">
                  <Field
                    name="times"
                    label="Times still to come"
                    numeric
                    size="small"
                    fullWidth
                    helperText="Empty: as before."
                  />
                </div>
              </>
            )}
            <div className="w12">
              <Tick
                name="alike"
                label="The same for all who are fed, each by the same share of its own dose"
              />
            </div>
            <div className="w12">
              <Field name="reason" label="Why" size="small" fullWidth />
            </div>
          </div>
          <Button type="submit" variant="outlined" disabled={busy} sx={{ alignSelf: 'start' }}>
            Write the change down
          </Button>
        </form>
      </FormProvider>
    </section>
  );
}
