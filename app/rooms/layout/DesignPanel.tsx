import { plural } from '~core/quantity/format';
import Button from '@mui/material/Button';
import { FormProvider, useWatch } from 'react-hook-form';
import { positionsOf } from '~core/design/layOut';
import type { Plan } from '~core/model/plan';
import { Choice, Field, LockedForm } from '../../form/fields';
import { useRecordForm } from '../../form/useRecordForm';
import type { DesignFormInput } from './layoutActions';

const freshSeed = () => String(crypto.getRandomValues(new Uint32Array(1))[0]! % 1_000_000);

/** How units are handed out over the positions. */
export function DesignPanel({ plan, locked }: { plan: Plan; locked: boolean }) {
  const { form, busy, onSubmit } = useRecordForm<DesignFormInput>({
    intent: 'design',
    kind: plan.design?.kind ?? 'rcbd',
    replicates: String(plan.design?.replicates ?? 4),
    seed: plan.design ? String(plan.design.seed) : freshSeed(),
  });
  const values = useWatch({ control: form.control });
  const wanted = plan.treatments.length * (Number(values.replicates) || 0);
  const room = positionsOf(plan.areas).length;
  const residual =
    values.kind === 'rcbd'
      ? (plan.treatments.length - 1) * (Number(values.replicates) - 1)
      : plan.treatments.length * (Number(values.replicates) - 1);
  return (
    <FormProvider {...form}>
      <LockedForm value={locked}>
        <form onSubmit={onSubmit} noValidate className="stack">
          <h2>Who stands where</h2>
          <Choice
            name="kind"
            label="Design"
            options={[
              ['rcbd', 'random, in complete blocks'],
              ['crd', 'completely random'],
              ['hand', 'by hand'],
            ]}
            helperText={
              values.kind === 'rcbd'
                ? 'each block of neighbours holds every contender once'
                : values.kind === 'crd'
                  ? 'chance over all positions alike'
                  : 'readers will ask why; say it in the review'
            }
          />
          <Field
            name="replicates"
            label={values.kind === 'rcbd' ? 'Blocks' : `${plural(plan.unitNoun)} of each contender`}
            numeric
            helperText={
              plan.treatments.length > 0
                ? `${wanted} ${plural(plan.unitNoun)} on ${room} positions; ${Math.max(0, residual || 0)} residual degrees of freedom, 12 are wanted`
                : 'add contenders first'
            }
          />
          {values.kind !== 'hand' && (
            <Field name="seed" label="Seed" numeric helperText="the same seed gives the same layout" />
          )}
          {!locked && (
            <div className="line">
              <Button
                type="submit"
                variant={plan.units.length > 0 ? 'outlined' : 'contained'}
                disabled={busy}
              >
                {plan.units.length > 0 ? 'Lay out again' : values.kind === 'hand' ? 'Set out' : 'Randomise'}
              </Button>
              {values.kind !== 'hand' && (
                <Button
                  color="secondary"
                  onClick={() => form.setValue('seed', freshSeed(), { shouldDirty: true })}
                >
                  New seed
                </Button>
              )}
            </div>
          )}
        </form>
      </LockedForm>
    </FormProvider>
  );
}
