import { type Answer, command, toAction } from '../form/command';
import { refuse } from '../form/recordForm';
import Button from '@mui/material/Button';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { useRef } from 'react';
import { FormProvider, useWatch } from 'react-hook-form';
import { contendersOf } from '~core/plan/beginning';
import { proposeCode } from '~core/plan/proposeCode';
import { Link, redirect, useLoaderData } from 'react-router';
import { z } from 'zod';
import type { TrialId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { blankPlan, beginsIn } from '~core/model/blankPlan';
import { Plan } from '~core/model/plan';
import { protocolOf, protocols } from '~core/schedule/protocols';
import { untreatedBeside } from '~core/schedule/protocols/protocol';
import { applyProtocol } from '~core/schedule/protocols/applyProtocol';
import { Choice, Field, Tick, WhenField } from '../form/fields';
import { UnsavedGuard } from '../form/UnsavedGuard';
import { useRecordForm } from '../form/useRecordForm';
import { listProducts } from '../store/products';
import { askToLast } from '../store/storage';
import { createTrial, listTrials } from '../store/trials';
import { RoomHead } from '../ui/RoomHead';
import { todayDate } from './clock';
import { currencyHere, unitsHere } from '../ui/region';

const shape = Plan.shape;
const NewTrial = z.object({
  question: shape.question,
  crop: shape.crop,
  unitNoun: shape.unitNoun,
  protocolId: z.string(),
  code: z.string().trim().toUpperCase().pipe(shape.code),
  startDate: shape.startDate,
  currency: z.string().trim().toUpperCase().pipe(shape.currency),
  productIds: z.array(z.string()),
  withWater: z.boolean(),
});

export async function clientLoader() {
  const trials = await listTrials();
  return {
    products: (await listProducts()).map((p) => ({ id: p.id as string, name: p.name })),
    taken: trials.map((t) => t.row.plan.code),
    defaults: {
      question: '',
      crop: '',
      unitNoun: 'tray',
      protocolId: '',
      code: '',
      startDate: todayDate(),
      currency: trials[0]?.row.plan.currency ?? currencyHere(),
      productIds: [] as string[],
      withWater: true,
    },
  };
}

async function begin(_: string | undefined, asked: z.output<typeof NewTrial>): Promise<Answer> {
  const trials = await listTrials();
  const taken = trials.some((t) => t.row.plan.code === asked.code);
  if (taken) return refuse('code', 'Another trial uses this code; labels would be mixed up.');
  const id = newId<TrialId>();
  const { protocolId, productIds, withWater, ...begun } = asked;
  const protocol = protocolOf(protocolId);
  const chosen = (await listProducts()).filter((p) => productIds.includes(p.id));
  const control = withWater ? untreatedBeside(protocol) : null;
  const blank = {
    ...blankPlan({ ...begun, id }),
    ...beginsIn(unitsHere(trials[0]?.row.plan)),
    treatments: chosen.length === 0 ? [] : contendersOf(chosen, control, begun.crop),
    // Things that are put in place are held against each other.
    ...(protocol?.compares && chosen.length > 1 && { peers: true as const }),
  };
  await createTrial(protocol ? { ...applyProtocol(blank, protocol), unitNoun: begun.unitNoun } : blank);
  // From here on there is something to lose.
  void askToLast();
  return redirect(`/trial/${id}/question`);
}

export const clientAction = toAction({ trial: command(NewTrial, begin) });

export default function NewTrialPage() {
  const { defaults, products, taken } = useLoaderData<typeof clientLoader>();
  const { form, busy, onSubmit } = useRecordForm(defaults);
  const [productIds, unitNoun, protocolId] = useWatch({
    control: form.control,
    name: ['productIds', 'unitNoun', 'protocolId'],
  });
  const control = untreatedBeside(protocolOf(protocolId));
  const proposed = useRef('');
  // Proposed until one is typed; what is typed stays.
  const propose = (e: React.FocusEvent) => {
    // Who goes straight to the code is about to type one.
    if (e.relatedTarget instanceof HTMLInputElement && e.relatedTarget.name === 'code') return;
    const now = form.getValues('code');
    if (now !== '' && now !== proposed.current) return;
    proposed.current = proposeCode(form.getValues('crop'), form.getValues('question'), taken);
    form.setValue('code', proposed.current);
  };
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
                onBlur={propose}
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
              <Field name="crop" label="Crop" onBlur={propose} />
            </div>
            <div className="w3">
              <Field name="unitNoun" label="One unit is a" helperText="what gets the treatment on its own" />
            </div>
            <div className="w3">
              <Field
                name="code"
                label="Code"
                helperText="three capitals, starts every label"
                slotProps={{
                  htmlInput: {
                    maxLength: 3,
                    style: { fontFamily: 'var(--mono)', textTransform: 'uppercase' },
                  },
                }}
              />
            </div>
            <div className="w6">
              <WhenField name="startDate" label="Start" />
            </div>
            <div className="w3">
              <Field
                name="currency"
                label="Currency"
                helperText="EUR, USD, GBP …"
                slotProps={{ htmlInput: { maxLength: 3 } }}
              />
            </div>
            {products.length > 0 && (
              <div className="w12">
                <Autocomplete
                  multiple
                  options={products}
                  getOptionLabel={(p) => p.name}
                  value={products.filter((p) => productIds.includes(p.id))}
                  onChange={(_, chosen) =>
                    form.setValue(
                      'productIds',
                      chosen.map((p) => p.id),
                      { shouldDirty: true },
                    )
                  }
                  renderInput={(params) => (
                    <TextField
                      {...params}
                      label="Products compared"
                      helperText="each becomes a contender; doses are given in Contenders"
                    />
                  )}
                />
                {productIds.length > 0 && control !== null && (
                  <Tick
                    name="withWater"
                    label={`${control === 'Water' ? 'Water alone' : 'Nothing'} on a ${unitNoun || 'unit'} of each block: the control`}
                  />
                )}
              </div>
            )}
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
