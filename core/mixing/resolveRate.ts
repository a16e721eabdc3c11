import type { MeasureSystem } from '../quantity/units';
import { areaUnits, measureWorth } from '../quantity/units';
import type { OwnMeasure, Product } from '../model/product';
import { type Result, err, ok } from '../model/result';
import { type Rate, type RateError, describeRateError, parseRate } from '../quantity/rate';

/** A rate worked out: grams, millilitres or pieces, for a litre of solution or for a unit as they are. */
interface ResolvedRate {
  low: number;
  high: number;
  unit: 'g' | 'mL' | 'piece';
  per: 'L' | 'unit';
}

type ResolveError =
  | { tag: 'ownMeasure'; name: string }
  | { tag: 'needsTank' }
  | { tag: 'needsArea' }
  | { tag: 'needsPlants'; noun: string }
  | { tag: 'piecesPerVolume' };

function describeResolveError(e: ResolveError): string {
  switch (e.tag) {
    case 'ownMeasure':
      return `How much is one ${e.name}? Weigh or measure it and put it among the product’s own measures.`;
    case 'needsTank':
      return 'How much does the tank hold? Give the solution per unit.';
    case 'needsArea':
      return 'How large is a unit? Give its area under “The same everything else”.';
    case 'needsPlants':
      return `How many plants are in a ${e.noun}? The rate is by the plant.`;
    case 'piecesPerVolume':
      return 'Pieces aren’t shared out by volume of ground; give so many for each unit.';
  }
}

interface Around {
  measures: MeasureSystem;
  ownMeasures: readonly OwnMeasure[];
  /** whether the product is poured: a per cent is then by volume */
  liquid: boolean;
  /** what one filling holds, L; null when not known */
  tankL: number | null;
  /** ground or tray area of a unit, m²; null when not known */
  areaM2: number | null;
  /** what a unit is called, and how many plants are in it; null: nobody has said */
  unitNoun?: string;
  plantsPerUnit?: number | null;
}

/** What surrounds a rate of this product. */
export const aroundProduct = (
  product: Pick<Product, 'form' | 'ownMeasures'>,
  measures: MeasureSystem,
  unit: Pick<Around, 'tankL' | 'areaM2' | 'unitNoun' | 'plantsPerUnit'> = { tankL: null, areaM2: null },
): Around => ({ measures, ownMeasures: product.ownMeasures, liquid: product.form === 'liquid', ...unit });

const baseUnit = { mass: 'g', volume: 'mL', count: 'piece' } as const;

/**
 * Works a rate out in grams, millilitres or pieces per litre or per unit.
 *
 * 1:250 is one part in 250 parts of solution (4 mL/L of a liquid, 4 g/L of a solid), common practice. A per
 * cent without “w/v” or “v/v” is by volume for liquids and grams in 100 mL for the rest. An ounce of a liquid
 * is a fluid ounce.
 *
 * @example resolveRate(12 g / 5 gal) // { low: 0.634, high: 0.634, unit: 'g', per: 'L' }
 */
export function resolveRate(rate: Rate, around: Around): Result<ResolvedRate, ResolveError> {
  if (rate.kind === 'ratio') {
    const perL = (1000 * rate.parts) / rate.inParts;
    return ok({ low: perL, high: perL, unit: around.liquid ? 'mL' : 'g', per: 'L' });
  }
  if (rate.kind === 'percent') {
    const byVolume = rate.basis ? rate.basis === 'v/v' : around.liquid;
    return ok({ low: rate.low * 10, high: rate.high * 10, unit: byVolume ? 'mL' : 'g', per: 'L' });
  }
  const { of, per } = rate;
  let one: { base: number; unit: ResolvedRate['unit'] };
  if (of.kind === 'own') {
    const own = around.ownMeasures.find((m) => m.name.toLowerCase() === of.name.toLowerCase());
    if (!own) return err({ tag: 'ownMeasure', name: of.name });
    one = { base: own.amount, unit: own.unit };
  } else {
    // Labels of liquids print “1 oz per gallon” and mean the fluid ounce (common practice).
    const poured = around.liquid && of.measure.unit === 'oz';
    const meant = poured ? { unit: 'fl oz' as const, system: null } : of.measure;
    const worth = measureWorth(meant, around.measures);
    one = { base: worth.base, unit: baseUnit[worth.dimension] };
  }
  const shared = (times: number, base: ResolvedRate['per']): ResolvedRate => ({
    low: rate.low * one.base * times,
    high: rate.high * one.base * times,
    unit: one.unit,
    per: base,
  });
  if (per === null) return ok(shared(1, 'unit'));
  if (per.kind === 'unit') {
    const plants = plantsMeant(per.noun, around);
    return plants === null
      ? err({ tag: 'needsPlants', noun: around.unitNoun || 'unit' })
      : ok(shared(plants / per.amount, 'unit'));
  }
  if (per.kind === 'volume') {
    const litres = (per.amount * measureWorth(per.measure, around.measures).base) / 1000;
    return ok(shared(1 / litres, 'L'));
  }
  if (per.kind === 'tank') {
    return around.tankL === null ? err({ tag: 'needsTank' }) : ok(shared(1 / around.tankL, 'L'));
  }
  if (one.unit === 'piece' && around.areaM2 === null) return err({ tag: 'piecesPerVolume' });
  if (around.areaM2 === null) return err({ tag: 'needsArea' });
  return ok(shared(around.areaM2 / (per.amount * areaUnits[per.unit]), 'unit'));
}

/** What grows several to a unit. */
const plantNouns = new Set(['plant', 'seedling', 'cutting', 'pod', 'tree', 'basket', 'hole']);

/** “1 cup per plant” goes to a tray of four plants four times; null where nobody has said how many are in it. */
const plantsMeant = (noun: string, { unitNoun, plantsPerUnit }: Around): number | null =>
  plantNouns.has(noun) && noun !== unitNoun?.toLowerCase() ? (plantsPerUnit ?? null) : 1;

/** What a rate is for one of; null where it is none, or for the whole. */
function perOf(text: string) {
  const rate = parseRate(text);
  return rate.ok && 'per' in rate.value ? rate.value.per : null;
}

/** Whether a rate is by the ground. @example isByArea('30 g/m²') // true */
export const isByArea = (text: string): boolean => perOf(text)?.kind === 'area';

/** Whether a rate is by so much water, or a tank of it. @example isByVolume('5 mL/L') // true */
export function isByVolume(text: string): boolean {
  const rate = parseRate(text);
  if (rate.ok && rate.value.kind !== 'amount') return true;
  const kind = perOf(text)?.kind;
  return kind === 'volume' || kind === 'tank';
}

/**
 * Whether a rate is by the plant while a unit is something else, so that plants are counted.
 * @example isByPlant('15 g per plant', 'row section') // true
 */
export function isByPlant(text: string, unitNoun: string): boolean {
  const per = perOf(text);
  return per?.kind === 'unit' && plantNouns.has(per.noun) && per.noun !== unitNoun.toLowerCase();
}

/** What a rate was taken for, where its words leave room. @example rateNote('1 slightly rounded tsp/gal') */
export const rateNote = (text: string): string =>
  /slightly rounded/i.test(text) ? 'a slightly rounded spoon is taken as a level one' : '';

/** Reads and works out a rate in one go; the error is the line that stands at the field. */
export function readRate(text: string, around: Around): Result<ResolvedRate, string> {
  const parsed: Result<Rate, RateError> = parseRate(
    text,
    around.ownMeasures.map((m) => m.name),
  );
  if (!parsed.ok) return err(describeRateError(parsed.error));
  const resolved = resolveRate(parsed.value, around);
  return resolved.ok ? resolved : err(describeResolveError(resolved.error));
}

/** The label's own range in g, mL or pieces; null where it has none that can be worked out. */
export function labelRange(
  product: Pick<Product, 'form' | 'ownMeasures' | 'labelRate' | 'labelMeasures'>,
  unit?: { tankL: number | null; areaM2: number | null },
): ResolvedRate | null {
  if (product.labelRate === '') return null;
  const read = readRate(product.labelRate, aroundProduct(product, product.labelMeasures, unit));
  return read.ok ? read.value : null;
}
