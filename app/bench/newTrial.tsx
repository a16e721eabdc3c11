import Button from '@mui/material/Button';
import { FormProvider } from 'react-hook-form';
import { Link, redirect, useLoaderData } from 'react-router';
import { z } from 'zod';
import type { TrialId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { blankPlan } from '~core/model/blankPlan';
import { Plan } from '~core/model/plan';
import { protocolOf, protocols } from '~core/schedule/protocols';
import { applyProtocol } from '~core/schedule/protocols/applyProtocol';
import { Choice, Field } from '../form/fields';
import { fieldErrors } from '../form/schemaFields';
import { UnsavedGuard } from '../form/UnsavedGuard';
import { useRecordForm } from '../form/useRecordForm';
import { createTrial, listTrials } from '../store/trials';
import { RoomHead } from '../ui/RoomHead';
import { todayDate } from './clock';

const shape = Plan.shape;
const NewTrial = z.object({
  question: shape.question,
  crop: shape.crop,
  unitNoun: shape.unitNoun,
  protocolId: z.string(),
  code: shape.code,
  startDate: shape.startDate,
  currency: shape.currency,
});

export async function clientLoader() {
  const trials = await listTrials();
  return {
    defaults: {
      question: '',
      crop: '',
      unitNoun: 'tray',
      protocolId: '',
      code: '',
      startDate: todayDate(),
      currency: trials[0]?.row.plan.currency ?? 'EUR',
    },
  };
}

export async function clientAction({ request }: { request: Request }) {
  const parsed = NewTrial.safeParse(await request.json());
  if (!parsed.success) return { errors: fieldErrors(parsed.error) };
  const taken = (await listTrials()).some((t) => t.row.plan.code === parsed.data.code);
  if (taken) return { errors: { code: 'Another trial uses this code; labels would be mixed up.' } };
  const id = newId<TrialId>();
  const { protocolId, ...begun } = parsed.data;
  const protocol = protocolOf(protocolId);
  const blank = blankPlan({ ...begun, id });
  await createTrial(protocol ? { ...applyProtocol(blank, protocol), unitNoun: begun.unitNoun } : blank);
  return redirect(`/trial/${id}/question`);
}

export default function NewTrialPage() {
  const { defaults } = useLoaderData<typeof clientLoader>();
  const { form, busy, onSubmit } = useRecordForm(defaults);
  return (
    <>
      <RoomHead title="A new trial">
        One thing is compared. Everything here can be changed until the plan is sealed.
      </RoomHead>
      <FormProvider {...form}>
        <form onSubmit={onSubmit} noValidate style={{ maxWidth: '46rem' }}>
          <UnsavedGuard busy={busy} />
          <div className="fields">
            <div className="w12">
              <Field
                name="question"
                label="Question"
                helperText="As a reader would ask it: “Does a dearer feed earn its price on parsley?”"
                autoFocus
              />
            </div>
            <div className="w12">
              <Choice
                name="protocolId"
                label="Kind of trial"
                options={[['', 'a blank protocol'], ...protocols.map((p) => [p.id, p.name] as const)]}
                helperText="fills in unit, traits, scales and rounds as they are usually done; all can be changed"
                onChange={(e) => {
                  form.setValue('protocolId', e.target.value);
                  const protocol = protocolOf(e.target.value);
                  if (protocol) form.setValue('unitNoun', protocol.unitNoun);
                }}
              />
            </div>
            <div className="w6">
              <Field name="crop" label="Crop" />
            </div>
            <div className="w3">
              <Field name="unitNoun" label="One unit is a" helperText="what gets the treatment on its own" />
            </div>
            <div className="w3">
              <Field
                name="code"
                label="Code"
                helperText="three capitals, starts every label"
                slotProps={{ htmlInput: { maxLength: 3, style: { fontFamily: 'var(--mono)' } } }}
              />
            </div>
            <div className="w6">
              <Field name="startDate" label="Start" type="date" />
            </div>
            <div className="w3">
              <Field
                name="currency"
                label="Currency"
                helperText="EUR, USD, GBP …"
                slotProps={{ htmlInput: { maxLength: 3 } }}
              />
            </div>
          </div>
          <div className="inline-row" style={{ marginTop: '1.2rem' }}>
            <Button type="submit" variant="contained" disabled={busy}>
              Start planning
            </Button>
            <Button component={Link} to="/" color="inherit">
              Cancel
            </Button>
          </div>
        </form>
      </FormProvider>
    </>
  );
}
