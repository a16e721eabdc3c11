import { guarded } from '../form/guarded';
import { sentIn } from '../form/handedOver';
import Button from '@mui/material/Button';
import { FormProvider, useFieldArray } from 'react-hook-form';
import { Link, redirect, useLoaderData } from 'react-router';
import { blankProduct } from '~core/model/blankProduct';
import type { ProductId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { amountUnits, productCategories, productForms } from '~core/model/product';
import { Choice, Field, WhenField } from '../form/fields';
import { PriceField } from './PriceField';
import { UnsavedGuard } from '../form/UnsavedGuard';
import { useRecordForm } from '../form/useRecordForm';
import { changeProduct, getProduct, listProducts, saveProduct } from '../store/products';
import { answerTo } from '../form/command';
import { SentForm, applied } from '../form/recordForm';
import { StaleNote } from '../form/StaleNote';
import { useMemo } from 'react';
import { Caution } from '../ui/Caution';
import { RoomHead } from '../ui/RoomHead';
import { AnalysisSection } from './AnalysisSection';
import { MeasuringSection } from './MeasuringSection';
import { emptyPack, productRecord, shopOptions, usualUnit } from './productForm';
import { currencyHere, unitsHere } from '../ui/region';

interface RouteArgs {
  params: { productId?: string };
  request: Request;
}

export async function clientLoader({ params }: RouteArgs) {
  const product = params.productId === 'new' ? null : await getProduct(params.productId!);
  if (product === undefined) throw new Response('There is no such product in the library.', { status: 404 });
  const currency = (await listProducts()).flatMap((p) => p.packs)[0]?.currency ?? currencyHere();
  return { product, currency };
}

export const clientAction = guarded(async ({ params, request }: RouteArgs) => {
  const data = await sentIn(request);
  if (params.productId === 'new') {
    const made = applied(productRecord, { values: data }, blankProduct(newId<ProductId>(), ''));
    if (!made.ok) return answerTo(made);
    await saveProduct(made.value);
    return redirect('/library');
  }
  const changed = await changeProduct(params.productId!, (product) =>
    applied(productRecord, SentForm.parse(data), product),
  );
  if (changed?.ok) return redirect('/library');
  return changed
    ? answerTo(changed)
    : {
        errors: { product: 'This product isn’t in the library any more: it was deleted. Nothing was kept.' },
      };
});

const same = (values: readonly string[]) => values.map((v) => [v, v] as const);

export default function ProductPage() {
  const data = useLoaderData<typeof clientLoader>();
  // Gone on to another product: its own form, not the one of the product before.
  return <ProductEditor key={data.product?.id ?? 'new'} {...data} />;
}

function ProductEditor({ product, currency }: Awaited<ReturnType<typeof clientLoader>>) {
  const defaults = useMemo(
    () =>
      productRecord.shown(
        product ?? { ...blankProduct(newId<ProductId>(), ''), labelMeasures: unitsHere().measures },
      ),
    [product],
  );
  const { form, busy, stale, conflicts, onSubmit } = useRecordForm(
    defaults,
    product ? { merges: productRecord.name } : {},
  );
  const packs = useFieldArray({ control: form.control, name: 'packs', keyName: 'key' });
  const claims = useFieldArray({ control: form.control, name: 'claims', keyName: 'key' });
  return (
    <FormProvider {...form}>
      <form onSubmit={onSubmit} noValidate>
        <UnsavedGuard busy={busy} />
        <StaleNote stale={stale} conflicts={conflicts} />
        <RoomHead title={product ? product.name : 'A product for the library'}>
          Copy the label as it is printed; the trial does the arithmetic.
        </RoomHead>
        <div className="fields" style={{ maxWidth: '58rem' }}>
          <div className="w6">
            <Field name="name" label="Name on the label" autoFocus={!product} />
          </div>
          <div className="w6">
            <Field name="maker" label="Maker" />
          </div>
          <div className="w3">
            <Choice name="category" label="Category" options={same(productCategories)} />
          </div>
          <div className="w3">
            <Choice name="form" label="Form" options={same(productForms)} />
          </div>
          <div className="w6">
            <Choice
              name="obtained"
              label="How obtained"
              options={same(['bought', 'sent free', 'own product'])}
              helperText="anything but bought is disclosed in the review"
            />
          </div>
        </div>

        <section className="section">
          <h2>Packs and prices</h2>
          <p className="quiet">
            What you paid, shipping left out. The first pack sets the price unless a treatment names another.
          </p>
          <div className="stack">
            {packs.fields.map((f, i) => (
              <div className="fields" key={f.key} style={{ maxWidth: '58rem' }}>
                <div className="w1">
                  <Field name={`packs.${i}.count`} label="Packs" numeric />
                </div>
                <div className="w2">
                  <Field name={`packs.${i}.size`} label="Size" numeric />
                </div>
                <div className="w2">
                  <Choice name={`packs.${i}.unit`} label="Unit" options={same(amountUnits)} />
                </div>
                <div className="w2">
                  <PriceField
                    name={`packs.${i}.price`}
                    currencyName={`packs.${i}.currency`}
                    label="Price paid"
                    helperText={f.kit ? `its share of the kit ${f.kit.name}` : undefined}
                  />
                </div>
                <div className="w2">
                  <Field name={`packs.${i}.currency`} label="Currency" />
                </div>
                <div className="w2">
                  <WhenField name={`packs.${i}.boughtOn`} label="Bought on" />
                </div>
                <div className="w3">
                  <Choice name={`packs.${i}.shop`} label="Kind of shop" options={shopOptions} />
                </div>
                <div className="w3">
                  <Field name={`packs.${i}.country`} label="Country" />
                </div>
                <div>
                  <Button color="inherit" onClick={() => packs.remove(i)} aria-label={`Remove pack ${i + 1}`}>
                    Remove
                  </Button>
                </div>
              </div>
            ))}
            <div>
              <Button
                variant="outlined"
                color="secondary"
                onClick={() => {
                  const soFar = form.getValues();
                  packs.append(emptyPack(currency, soFar.packs.at(-1)?.unit ?? usualUnit(soFar)));
                }}
              >
                Add a pack
              </Button>
            </div>
          </div>
        </section>

        <AnalysisSection />

        <MeasuringSection />

        <section className="section">
          <h2>Directions and claims</h2>
          <p className="quiet">
            Each claim on its own line, in the label’s words: claims are checked one at a time.
          </p>
          <div className="stack" style={{ maxWidth: '58rem' }}>
            <Field name="directions" label="Directions on the label" multiline minRows={2} />
            {claims.fields.map((f, i) => (
              <div
                className="inline-row"
                key={f.key}
                style={{ flexWrap: 'nowrap', alignItems: 'flex-start' }}
              >
                <Field name={`claims.${i}.text`} label={`Claim ${i + 1}`} />
                <Button color="inherit" onClick={() => claims.remove(i)} aria-label={`Remove claim ${i + 1}`}>
                  Remove
                </Button>
              </div>
            ))}
            <div>
              <Button
                variant="outlined"
                color="secondary"
                onClick={() => claims.append({ id: newId(), text: '' })}
              >
                Add a claim
              </Button>
            </div>
            <Field name="notes" label="Notes" multiline minRows={2} />
            <Caution>
              Read the safety data sheet. Concentrates aren’t mixed with each other; gloves and eye protection
              with acids, peroxide and powders; out of children’s reach. The label and local rules come first.
            </Caution>
          </div>
        </section>
        <div className="save-bar">
          <Button type="submit" variant="contained" disabled={busy}>
            {product ? 'Save the product' : 'Put it in the library'}
          </Button>
          <Button component={Link} to="/library" color="inherit">
            Back to the library
          </Button>
        </div>
      </form>
    </FormProvider>
  );
}
