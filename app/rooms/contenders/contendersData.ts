import { err, ok } from '~core/model/result';
import { type MergeError, SentForm, mergedValues, refusal } from '../../form/mergedForm';
import type { ActionResult } from '../../form/schemaFields';
import { listProducts } from '../../store/products';
import { loadTrial, savePlan } from '../../store/trials';
import type { RoomArgs } from '../roomArgs';
import { ContendersForm, applyContenders, doseErrors, toContendersForm } from './contendersForm';
import { sentIn } from '../../form/handedOver';

export async function loadContenders({ params }: RoomArgs) {
  const { row, state, blind } = await loadTrial(params.trialId);
  const sealed = state.seal !== null;
  // A sealed trial shows its own copies: the library may have moved on. Before, what was deleted there
  // but is used here stays to choose.
  const library = sealed ? [] : await listProducts();
  const gone = row.plan.products.filter((p) => !library.some((l) => l.id === p.id));
  const products = [...library, ...gone];
  return {
    id: row.id,
    plan: state.revealed ? state.plan : row.plan,
    products,
    blind,
    sealedAt: state.seal?.at ?? null,
  };
}

export type ContendersData = Awaited<ReturnType<typeof loadContenders>>;

export async function contendersAction({ params, request }: RoomArgs): Promise<ActionResult> {
  const sent = SentForm.safeParse(await sentIn(request));
  if (!sent.success) return { errors: { treatments: 'Nothing was sent.' } };
  const saved = await savePlan<MergeError>(params.trialId, (plan, { library }) => {
    const values = mergedValues(sent.data, toContendersForm(plan), ContendersForm);
    if (!values.ok) return values;
    const products = [...library, ...plan.products];
    const errors = doseErrors(values.value, products, plan.unitNoun);
    return Object.keys(errors).length > 0
      ? err({ tag: 'invalid', errors })
      : ok(applyContenders(plan, values.value, products));
  });
  return saved.ok
    ? { saved: true, message: 'The contenders are saved.', now: toContendersForm(saved.value.trial.row.plan) }
    : refusal(saved.error, 'treatments');
}
