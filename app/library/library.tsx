import Button from '@mui/material/Button';
import { binCommands } from '../form/binAction';
import { command, toAction } from '../form/command';
import { ok } from '~core/model/result';
import { useBin } from '../form/useBin';
import { Link, redirect, useLoaderData, useSubmit } from 'react-router';
import { z } from 'zod';
import type { PackId, ProductId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { formatMoney } from '~core/quantity/money';
import { deleteProduct, getProduct, listProducts, saveProduct } from '../store/products';
import { quietButton } from '../ui/quietButton';
import { VirtualRows } from '../ui/VirtualRows';
import { SmallPlan } from '../ui/SmallPlan';
import { RoomHead } from '../ui/RoomHead';
import { Tessera } from '../ui/Tessera';

export async function clientLoader() {
  return { products: await listProducts() };
}

export const clientAction = toAction({
  copy: command(z.object({ copy: z.string().min(1) }), async (_, { copy }) => {
    const product = await getProduct(copy);
    if (!product) return ok({ message: 'This product isn’t in the library any more.' });
    const id = newId<ProductId>();
    await saveProduct({
      ...product,
      id,
      name: `${product.name} (copy)`.slice(0, 120),
      packs: product.packs.map((p) => ({ ...p, id: newId<PackId>() })),
    });
    return redirect(`/library/${id}`);
  }),
  ...binCommands(deleteProduct),
});

export default function Library() {
  const { products } = useLoaderData<typeof clientLoader>();
  const remove = useBin();
  const submit = useSubmit();
  const add = (
    <>
      {products.length > 1 && (
        <Button variant="outlined" color="secondary" component={Link} to="/library/kit">
          A kit of several bottles
        </Button>
      )}
      <Button variant="contained" component={Link} to="/library/new">
        Add a product
      </Button>
    </>
  );
  if (products.length === 0) {
    return (
      <div className="empty">
        <SmallPlan />
        <h1>The library is empty</h1>
        <p style={{ marginTop: '0.6rem' }}>
          Put every product you compare here once: what the label says (analysis, directions, claims), the
          packs and what you paid, and how you came by it. Trials take prices and claims from here and keep a
          copy when they are sealed.
        </p>
        {add}
      </div>
    );
  }
  return (
    <>
      <RoomHead title="Library" actions={add}>
        Products with their labels, claims, packs and what was paid. A sealed trial keeps its own copy.
      </RoomHead>
      <div className="scroll-x">
        <table className="ledger as-rows" aria-rowcount={products.length + 1}>
          <thead>
            <tr>
              <th>product</th>
              <th>kind</th>
              <th className="n">N – P₂O₅ – K₂O</th>
              <th className="n">packs</th>
              <th className="n">claims</th>
              <th>obtained</th>
              <th>
                <span className="sr-only">remove</span>
              </th>
            </tr>
          </thead>
          <VirtualRows rows={products} columns={7} guess={62}>
            {(p, own) => (
              <tr key={p.id} {...own}>
                <td>
                  <Link className="open who" to={`/library/${p.id}`}>
                    {p.tile !== undefined && <Tessera index={p.tile} size={20} />}
                    <span>{p.name}</span>
                  </Link>
                  <div className="small quiet">{p.maker}</div>
                </td>
                <td data-label="kind">
                  {p.category}, {p.form}
                </td>
                <td className="n" data-label="N – P₂O₅ – K₂O">
                  {p.analysis
                    ? `${p.analysis.nPercent} – ${p.analysis.p2o5Percent} – ${p.analysis.k2oPercent}`
                    : '–'}
                </td>
                <td className="n" data-label="packs">
                  <div>
                    {p.packs.map((k) => (
                      <div key={k.id}>
                        {k.size} {k.unit} <span className="unit">at</span>{' '}
                        {formatMoney({ minor: k.priceMinor, currency: k.currency })}
                        {k.kit && <div className="small quiet">of {k.kit.name}</div>}
                      </div>
                    ))}
                    {p.packs.length === 0 && <span className="quiet">no price</span>}
                  </div>
                </td>
                <td className="n" data-label="claims">
                  {p.claims.length || '–'}
                </td>
                <td data-label="obtained">
                  {p.obtained === 'bought' ? (
                    'bought'
                  ) : (
                    <strong style={{ color: 'var(--ochre-text)' }}>{p.obtained}</strong>
                  )}
                </td>
                <td className="n">
                  <Button
                    size="small"
                    color="inherit"
                    sx={quietButton}
                    onClick={() =>
                      void submit({ copy: p.id }, { method: 'post', encType: 'application/json' })
                    }
                    aria-label={`Copy ${p.name}`}
                  >
                    Copy
                  </Button>
                  <Button
                    size="small"
                    color="inherit"
                    sx={quietButton}
                    onClick={() => remove(p.id, p.name)}
                    aria-label={`Delete ${p.name}`}
                  >
                    Delete
                  </Button>
                </td>
              </tr>
            )}
          </VirtualRows>
        </table>
      </div>
    </>
  );
}
