import { type Money, readSum, toMinor } from '~core/cost/money';
import { layOut } from '~core/design/layOut';
import { describeLayoutError } from '~core/design/randomise';
import type { AreaId, PackId, ProductId, RoundId, TraitId, TrialId } from '~core/model/ids';
import { blankPlan, beginsIn } from '~core/model/blankPlan';
import { blankProduct } from '~core/model/blankProduct';
import { newId } from '~core/model/newId';
import type { Plan, ProductUse, Trait } from '~core/model/plan';
import type { Product, ProductCategory } from '~core/model/product';
import { type Result, err, ok } from '~core/model/result';
import { additivesOn, contendersOf } from '~core/plan/beginning';
import { NOTHING_WRITTEN } from '~core/plan/nothingWritten';
import { winningBy } from '~core/plan/winning';
import { proposeCode } from '~core/plan/proposeCode';
import { listNames, sentenceCase } from '~core/quantity/format';
import { usMeasures } from '~core/quantity/units';
import { protocolOf } from '~core/schedule/protocols';
import { type Protocol, untreatedBeside } from '~core/schedule/protocols/protocol';
import { applyProtocol } from '~core/schedule/protocols/applyProtocol';
import { newUse } from '../../rooms/contenders/newContender';
import { resolveDose } from '../../rooms/contenders/dose';
import { newTrait } from '../../rooms/question/newRows';
import type { SizeUnits } from '~core/quantity/sizeText';

/** What is asked for a trial that is planned in one go. */
export interface QuickInput {
  protocolId: string;
  /** names of products of the library, or new ones, the price of a litre, a kilo or one after the name: “Foglia 12.90” */
  names: readonly string[];
  /** an untreated control beside them, where the kind of trial has one */
  withWater: boolean;
  /** the feed that all get, where additives are compared; read as `names` are */
  base: string;
  /** of each contender */
  each: number;
  crop: string;
  question: string;
  prediction: string;
  /** solution each unit gets in all, L; null: not said */
  solutionL: number | null;
}

export interface Around {
  library: readonly Product[];
  taken: readonly string[];
  today: string;
  currency: string;
  /** sizes and measures it begins with */
  units: SizeUnits;
}

export interface QuickPlan {
  plan: Plan;
  /** products that weren't in the library */
  added: Product[];
  /** contenders whose product isn't in the plan: nobody said how much */
  undosed: string[];
  /** the same in a sentence, with what was asked for and goes with them; null where all was taken over */
  open: string | null;
}

/** A name as it was typed, with the price of a litre, a kilo or one piece behind it where there is one. */
export function nameAndPrice(
  text: string,
  home: string,
): Result<{ name: string; price: Money | null }, string> {
  const sum = readSum(text, home);
  if (!sum.ok) return sum;
  if (sum.value === null) return ok({ name: text.trim(), price: null });
  const { before, amount, currency } = sum.value;
  if (before === '') return err(`“${text.trim()}” is a price: write it behind the name of its product.`);
  return ok({ name: before, price: { minor: toMinor(amount, currency), currency } });
}

/** A product of which only the name, and perhaps the price of a litre, a kilo or one piece, is known. */
function productNamed(name: string, price: Money | null, protocol: Protocol | null): Product {
  const { compares, dry } = protocol ?? {};
  const unit = compares ? 'piece' : dry ? 'kg' : 'L';
  const device = compares === 'light' || compares === 'system';
  return {
    ...blankProduct(newId<ProductId>(), name),
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

const anyOf = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} or ${names.at(-1)}`;

const number = (text: string) => (text === '' ? null : Number(text));

/** A height to begin with and a weight at the end, where no kind of trial is chosen. */
function plainTraits(plan: Plan): Plan {
  const made = (['height', 'weight'] as const).map((kind): Trait => {
    const t = newTrait(kind);
    return {
      ...{ id: t.id as TraitId, name: t.name, unit: t.unit, kind: t.kind, direction: 'higher' },
      ...{ bandLow: null, bandHigh: null, plausibleLow: 0, plausibleHigh: null },
      ...{ decimals: number(t.decimals) ?? 1, samplesPerUnit: 1, summary: t.summary, outOf: null, scale: [] },
    };
  });
  const [height, weight] = made.map((t) => t.id);
  const round = (name: string, day: number, traitIds: TraitId[]) => ({ id: newId<RoundId>(), name, day, traitIds }); // prettier-ignore
  return {
    ...plan,
    traits: made,
    primaryTraitId: weight!,
    rounds: [round('Start', 0, [height!]), round('Harvest', 14, [height!, weight!])],
  };
}

/** What stands in each unit as one piece, and isn't used up by the spoon. */
const asPieces: readonly ProductCategory[] = ['container', 'light', 'system', 'accessory'];

const once = {
  packId: null,
  timesPerUnit: 1,
  stage: '',
  strengthPercent: 100,
  fromDay: null,
  everyDays: null,
};

/** A product's use: one piece of what is put in place, else by its label, where the rate can be worked out. */
function useOf(product: Product, solutionL: number | null, noun: string): ProductUse | null {
  if (asPieces.includes(product.category) && (product.packs[0]?.unit ?? 'piece') === 'piece')
    return { ...once, productId: product.id, amount: 1, unit: 'piece', rateText: '', solutionLPerUnit: null };
  const typed = newUse(product);
  if (typed.amount === '') return null;
  const dose = resolveDose(
    { ...typed, solutionLPerUnit: solutionL === null ? '' : String(solutionL) },
    product,
    usMeasures,
    { areaCm2: null, plants: null, noun },
  );
  if (!dose.ok) return null;
  return { ...once, productId: product.id, ...dose.value };
}

/** What the short way couldn't take over. @param solutionL as it was asked for */
function sayUndosed(undosed: readonly string[], solutionL: number | null): string | null {
  if (undosed.length === 0) return null;
  const feed = solutionL === null ? '' : `, nor are the ${solutionL} L`;
  return `How much of ${listNames(undosed)} each gets isn’t in the plan${feed}: no label in the library says it.`;
}

/**
 * A whole plan from the few answers a reviewer gives most often: kind, contenders, how many of each. What isn't said
 * is left as open as the audit finds it.
 *
 * @returns the plan with its layout, or what is wrong, by field
 */
export function quickPlan(
  input: QuickInput,
  around: Around,
): Result<QuickPlan, Partial<Record<keyof QuickInput, string>>> {
  const names = [...new Set(input.names.map((n) => n.trim()).filter((n) => n !== ''))];
  const protocol = protocolOf(input.protocolId);
  const inLibrary = (name: string) => around.library.find((p) => p.name.toLowerCase() === name.toLowerCase());
  const unread: string[] = [];
  const productOf = (text: string): Product => {
    const whole = inLibrary(text);
    if (whole) return whole;
    const read = nameAndPrice(text, around.currency);
    if (!read.ok) unread.push(read.error);
    const { name, price } = read.ok ? read.value : { name: text, price: null };
    return inLibrary(name) ?? productNamed(name, price, protocol);
  };
  const baseName = protocol?.onBase ? input.base.trim() : '';
  if (protocol?.onBase && baseName === '')
    return err({ base: 'Name the base feed: all get it, and the control gets it alone.' });
  const base = baseName === '' ? null : productOf(baseName);
  const control = input.withWater ? untreatedBeside(protocol) : null;
  // What isn't asked for this kind of trial may have been typed before it was chosen.
  const solutionL = protocol?.compares || protocol?.dry ? null : input.solutionL;
  const products = names.map(productOf).filter((p) => p.name.toLowerCase() !== base?.name.toLowerCase());
  if (unread[0] !== undefined) return err({ names: unread[0] });
  const everything = [...(base ? [base] : []), ...products];
  const added = everything.filter((p) => !around.library.includes(p));
  if (everything.length + Number(control !== null) < 2)
    return err({
      names: control || base ? 'Choose a product, or write a name.' : 'Two at least are compared.',
    });
  const all = [
    ...(control === null ? [] : [control === 'Water' ? 'water' : 'nothing']),
    ...products.map((p) => p.name),
  ];
  const on = input.crop ? ` on ${input.crop}` : '';
  const asks = base
    ? `Is ${base.name}${on} better with ${anyOf(all)} than alone?`
    : `Which does best${on}: ${anyOf(all)}?`;
  const question = input.question || asks.slice(0, 200);
  const blank: Plan = {
    ...blankPlan({
      ...{ id: newId<TrialId>(), question, crop: input.crop, unitNoun: protocol?.unitNoun ?? 'tray' },
      code: proposeCode(input.crop, `${products.map((p) => p.name).join(' ')} trial`, around.taken),
      ...{ startDate: around.today, currency: around.currency },
    }),
    ...beginsIn(around.units),
    prediction: input.prediction || NOTHING_WRITTEN,
    smallestDifference: { kind: 'percent', value: 10 },
    ...(control === null && !base && { peers: true }),
  };
  const filled = protocol ? applyProtocol(blank, protocol) : plainTraits(blank);
  const uses = new Map(everything.map((p) => [p, useOf(p, solutionL, filled.unitNoun)]));
  const begun = base ? additivesOn(base, products, input.crop) : contendersOf(products, control, input.crop);
  const treatments = begun.map((t, i) => {
    const own = products[i - Number(base !== null || control !== null)];
    const given = [base, own].flatMap((p) => (p ? (uses.get(p) ?? []) : []));
    return { ...t, products: given };
  });
  const plan: Plan = {
    ...filled,
    treatments,
    products: everything.filter((p) => uses.get(p)),
    areas: [
      {
        ...{ id: newId<AreaId>(), name: sentenceCase(protocol?.area ?? 'shelf') },
        kind: protocol?.area ?? 'shelf',
        ...{ rows: input.each, columns: Math.min(40, treatments.length) },
        ...{ widthCm: null, depthCm: null, reserved: [] },
      },
    ],
    design: { kind: 'rcbd', replicates: input.each, seed: 1 + (Number.parseInt(blank.id.slice(-6), 16) % 1e6 || 0), settings: [], balance: null }, // prettier-ignore
  };
  const units = layOut(plan, plan.design!);
  if (!units.ok) return err({ each: describeLayoutError(units.error) });
  const undosed = everything.filter((p) => !uses.get(p)).map((p) => p.name);
  return ok({
    plan: { ...plan, units: units.value, winning: winningBy(plan) },
    added,
    undosed,
    open: sayUndosed(undosed, solutionL),
  });
}
