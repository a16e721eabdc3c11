import Button from '@mui/material/Button';
import { FormProvider } from 'react-hook-form';
import { z } from 'zod';
import { UnitId } from '~core/model/ids';
import type { MixedUp } from '~core/log/views';
import type { TrialState } from '~core/log/state';
import { planIndex } from '~core/plan/planIndex';
import { listNames } from '~core/quantity/format';
import { Choice, Field, GroupError } from '../../../form/fields';
import { useSend } from '../../../form/usePost';
import { useTypedForm } from '../../../form/useTypedForm';

const Told = z.object({
  as: z
    .array(
      z.object({
        from: z.string().pipe(UnitId),
        to: z.string().min(1, 'Say of each which one it is.').pipe(UnitId),
      }),
    )
    .refine((pairs) => new Set(pairs.map((p) => p.to)).size === pairs.length, {
      message: 'Two of them can’t be the same one.',
    }),
  how: z.string().trim().min(1, 'Say by what sign; one that can’t be the product’s doing.'),
});

/** Units whose labels are lost, each given its name again by a sign. */
export function TellApart({ state, lost }: { state: TrialState; lost: MixedUp }) {
  const send = useSend();
  const { form, onSubmit } = useTypedForm(
    Told,
    { as: lost.unitIds.map((from) => ({ from: from as string, to: '' })), how: '' },
    ({ as, how }) => send({ tellApart: { mixedUpId: lost.entryId, as, how } }),
  );
  const code = (id: UnitId) => planIndex(state.plan).unit(id)?.code ?? '?';
  return (
    <section className="note bad" style={{ marginBottom: '1rem' }} aria-label="Labels lost">
      <strong>
        {listNames(lost.unitIds.map(code))}: each is one of these{lost.reason ? ` (${lost.reason})` : ''}.
        Findings leave them out.
      </strong>
      <FormProvider {...form}>
        <form
          onSubmit={onSubmit}
          noValidate
          className="inline-row"
          style={{ marginTop: '0.6rem', alignItems: 'start' }}
        >
          {lost.unitIds.map((id, i) => (
            <Choice
              key={id}
              name={`as.${i}.to`}
              size="small"
              label={`Where ${code(id)} stood is`}
              options={lost.unitIds.map((to) => [to, code(to)] as const)}
              sx={{ width: 170 }}
            />
          ))}
          <Field
            name="how"
            size="small"
            label="Told by"
            placeholder="a notch in the rim"
            sx={{ width: 260 }}
          />
          <Button type="submit" variant="outlined">
            Tell them apart
          </Button>
        </form>
        <GroupError name="as" />
      </FormProvider>
    </section>
  );
}
