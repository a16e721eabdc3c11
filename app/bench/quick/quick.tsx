import { plural, sentenceCase } from '~core/quantity/format';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { FormProvider, useController, useFormContext, useWatch } from 'react-hook-form';
import { Link, useLoaderData } from 'react-router';
import { protocolOf, protocols } from '~core/schedule/protocols';
import { untreatedBeside } from '~core/schedule/protocols/protocol';
import { Choice, Field, Tick } from '../../form/fields';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { listProducts } from '../../store/products';
import { listTrials } from '../../store/trials';
import { RoomHead } from '../../ui/RoomHead';
import { quickAction } from './quickAction';

export async function clientLoader() {
  const [trials, products] = await Promise.all([listTrials(), listProducts()]);
  return {
    products: products.map((p) => p.name),
    defaults: {
      protocolId: trials[0]?.row.plan.protocolId ?? '',
      names: [] as string[],
      withWater: true,
      base: '',
      each: '2',
      crop: '',
      question: '',
      prediction: '',
      solutionL: '',
      next: 'seal',
    },
  };
}

export const clientAction = quickAction;

/** What reviewers plan most, in one go: kind, contenders, how many of each. */
export default function QuickPlanPage() {
  const { defaults, products } = useLoaderData<typeof clientLoader>();
  const { form, busy, onSubmit } = useRecordForm(defaults);
  const [names, protocolId] = useWatch({ control: form.control, name: ['names', 'protocolId'] });
  const [typed, setTyped] = useState('');
  const protocol = protocolOf(protocolId);
  const noun = protocol?.unitNoun ?? 'tray';
  /** a litre of what is given in water, a kilo of what is strewn, one of what is put in place */
  const priced = protocol?.compares ? 'one' : protocol?.dry ? 'a kilo' : 'a litre';
  const control = untreatedBeside(protocol);
  /** what is compared comes on top of a feed that all get */
  const onBase = protocol?.onBase === true;
  const { errors } = form.formState;
  const named = (next: readonly string[]) =>
    form.setValue('names', [...next], { shouldDirty: true, shouldValidate: false });
  /** A name that was typed and not finished by Enter counts too. */
  const finish = () => {
    const text = typed.trim();
    setTyped('');
    if (text !== '' && !form.getValues('names').includes(text)) named([...form.getValues('names'), text]);
  };
  return (
    <>
      <RoomHead title="Quick plan">
        Contenders and how many of each; the rest as it is usually done. What stays open the fairness audit
        says. <Link to="/trials/new">Plan it step by step</Link> instead.
      </RoomHead>
      <FormProvider {...form}>
        <form
          onSubmit={(e) => {
            finish();
            void onSubmit(e);
          }}
          noValidate
          style={{ maxWidth: '46rem' }}
        >
          <UnsavedGuard busy={busy} />
          <div className="fields">
            <div className="w12">
              <Choice
                name="protocolId"
                label="Kind of trial"
                options={[
                  ['', 'height now and then, weight at the end'],
                  ...protocols.map((p) => [p.id, p.name] as const),
                ]}
              />
            </div>
            <div className="w12">
              <Autocomplete
                multiple
                freeSolo
                autoSelect={false}
                options={products.filter((p) => !names.includes(p))}
                value={names}
                inputValue={typed}
                onChange={(_, chosen) => named(chosen)}
                onInputChange={(_, text) => setTyped(text)}
                renderInput={(params) => (
                  <TextField
                    {...params}
                    autoFocus
                    label="What is compared"
                    error={errors.names !== undefined}
                    helperText={
                      errors.names?.message ??
                      `from the library, or a new name with the price of ${priced}: Foglia 12.90`
                    }
                  />
                )}
              />
              {control !== null && (
                <Tick
                  name="withWater"
                  label={`${control === 'Water' ? 'Water alone' : 'Nothing'} beside them: the control`}
                />
              )}
            </div>
            {onBase && (
              <div className="w12">
                <BaseFeed products={products.filter((p) => !names.includes(p))} />
              </div>
            )}
            <div className="w3">
              <Field name="each" label={`${sentenceCase(plural(noun))} of each`} numeric />
            </div>
            <div className="w3">
              <Field name="crop" label="Crop" />
            </div>
            {priced === 'a litre' && (
              <div className="w6">
                <Field
                  name="solutionL"
                  label={`Feed a ${noun} gets`}
                  helperText="L in all; doses are by the label"
                  numeric
                />
              </div>
            )}
            <div className="w12">
              <Field
                name="prediction"
                label="What do you expect?"
                helperText="one sentence before the start; left empty, the review says that none was written"
              />
            </div>
          </div>
          <div className="inline-row" style={{ marginTop: '1.2rem' }}>
            <Button
              type="submit"
              variant="contained"
              disabled={busy}
              onClick={() => form.setValue('next', 'seal')}
            >
              Seal it and start
            </Button>
            <Button
              type="submit"
              variant="outlined"
              color="secondary"
              disabled={busy}
              onClick={() => form.setValue('next', 'plan')}
            >
              Go on planning
            </Button>
            <Button component={Link} to="/" color="inherit">
              Cancel
            </Button>
          </div>
          <p className="small quiet" style={{ marginTop: '0.8rem' }}>
            Sealed, the plan stays as it is, so that nobody can say it was made to fit. Doses, places and
            traits that should be different are set first, with “Go on planning”.
          </p>
        </form>
      </FormProvider>
    </>
  );
}

/** The feed that all get: of the library, or a new name with its price. */
function BaseFeed({ products }: { products: readonly string[] }) {
  const { control } = useFormContext<{ base: string }>();
  const { field, fieldState } = useController({ control, name: 'base' });
  return (
    <Autocomplete
      freeSolo
      options={[...products]}
      inputValue={field.value}
      onInputChange={(_, text) => field.onChange(text)}
      renderInput={(params) => (
        <TextField
          {...params}
          label="Base feed"
          inputRef={field.ref}
          onBlur={field.onBlur}
          error={fieldState.error !== undefined}
          helperText={
            fieldState.error?.message ?? 'all get it; the control gets it alone, so that the additive is seen'
          }
        />
      )}
    />
  );
}
