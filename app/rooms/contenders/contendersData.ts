import { saves, toAction } from '../../form/command';
import { listProducts } from '../../store/products';
import { loadTrial } from '../../store/trials';
import type { RoomArgs } from '../roomArgs';
import { contendersRecord } from './contendersForm';

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

export const contendersAction = toAction({
  treatments: saves('plan', contendersRecord, 'The contenders are saved.'),
});
