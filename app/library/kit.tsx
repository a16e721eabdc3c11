import { command, toAction } from '../form/command';
import Button from '@mui/material/Button';
import { FormProvider, useFieldArray } from 'react-hook-form';
import { Link, redirect, useLoaderData } from 'react-router';
import { amountUnits } from '~core/model/product';
import { Choice, Field, GroupError, WhenField } from '../form/fields';
import { PriceField } from './PriceField';
import { UnsavedGuard } from '../form/UnsavedGuard';
import { useRecordForm } from '../form/useRecordForm';
import { listProducts, changeProducts } from '../store/products';
import { RoomHead } from '../ui/RoomHead';
import { KitForm, type KitFormInput, withKit } from './kitForm';
import { shopOptions } from './productForm';
import { currencyHere } from '../ui/region';

const bottle = { productId: '', size: '', unit: 'L' as const };

export async function clientLoader() {
  const products = await listProducts();
  const empty: KitFormInput = {
    name: '',
    price: '',
    currency: products.flatMap((p) => p.packs)[0]?.currency ?? currencyHere(),
    ...{ boughtOn: '', shop: '', country: '' },
    bottles: [bottle, bottle],
  };
  return { products, empty };
}

export const clientAction = toAction({
  kit: command(KitForm, async (_, kit) => {
    await changeProducts((library) => withKit(library, kit));
    return redirect('/library');
  }),
});

/** Several bottles bought together at one price. */
export default function Kit() {
  const { products, empty } = useLoaderData<typeof clientLoader>();
  const { form, busy, onSubmit } = useRecordForm(empty);
  const bottles = useFieldArray({ control: form.control, name: 'bottles', keyName: 'key' });
  if (products.length < 2) {
    return (
      <div className="empty">
        <h1>A kit of several bottles</h1>
        <p style={{ marginTop: '0.6rem' }}>
          A kit is made of products that stand in the library: put its bottles there first, each with its own
          label, then its one price.
        </p>
        <Button variant="contained" component={Link} to="/library/new">
          Add a product
        </Button>
      </div>
    );
  }
  return (
    <FormProvider {...form}>
      <form onSubmit={onSubmit} noValidate>
        <UnsavedGuard busy={busy} />
        <RoomHead title="A kit of several bottles">
          Bottles sold together at one price. Each gets its share of it by what is in it, which can be changed
          at the product; the costs say which bottle is empty first and what is left over then.
        </RoomHead>
        <div className="fields" style={{ maxWidth: '58rem' }}>
          <div className="w4">
            <Field name="name" label="Name of the kit" autoFocus />
          </div>
          <div className="w2">
            <PriceField name="price" currencyName="currency" label="Price of the kit" />
          </div>
          <div className="w2">
            <Field name="currency" label="Currency" />
          </div>
          <div className="w2">
            <WhenField name="boughtOn" label="Bought on" />
          </div>
          <div className="w3">
            <Choice name="shop" label="Kind of shop" options={shopOptions} />
          </div>
          <div className="w3">
            <Field name="country" label="Country" />
          </div>
        </div>
        <section className="section">
          <h2>Its bottles</h2>
          <div className="stack">
            {bottles.fields.map((f, i) => (
              <div className="fields" key={f.key} style={{ maxWidth: '58rem' }}>
                <div className="w4">
                  <Choice
                    name={`bottles.${i}.productId`}
                    label={`Bottle ${i + 1}`}
                    options={products.map((p) => [p.id, p.name] as const)}
                  />
                </div>
                <div className="w2">
                  <Field name={`bottles.${i}.size`} label="Size" numeric />
                </div>
                <div className="w2">
                  <Choice
                    name={`bottles.${i}.unit`}
                    label="Unit"
                    options={amountUnits.map((u) => [u, u] as const)}
                  />
                </div>
                <div>
                  <Button
                    color="inherit"
                    onClick={() => bottles.remove(i)}
                    aria-label={`Remove bottle ${i + 1}`}
                  >
                    Remove
                  </Button>
                </div>
              </div>
            ))}
            <GroupError name="bottles" />
            <div>
              <Button variant="outlined" color="secondary" onClick={() => bottles.append(bottle)}>
                One bottle more
              </Button>
            </div>
          </div>
        </section>
        <div className="save-bar">
          <Button type="submit" variant="contained" disabled={busy}>
            Put the kit in the library
          </Button>
          <Button component={Link} to="/library" color="inherit">
            Back to the library
          </Button>
        </div>
      </form>
    </FormProvider>
  );
}
