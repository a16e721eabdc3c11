import type { ProductId } from '~core/model/ids';
import { Product } from '~core/model/product';
import { bench } from './bench';

/** The library, by name. */
export async function listProducts(): Promise<Product[]> {
  const all = await (await bench()).products.toArray();
  return all.sort((a, b) => a.name.localeCompare(b.name));
}

export async function getProduct(id: string): Promise<Product | undefined> {
  return (await bench()).products.get(id as ProductId);
}

export async function saveProduct(product: Product): Promise<void> {
  await (await bench()).products.put(Product.parse(product));
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

/** Saves several products, all or none. */
export async function saveProducts(products: readonly Product[]): Promise<void> {
  await (await bench()).products.bulkPut(products.map((p) => Product.parse(p)));
}
