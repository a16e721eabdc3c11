import type { ProductId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { Product } from '~core/model/product';
import { withTiles } from '~core/plan/tiles';
import type { Result } from '~core/model/result';
import { bench } from './bench';

/** What is put into the library. */
const ready = (products: readonly Product[], library: readonly Product[]): Product[] =>
  withTiles(products, library).map((p) => Product.parse(p));

/** The library, by name. */
export async function listProducts(): Promise<Product[]> {
  const all = await (await bench()).products.toArray();
  return all.sort((a, b) => a.name.localeCompare(b.name));
}

export async function getProduct(id: string): Promise<Product | undefined> {
  return (await bench()).products.get(id as ProductId);
}

export async function saveProduct(product: Product): Promise<void> {
  await changeProducts(() => [product]);
}

/** Puts what a new plan brings into the library. @returns the plan with its products as they are kept there */
export async function bringProducts(plan: Plan, added: readonly Product[]): Promise<Plan> {
  await changeProducts(() => added);
  const kept = new Map((await listProducts()).map((p) => [p.id, p]));
  return { ...plan, products: plan.products.map((p) => kept.get(p.id) ?? p) };
}

/** Changes a product as it stands in the library now. @returns the reason where it isn't, null where there is none */
export async function changeProduct<E>(
  id: string,
  to: (product: Product) => Result<Product, E>,
): Promise<Result<Product, E> | null> {
  const db = await bench();
  return db.transaction('rw', db.products, async () => {
    const product = await db.products.get(id as ProductId);
    if (!product) return null;
    const next = to(product);
    if (next.ok) await db.products.bulkPut(ready([next.value], [product]));
    return next;
  });
}

/** Changes several products of the library together, as they stand now. */
export async function changeProducts(to: (library: readonly Product[]) => readonly Product[]): Promise<void> {
  const db = await bench();
  await db.transaction('rw', db.products, async () => {
    const library = await db.products.toArray();
    await db.products.bulkPut(ready(to(library), library));
  });
}

/** Puts a product into the bin. */
export async function deleteProduct(id: string): Promise<void> {
  const db = await bench();
  await db.transaction('rw', db.products, db.bin, async () => {
    const product = await db.products.get(id as ProductId);
    if (!product) return;
    await db.bin.put({
      id,
      kind: 'product',
      title: product.name,
      deletedAt: new Date().toISOString(),
      product,
    });
    await db.products.delete(product.id);
  });
}
