import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { FormProvider, useController, useFormContext, useWatch } from 'react-hook-form';
import { Link, useLoaderData } from 'react-router';
import { listNames, plural, sentenceCase } from '~core/quantity/format';
import { protocolOf, protocols } from '~core/schedule/protocols';
import { sayShared } from '~core/plan/sharing';
import { getsFeed, mayShare, untreatedBeside } from '~core/schedule/protocols/protocol';
import { Choice, Field, Tick, WhenField } from '../../form/fields';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { listProducts } from '../../store/products';
import { listPlans } from '../../store/trials';
import { RoomHead } from '../../ui/RoomHead';
import { currencyHere } from '../../ui/region';
import { todayDate } from '../../ui/clock';
import { beginAction } from './beginAction';
import { ratesIn } from './beginTrial';
import { kitsOf } from '~core/cost/kits';

export async function clientLoader() {
  const [plans, products] = await Promise.all([listPlans(), listProducts()]);
  const [latest] = plans;
  // A height and a weight is a kind without a name.
  const protocolId = latest?.protocolId ?? '';
  return {
    products: [...kitsOf(products).map((k) => k.name), ...products.map((p) => p.name)],
    defaults: {
      protocolId,
      names: [] as string[],
      withWater: true,
      base: '',
      each: '2',
      rates: '100',
      share: '',
      inEach: '1',
      crop: '',
      unitNoun: protocolOf(protocolId)?.unitNoun ?? 'tray',
      question: '',
      prediction: '',
      solution: '',
      areaCm2: '',
      differencePercent: '',
      code: '',
      startDate: todayDate(),
      currency: latest?.currency ?? products[0]?.packs[0]?.currency ?? currencyHere(),
      next: 'seal',
    },
  };
}

export const clientAction = beginAction;

/** What several units may share. */
const sharing = ['tank', 'tent', 'greenhouse', 'bed', 'bench'] as const;

/** A new trial in one go: kind, what is compared, how many of each; the rest as it is usually done, or planned further. */
export default function NewTrialPage() {
  const { defaults, products } = useLoaderData<typeof clientLoader>();
  const { form, busy, onSubmit } = useRecordForm(defaults);
  const [names, protocolId, unitNoun, share, base, each, rates] = useWatch({
    control: form.control,
    name: ['names', 'protocolId', 'unitNoun', 'share', 'base', 'each', 'rates'],
  });
  const [typed, setTyped] = useState('');
  const protocol = protocolOf(protocolId);
  const noun = unitNoun.trim() || 'unit';
  /** a litre of what is given in water, a kilo of what is strewn, one of what is put in place */
  const priced = protocol?.compares ? 'one' : protocol?.dry ? 'a kilo' : 'a litre';
  const price = priced === 'a litre' ? 'a litre (a kilo where it is weighed)' : priced;
  const control = untreatedBeside(protocol);
  const at = ratesIn(rates);
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
      <RoomHead title="A new trial">
        What is compared, on what, and how many of each; the rest as it is usually done. Everything can be
        changed until the plan is sealed.
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
                  ['blank', 'none of these: traits and rounds by hand'],
                ]}
                onChange={(e) => {
                  form.setValue('protocolId', e.target.value);
                  // What isn't asked for a kind of trial isn't said of it.
                  for (const [field, unsaid] of [
                    ['share', ''],
                    ['rates', '100'],
                    ['base', ''],
                  ] as const)
                    form.setValue(field, unsaid);
                  const chosen = protocolOf(e.target.value);
                  if (chosen) form.setValue('unitNoun', chosen.unitNoun);
                }}
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
                      `from the library, “Uno + Due” for two in one, or a new name with the price of ${price}${priced === 'one' ? '' : ' and the label’s rate'}: Foglia 12.90${priced === 'one' ? '' : priced === 'a kilo' ? ', 30 g/m²' : ', 5 mL/L'}`
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
            {getsFeed(protocol) && (
              <div className="w12">
                <BaseFeed
                  products={products.filter((p) => !names.includes(p))}
                  label={protocol?.onBase ? 'Base feed' : 'Feed that all get'}
                  said={
                    protocol?.onBase
                      ? 'all get it; the control gets it alone, so that the additive is seen'
                      : 'left empty: none. For example Uno 12, 1 mL/L + Due 9, 2 mL/L'
                  }
                />
              </div>
            )}
            <div className="w3">
              <Field name="each" label={`${sentenceCase(plural(share || noun))} of each`} numeric />
            </div>
            <div className="w3">
              <Field
                name="unitNoun"
                label="One unit is a"
                helperText={share ? 'what is measured' : 'what gets the treatment on its own'}
              />
            </div>
            <div className="w3">
              <Field
                name="crop"
                label={protocol?.cropsWithin ? `Crops in each ${noun}` : 'Crop'}
                helperText={protocol?.cropsWithin ? 'cress, basil, dill' : undefined}
              />
            </div>
            {!protocol?.compares && (
              <div className="w3">
                <Field
                  name="rates"
                  label="At, % of the rate"
                  figures
                  helperText={
                    at && at.length > 1
                      ? `at ${listNames(at.map(String))} %: ${at.length} of each product`
                      : '50, 100, 150: each at each'
                  }
                />
              </div>
            )}
            {(priced === 'a litre' || base.trim() !== '') && (
              <div className="w3">
                <Field
                  name="solution"
                  label={`Feed a ${noun} gets`}
                  figures
                  helperText="L at a time, or 1 gal"
                />
              </div>
            )}
            {protocol?.dry && (
              <div className="w3">
                <Field
                  name="areaCm2"
                  label={`Ground of a ${noun}`}
                  figures
                  helperText="20 m², or 200 sq ft"
                />
              </div>
            )}
            {mayShare(protocol) && (
              <div className="w6">
                <Choice
                  name="share"
                  label="What gets its product on its own?"
                  options={[
                    ['', `each ${noun}`],
                    ...sharing.map(
                      (kind) => [kind, `each ${kind}: what stands in it gets it together`] as const,
                    ),
                  ]}
                  helperText={
                    share ? sayShared(Math.max(2, names.length), Number(each) || 0, share) : undefined
                  }
                />
              </div>
            )}
            {share !== '' && (
              <div className="w3">
                <Field name="inEach" label={`${sentenceCase(plural(noun))} in each ${share}`} numeric />
              </div>
            )}
            <div className="w12">
              <Field
                name="question"
                label="Question"
                helperText="as a reader would ask it; left empty it is made of what is compared"
              />
            </div>
            <div className="w12">
              <Field
                name="prediction"
                label="What do you expect?"
                helperText="one sentence before the start; left empty, the review says that none was written"
              />
            </div>
            <div className="w3">
              <Field
                name="differencePercent"
                label="Smallest that matters"
                suffix="%"
                numeric
                helperText="what a reader would pay or change for, e.g. 10"
              />
            </div>
            <div className="w3">
              <WhenField name="startDate" label="Start" />
            </div>
            <div className="w3">
              <Field
                name="code"
                label="Code"
                helperText="three letters, or left to us"
                slotProps={{
                  htmlInput: {
                    maxLength: 3,
                    style: { fontFamily: 'var(--mono)', textTransform: 'uppercase' },
                  },
                }}
              />
            </div>
            <div className="w3">
              <Field name="currency" label="Currency" slotProps={{ htmlInput: { maxLength: 3 } }} />
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
function BaseFeed({ products, label, said }: { products: readonly string[]; label: string; said: string }) {
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
          label={label}
          inputRef={field.ref}
          onBlur={field.onBlur}
          error={fieldState.error !== undefined}
          helperText={fieldState.error?.message ?? said}
        />
      )}
    />
  );
}
