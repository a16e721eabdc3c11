import Button from '@mui/material/Button';
import { FormProvider, useFieldArray } from 'react-hook-form';
import { Link, useLoaderData } from 'react-router';
import { LockedForm } from '../../form/fields';
import { fieldErrors } from '../../form/schemaFields';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { listProducts } from '../../store/products';
import { loadTrial, savePlan } from '../../store/trials';
import { RoomHead } from '../../ui/RoomHead';
import { SealedBanner } from '../SealedBanner';
import type { RoomArgs } from '../roomArgs';
import { TreatmentRow } from './TreatmentRow';
import { ContendersForm, applyContenders, newTreatment, toContendersForm } from './contendersForm';

export async function clientLoader({ params }: RoomArgs) {
  const { row, state } = await loadTrial(params.trialId);
  const sealed = state.seal !== null;
  // A sealed trial shows its own copies: the library may have moved on. Before, what was deleted there
  // but is used here stays to choose.
  const library = sealed ? [] : await listProducts();
  const gone = row.plan.products.filter((p) => !library.some((l) => l.id === p.id));
  const products = [...library, ...gone];
  return { id: row.id, plan: row.plan, products, sealedAt: state.seal?.at ?? null };
}

export async function clientAction({ params, request }: RoomArgs) {
  const parsed = ContendersForm.safeParse(await request.json());
  if (!parsed.success) return { errors: fieldErrors(parsed.error) };
  const saved = await savePlan(params.trialId, (plan) => applyContenders(plan, parsed.data));
  return saved.ok
    ? { saved: true, message: 'The contenders are saved.' }
    : { errors: { treatments: 'The plan is sealed.' } };
}

export default function ContendersRoom() {
  const data = useLoaderData<typeof clientLoader>();
  return <ContendersEditor key={data.id} {...data} />;
}

function ContendersEditor({ id, plan, products, sealedAt }: Awaited<ReturnType<typeof clientLoader>>) {
  const { form, busy, onSubmit } = useRecordForm(toContendersForm(plan));
  const rows = useFieldArray({ control: form.control, name: 'treatments', keyName: 'key' });
  const locked = sealedAt !== null;
  const hasControl = rows.fields.some((r) => r.role !== 'test');
  const add = (role: 'untreated' | 'base' | 'reference' | 'test') =>
    rows.append(newTreatment(role, form.getValues('treatments')[0]));
  return (
    <FormProvider {...form}>
      <LockedForm value={locked}>
        <form onSubmit={onSubmit} noValidate style={{ maxWidth: '64rem' }}>
          <UnsavedGuard busy={busy} />
          <RoomHead title="Contenders">
            What is compared with what. Without a control nobody sees that a product did worse than nothing.
          </RoomHead>
          <SealedBanner trialId={id} sealedAt={sealedAt} />
          {rows.fields.length === 0 && (
            <div className="empty">
              <h2>No contenders yet</h2>
              <p>
                Begin with the control: water only, or the base feed alone when an additive is tested. Then
                one contender for each product, with its dose. Everything else stays the same for all.
              </p>
            </div>
          )}
          <div className="stack">
            {rows.fields.map((f, i) => (
              <TreatmentRow
                key={f.key}
                index={i}
                products={products}
                currency={plan.currency}
                locked={locked}
                unitNoun={plan.unitNoun}
                remove={() => rows.remove(i)}
              />
            ))}
          </div>
          {!locked && (
            <div className="line" style={{ marginTop: '1rem' }}>
              {!hasControl && (
                <Button variant="outlined" color="secondary" onClick={() => add('untreated')}>
                  Add an untreated control
                </Button>
              )}
              <Button variant="outlined" color="secondary" onClick={() => add('test')}>
                Add a contender
              </Button>
              <Button color="secondary" onClick={() => add('reference')}>
                Add a reference
              </Button>
              <Button color="secondary" onClick={() => add('base')}>
                Add a base control
              </Button>
              {products.length === 0 && (
                <span className="small">
                  The library is empty: <Link to="/library/new">add the products first</Link>.
                </span>
              )}
            </div>
          )}
          {!locked && (
            <div className="save-bar">
              <Button type="submit" variant="contained" disabled={busy}>
                Save the contenders
              </Button>
              {form.formState.isDirty && <span className="small quiet">Not saved yet</span>}
            </div>
          )}
        </form>
      </LockedForm>
    </FormProvider>
  );
}
