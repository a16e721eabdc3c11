import { givenDivisor } from '../log/givenDivisor';
import type { TrialState } from '../log/state';
import type { CostSettings } from '../model/judgement';
import type { Treatment } from '../model/plan';
import { planIndex } from '../plan/planIndex';
import type { Money } from './money';

/** One thing a unit of a contender took. */
export interface FullCostLine {
  name: string;
  /** per unit, spread over the seasons it lasts; minor units */
  minor: number;
  /** what must be laid out before the first trial, per unit; minor units */
  outlay: number;
}

/** All that a unit of a contender took, as far as it is counted. */
export interface FullCost {
  lines: FullCostLine[];
  perUnit: Money;
  /** laid out at the start, for what lasts more than one season */
  outlay: Money;
  /** what comes back every time */
  running: Money;
  /** counted, but not known for this contender */
  unknown: string[];
}

const mean = (xs: readonly number[]) => xs.reduce((s, x) => s + x, 0) / xs.length;

/**
 * What one unit of a contender took: products by what was given, and whatever else is counted. What lasts several seasons
 * is spread over them; its outlay stands beside.
 *
 * @param products money for the products of one unit
 * @param days length of the trial, for the lamp
 * @example fullCost(state, treatment, { minor: 40, currency: 'EUR' }, settings, 35).perUnit
 */
export function fullCost(
  state: TrialState,
  treatment: Treatment,
  products: Money,
  settings: CostSettings,
  days: number,
): FullCost {
  const units = planIndex(state.plan).unitsOf(treatment.id);
  const lines: FullCostLine[] = [{ name: 'products', minor: products.minor, outlay: 0 }];
  const unknown: string[] = [];
  const taken = (per: 'water' | 'energy') => {
    const amounts = units.map((u) => givenDivisor(state, u, { per }, days));
    return units.length > 0 && amounts.every((a) => a !== null) ? mean(amounts) : null;
  };
  const metered = (name: string, per: 'water' | 'energy', price: number | null) => {
    if (price === null) return;
    const amount = taken(per);
    if (amount === null) unknown.push(name);
    else lines.push({ name, minor: amount * price, outlay: 0 });
  };
  metered('water', 'water', settings.waterMinorPerL);
  metered('electricity', 'energy', settings.kWhMinor);
  if (settings.minutesPerUnit !== null && settings.hourMinor !== null)
    lines.push({ name: 'work', minor: (settings.minutesPerUnit / 60) * settings.hourMinor, outlay: 0 });
  for (const line of settings.lines) {
    if (line.treatmentIds.length > 0 && !line.treatmentIds.includes(treatment.id)) continue;
    const each = line.minor / line.sharedBy;
    lines.push({ name: line.name, minor: each / line.seasons, outlay: line.seasons > 1 ? each : 0 });
  }
  const { currency } = products;
  const lasting = settings.lines.filter((l) => l.seasons > 1).map((l) => l.name);
  return {
    lines,
    perUnit: { minor: lines.reduce((s, l) => s + l.minor, 0), currency },
    outlay: { minor: lines.reduce((s, l) => s + l.outlay, 0), currency },
    running: {
      minor: lines.filter((l) => !lasting.includes(l.name)).reduce((s, l) => s + l.minor, 0),
      currency,
    },
    unknown,
  };
}

/**
 * After how many times what costs more at the start has paid for itself by running cheaper.
 * @returns null where it never does, or costs no more at the start
 * @example breakEven({ outlay: 3000, running: 10 }, { outlay: 0, running: 220 }) // 15
 */
export function breakEven(
  dear: { outlay: number; running: number },
  cheap: { outlay: number; running: number },
): number | null {
  const [more, saved] = [dear.outlay - cheap.outlay, cheap.running - dear.running];
  return more > 0 && saved > 0 ? Math.ceil(more / saved - 1e-9) : null;
}

/**
 * How many times a product's price may be taken before another is as cheap for each extra gram.
 *
 * @param best what a unit costs over the control without its products, its products, and what it gains
 * @param next cost of one extra gram of the runner-up
 * @returns the factor; null where its products cost nothing or it gains nothing
 * @example priceFactor({ rest: 0, products: 20, gain: 10 }, 4) // 2: at twice the price both cost 4
 */
export function priceFactor(
  best: { rest: number; products: number; gain: number },
  next: number,
): number | null {
  if (!(best.products > 0) || !(best.gain > 0)) return null;
  const factor = (next * best.gain - best.rest) / best.products;
  return factor > 0 ? factor : null;
}
