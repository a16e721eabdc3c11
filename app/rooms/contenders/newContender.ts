import type { TreatmentId } from '~core/model/ids';
import { drawnId } from '~core/model/newId';
import type { Role } from '~core/model/plan';
import { isByVolume } from '~core/mixing/resolveRate';
import { type AmountUnit, type Product, isDosed } from '~core/model/product';
import { dimensionOf } from '~core/quantity/amount';
import { parseRate } from '~core/quantity/rate';
import { type TreatmentInput, type UseInput, blankConditions } from './contendersForm';

/** The same doses and surroundings under another name: half the dose, or another pot, is a change away. */
export const copyOfTreatment = (like: TreatmentInput): TreatmentInput => ({
  ...structuredClone(like),
  id: drawnId<TreatmentId>() as string,
  name: `${like.name} (copy)`.slice(0, 80),
  // A base is copied to put something on top of it.
  role: like.role === 'untreated' || like.role === 'base' ? 'test' : like.role,
});

/** An empty contender; what surrounds it is taken from another one. */
export function newTreatment(
  role: Role,
  like?: TreatmentInput,
  crop = '',
  plantsPerUnit: number | null = null,
): TreatmentInput {
  return {
    id: drawnId<TreatmentId>() as string,
    name: role === 'untreated' ? 'Water' : '',
    role,
    expectedPercent: '',
    container: like?.container ?? '',
    medium: like?.medium ?? '',
    light: like?.light ?? '',
    system: like?.system ?? '',
    water: like?.water ?? '',
    notes: '',
    levels: {},
    flushDays: '',
    conditions: like ? { ...like.conditions } : blankConditions({ crop, plantsPerUnit }),
    products: [],
  };
}

/** The label's rate as a dose, where it is one figure that can be worked out; a range is the reviewer's to choose. */
function labelDose({ labelRate }: Product): string {
  const rate = parseRate(labelRate);
  if (!rate.ok) return '';
  return rate.value.kind !== 'ratio' && rate.value.low !== rate.value.high ? '' : labelRate;
}

/**
 * The product that is probably meant when one is added to a contender: the one it is called after, else what all share (that of
 * a base, then what most others have). Never a rival’s own: null asks.
 */
export function productMeant(
  products: readonly Product[],
  treatments: readonly Pick<TreatmentInput, 'name' | 'role' | 'products'>[],
  index: number,
): Product | null {
  const has = (t: Pick<TreatmentInput, 'products'> | undefined, p: Product) =>
    t?.products.some((u) => u.productId === p.id) ?? false;
  const its = treatments[index];
  const others = products.filter((p) => !has(its, p));
  const name = its?.name.toLowerCase() ?? '';
  const named = others.filter((p) => name.includes(p.name.toLowerCase()));
  // “Foglia Uno” is meant rather than “Foglia”.
  const [longest] = named.toSorted((a, b) => b.name.length - a.name.length);
  if (longest) return longest;
  const rest = treatments.filter((t, i) => i !== index && t.products.length > 0);
  const base = others.find((p) => rest.some((t) => t.role === 'base' && has(t, p)));
  const having = (p: Product) => rest.filter((t) => has(t, p)).length;
  const [most] = others.toSorted((a, b) => having(b) - having(a));
  const shared = most && having(most) > 1 && having(most) * 2 > rest.length ? most : null;
  return base ?? shared ?? (products.length === 1 ? (others[0] ?? null) : null);
}

/**
 * The products a contender is called after: “Uno + Due” is both, “Uno 50 %” is Uno.
 * @param name as it was given
 */
export function productsNamed(products: readonly Product[], name: string): Product[] {
  const found = name.split(/\s+\+\s+/).flatMap((part) => {
    const text = part.trim().toLowerCase();
    const fits = products.filter(
      (p) => text === p.name.toLowerCase() || text.startsWith(`${p.name.toLowerCase()} `),
    );
    // “Foglia Uno” is meant rather than “Foglia”.
    return fits.toSorted((a, b) => b.name.length - a.name.length).slice(0, 1);
  });
  return [...new Set(found)];
}

/** The share of the rate that a contender is called after, per cent; 100 where its name says none. @example rateNamed('Uno 50 %') // '50' */
export const rateNamed = (name: string): string => /\s(\d+(?:[.,]\d+)?)\s?%$/.exec(name.trim())?.[1] ?? '100';

/**
 * The next dose: of another product, given in the same water on the same days as the last one.
 * @param product null: still to be chosen
 * @param last null for the first dose of all
 */
export const nextUse = (product: Product | null, last: UseInput | null): UseInput => ({
  ...(product ? newUse(product) : unchosen),
  ...(last && {
    solutionLPerUnit: last.solutionLPerUnit,
    timesPerUnit: last.timesPerUnit,
    fromDay: last.fromDay,
    everyDays: last.everyDays,
    stage: last.stage,
  }),
});

const unchosen: UseInput = {
  ...{ productId: '', packId: '', amount: '', unit: 'mL', solutionLPerUnit: '', timesPerUnit: '1' },
  ...{ stage: '', fromDay: '', everyDays: '', strengthPercent: '100', apart: false, way: 'water' },
};

/** Granules are strewn, where their label doesn't dissolve them; what isn't dosed is put in place. */
function wayOf({ category, form, labelRate }: Product): UseInput['way'] {
  if (!isDosed(category)) return 'dry';
  return form === 'granules' && !isByVolume(labelRate) ? 'dry' : 'water';
}

/** A dose to begin with, counted the way the product is sold. */
export function newUse(product: Product): UseInput {
  const sold = dimensionOf(product.packs[0]?.unit ?? (product.form === 'liquid' ? 'mL' : 'g'));
  const unit: AmountUnit = sold === 'mass' ? 'g' : sold === 'volume' ? 'mL' : 'piece';
  return {
    ...unchosen,
    productId: product.id as string,
    amount: labelDose(product),
    unit,
    way: wayOf(product),
  };
}
