import { wayWords } from '~core/model/plan';
import { type Money, formatMoney, inCurrency } from '~core/quantity/money';
import { describeCostError, productCost } from '~core/cost/treatmentCost';
import { isByPlant, rateNote } from '~core/mixing/resolveRate';
import { type Plan, ProductUse } from '~core/model/plan';
import { doseAmount } from '~core/model/treatment';
import { type Product, isDosed } from '~core/model/product';
import { amountWords } from '~core/quantity/format';
import { numberIn } from '~core/quantity/number';
import { parseVolume } from '~core/quantity/volume';
import { readQuantity } from '~core/quantity/quantity';
import type { MeasureSystem } from '~core/quantity/units';
import type { TreatmentInput, UseInput } from './contendersForm';
import { inWater, resolveDose } from './dose';

/** What a dose comes to and costs, as it is typed. */
export interface Priced {
  /** what the rate is for a litre or a unit; empty where it says so itself */
  comesTo: string;
  /** why it can't be said */
  fault: string | null;
  perDose: Money | null;
  perUnit: Money | null;
  /** doses in a pack, and what that is bought at */
  bought: string;
}

interface PricedFor {
  measures: MeasureSystem;
  unitNoun: string;
  conditions: Pick<TreatmentInput['conditions'], 'areaPerUnitCm2' | 'plantsPerUnit' | 'containerVolumeL'>;
}

const nothing: Priced = { comesTo: '', fault: null, perDose: null, perUnit: null, bought: '' };
const figure = (text: string | undefined) => (text ? numberIn(text) : null);

/** The area of the same-everything list as it stands in its field; null while it can’t be read. */
export function areaOf(text: string | undefined): number | null {
  const area = text ? readQuantity(text, 'area') : null;
  return area?.ok ? area.value : null;
}

/** The medium of a unit as it stands in its field, L; null while it can’t be read. */
function mediumOf(text: string | undefined, measures: MeasureSystem): number | null {
  const litres = text ? parseVolume(text, measures) : null;
  return litres?.ok ? litres.value : null;
}

/** What of a unit a rate may be for, as far as it is typed. */
export const shapeOf = ({ unitNoun, conditions, measures }: PricedFor) => ({
  noun: unitNoun,
  areaCm2: areaOf(conditions.areaPerUnitCm2),
  plants: figure(conditions.plantsPerUnit),
  mediumL: mediumOf(conditions.containerVolumeL, measures),
});

/** Works a dose out; nothing where it isn't typed yet. */
export function pricedUse(use: Partial<UseInput>, product: Product | undefined, of: PricedFor): Priced {
  if (!product || !use.amount || !use.unit) return nothing;
  const dose = resolveDose(
    {
      ...{ amount: use.amount, unit: use.unit, solutionLPerUnit: use.solutionLPerUnit ?? '' },
      way: use.way ?? 'water',
    },
    product,
    of.measures,
    shapeOf(of),
  );
  if (!dose.ok) return { ...nothing, fault: dose.error.message };
  const parsed = ProductUse.safeParse({
    productId: use.productId,
    packId: use.packId || null,
    ...dose.value,
    timesPerUnit: figure(use.timesPerUnit),
    fromDay: null,
    everyDays: null,
    strengthPercent: figure(use.strengthPercent),
    stage: use.stage ?? '',
  });
  if (!parsed.success) return nothing;
  const { unit, rateText, solutionLPerUnit } = dose.value;
  const note = rateNote(rateText);
  const plants = isByPlant(rateText, of.unitNoun) ? `${of.conditions.plantsPerUnit} plants: ` : '';
  const comesTo =
    rateText &&
    `${plants}${Number(doseAmount(parsed.data).toPrecision(3))} ${unit} ${solutionLPerUnit ? 'per L' : `to each ${of.unitNoun}`}${note && ` (${note})`}`;
  const cost = productCost(parsed.data, product);
  if (!cost.ok) return { ...nothing, comesTo, fault: describeCostError(cost.error) };
  const { perDose, perUnit, dosesPerPack, pack } = cost.value;
  const price = formatMoney({ minor: pack.priceMinor, currency: pack.currency });
  const at = `${amountWords(pack.size, pack.unit)} at ${price}`;
  const doses = Math.floor(dosesPerPack);
  const bought = isDosed(product.category)
    ? `${doses} ${doses === 1 ? 'dose' : 'doses'} in a pack of ${at}`
    : at;
  return { comesTo, fault: null, perDose, perUnit, bought };
}

/** Costs together in the trial's currency; null where one isn't known, or can't be changed into it. */
export function summed(
  all: readonly (Money | null)[],
  { currency, mixing }: Pick<Plan, 'currency' | 'mixing'>,
): Money | null {
  if (all.length === 0) return null;
  let minor = 0;
  for (const m of all) {
    const home = m && inCurrency(m, currency, mixing.exchange);
    if (!home) return null;
    minor += home.minor;
  }
  return { minor, currency };
}

/** A dose as it is written: its rate, or a figure with its unit. */
export const amountText = ({ amount = '', unit }: Partial<UseInput>): string =>
  numberIn(amount) === null || unit === undefined || unit === 'piece' ? amount : `${amount} ${unit}`;

/** The water a dose is given in; empty where it is given as it is. @example waterOf(use) // '0.4 L' */
export const waterOf = ({ solutionLPerUnit = '', way = 'water' }: Partial<UseInput>): string =>
  !inWater(way)
    ? ''
    : numberIn(solutionLPerUnit) === null
      ? solutionLPerUnit.trim()
      : `${solutionLPerUnit.trim()} L`;

/** How much of it, with the share of the rate where it isn't all. @example howMuch(use) // '50 % of 5 mL per L' */
export function howMuch(use: Partial<UseInput>): string {
  const rate = `${amountText(use)}${waterOf(use) !== '' && numberIn(use.amount ?? '') !== null ? ' per L' : ''}`;
  const { strengthPercent = '100' } = use;
  return rate === '' || strengthPercent === '100' || strengthPercent === ''
    ? rate
    : `${strengthPercent} % of ${rate}`;
}

/** The way it is given, where it isn't watered or given as it is. */
export const sayWay = ({ way = 'water' }: Partial<UseInput>): string =>
  way === 'water' || way === 'dry' ? '' : wayWords[way];

/** When it is given. @example whenOf(use) // '4 times from day 3, every 7 days' */
export function whenOf({
  timesPerUnit = '',
  fromDay = '',
  everyDays = '',
  stage = '',
}: Partial<UseInput>): string {
  const times = timesPerUnit === '1' ? 'once' : `${timesPerUnit} times`;
  return [
    `${times}${fromDay === '' ? '' : timesPerUnit === '1' ? ` on day ${fromDay}` : ` from day ${fromDay}`}${
      everyDays === '' || timesPerUnit === '1' ? '' : `, every ${everyDays} days`
    }`,
    ...(stage === '' ? [] : [stage]),
  ].join(', ');
}

/** Uses that are given in water or strewn: those of things that stand in place have no days. */
export const dosedUses = (
  treatments: readonly Pick<TreatmentInput, 'products'>[],
  products: readonly Product[],
): UseInput[] =>
  treatments.flatMap((t) =>
    t.products.filter((u) => {
      const product = products.find((p) => p.id === u.productId);
      return !product || isDosed(product.category) || u.solutionLPerUnit !== '';
    }),
  );

/** What all doses of all contenders share, in words; null where they don’t, or there is one alone. */
export interface Alike {
  when: string | null;
  water: string | null;
}

/** @param uses those that are dosed */
export function alikeOf(uses: readonly Partial<UseInput>[]): Alike {
  const shared = (said: readonly string[]) =>
    said.length > 1 && new Set(said).size === 1 && said[0] !== '' ? said[0]! : null;
  const again = uses.filter((u) => u.way !== 'medium');
  return { when: shared(again.map(whenOf)), water: shared(uses.map(waterOf)) };
}
