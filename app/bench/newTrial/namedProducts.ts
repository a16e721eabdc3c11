import { kitsOf } from '~core/cost/kits';
import { type Money, readSum, toMinor } from '~core/quantity/money';
import { blankProduct } from '~core/model/blankProduct';
import type { PackId, ProductId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import type { Product } from '~core/model/product';
import { type Result, err, ok } from '~core/model/result';
import { parseRate } from '~core/quantity/rate';
import { type MeasureSystem, measureWorth, usMeasures } from '~core/quantity/units';
import { type Protocol, getsFeed } from '~core/schedule/protocols/protocol';
import type { Around, BeginInput } from './beginTrial';

/** One thing that is compared: a product, or a kit of several. */
export interface Entry {
  name: string;
  products: Product[];
}

/** A name as it was typed, with the price of a litre, a kilo or one piece and the label’s rate behind it where they are. */
interface NamedText {
  name: string;
  price: Money | null;
  labelRate: string;
}

/**
 * Reads what was typed for a product that isn’t in the library.
 * @example readNamed('Foglia 12.90, 5 mL/L', 'EUR') // name Foglia, price 12.90 EUR, label rate 5 mL/L
 */
export function readNamed(text: string, home: string): Result<NamedText, string> {
  const comma = /^(.*\S)\s*,\s*([^,]*[a-z%:][^,]*)$/i.exec(text.trim());
  const rated = comma && parseRate(comma[2]!).ok;
  const rest = rated ? comma[1]! : text.trim();
  const labelRate = rated ? comma[2]!.trim() : '';
  const sum = readSum(rest, home);
  if (!sum.ok) return sum;
  if (sum.value === null) return ok({ name: rest, price: null, labelRate });
  const { before, amount, currency } = sum.value;
  if (before === '') return err(`“${text.trim()}” is a price: write it behind the name of its product.`);
  return ok({ name: before, price: { minor: toMinor(amount, currency), currency }, labelRate });
}

/** What a rate measures out; an ounce on a label may be either, so it tells nothing. */
function dosedBy(labelRate: string): 'mass' | 'volume' | 'count' | null {
  const rate = parseRate(labelRate);
  if (!rate.ok || !('of' in rate.value) || rate.value.of.kind === 'own') return null;
  const { measure } = rate.value.of;
  return measure.unit === 'oz' ? null : measureWorth(measure, usMeasures).dimension;
}

/** A product of which only this is known. */
function productNamed(
  { name, price, labelRate }: NamedText,
  protocol: Protocol | null,
  labelMeasures: MeasureSystem,
): Product {
  const { compares, dry } = protocol ?? {};
  const dosed = dosedBy(labelRate);
  const unit = compares || dosed === 'count' ? 'piece' : dry || dosed === 'mass' ? 'kg' : 'L';
  const device = compares === 'light' || compares === 'system';
  return {
    ...blankProduct(newId<ProductId>(), name),
    labelRate,
    labelMeasures,
    ...(dosed === 'mass' && { form: 'powder' as const }),
    ...(dosed === 'count' && { form: 'solid' as const }),
    ...(dry && { form: 'granules' as const }),
    ...(compares && { category: compares, form: device ? ('device' as const) : ('solid' as const) }),
    packs:
      price === null
        ? []
        : [
            {
              ...{ id: newId<PackId>(), size: 1, unit, priceMinor: price.minor, currency: price.currency },
              ...{ boughtOn: null, count: 1 },
            },
          ],
  };
}

const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();

/**
 * What is compared and what all get, in the order it was chosen (“Uno + Due” is one contender of both); products that are new; or what
 * can’t be read.
 */
export function namedIn(
  input: Pick<BeginInput, 'names' | 'base' | 'currency' | 'next'>,
  { library, units }: Pick<Around, 'library' | 'units'>,
  protocol: Protocol | null,
): Result<
  { base: Entry | null; entries: Entry[]; added: Product[] },
  Partial<Record<'names' | 'base', string>>
> {
  const known = [...library.map((p): Entry => ({ name: p.name, products: [p] })), ...kitsOf(library)];
  const added: Product[] = [];
  const entryOf = (text: string, kind = protocol): Result<Entry, string> => {
    const whole = known.find((e) => same(e.name, text));
    if (whole) return ok(whole);
    const parts = text.split(/\s+\+\s+/);
    if (parts.length > 1) {
      const read = parts.map((part) => entryOf(part, kind));
      const wrong = read.find((r) => !r.ok);
      if (wrong && !wrong.ok) return wrong;
      const all = read.flatMap((r) => (r.ok ? [r.value] : []));
      const entry = {
        name: all.map((e) => e.name).join(' + '),
        products: [...new Set(all.flatMap((e) => e.products))],
      };
      known.push(entry);
      return ok(entry);
    }
    const read = readNamed(text, input.currency);
    if (!read.ok) return read;
    const there = known.find((e) => same(e.name, read.value.name));
    if (there) return ok(there);
    const product = productNamed(read.value, kind, units.measures);
    const entry = { name: product.name, products: [product] };
    added.push(product);
    known.push(entry);
    return ok(entry);
  };
  const baseText = getsFeed(protocol) ? input.base.trim() : '';
  // A feed, whatever is compared on it.
  const base = baseText === '' ? null : entryOf(baseText, null);
  if (base && !base.ok) return err({ base: base.error });
  const entries: Entry[] = [];
  for (const text of input.names.map((n) => n.trim()).filter(Boolean)) {
    const entry = entryOf(text);
    if (!entry.ok) return err({ names: entry.error });
    if (entry.value !== base?.value && !entries.includes(entry.value)) entries.push(entry.value);
  }
  if (protocol?.onBase && base === null && (entries.length > 0 || input.next === 'seal'))
    return err({ base: 'Name the base feed: all get it, and the control gets it alone.' });
  return ok({ base: base?.value ?? null, entries, added });
}
