import type { Product } from '../model/product';

/**
 * How a product came to the reviewer, in the sentence the review prints.
 * Basis: FTC Guides, 16 CFR Part 255; other countries have their own.
 * @example sayObtained({ name: 'Prova', maker: '', obtained: 'own product' }) // 'Prova is the reviewer’s own product.'
 */
export const sayObtained = (p: Pick<Product, 'name' | 'maker' | 'obtained'>): string =>
  p.obtained === 'own product'
    ? `${p.name} is the reviewer’s own product.`
    : `${p.name} was sent free of charge${p.maker ? ` by ${p.maker}` : ''}.`;

/** Products that weren’t bought and that what was written doesn’t name. */
export const undisclosed = <P extends Pick<Product, 'name' | 'obtained'>>(
  products: readonly P[],
  written: string,
): P[] =>
  products.filter((p) => p.obtained !== 'bought' && !written.toLowerCase().includes(p.name.toLowerCase()));
