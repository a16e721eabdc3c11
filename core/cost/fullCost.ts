import { givenDivisor } from '../log/givenDivisor';
import type { TrialState } from '../log/state';
import type { CostSettings } from '../model/judgement';
import type { Treatment } from '../model/plan';
import { planIndex } from '../plan/planIndex';
import type { UnitId } from '../model/ids';
import type { Money } from '../quantity/money';
import { minutesByUnit } from './workLogged';
import { mean } from '../stats/moments';

/** One thing a unit of a contender took. */
interface FullCostLine {
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
  /** what each of its units took, minor units, in the order of the plan: the same for all where nothing tells them apart */
  each: number[];
  /** what differs between its units by the log: products, water, work … */
  differs: string[];
}

/**
 * What one unit of a contender took: products by what was given, and whatever else is counted. What lasts several seasons
 * is spread over them; its outlay stands beside.
 *
 * @param products money for the products of one unit, and for each of its units where the log tells them apart
 * @param days length of the trial, for the lamp
 * @example fullCost(state, treatment, { minor: 40, currency: 'EUR' }, settings, 35).perUnit
 */
export function fullCost(
  state: TrialState,
  treatment: Treatment,
  products: Money & { byUnit?: ReadonlyMap<UnitId, number> | null },
  settings: CostSettings,
  days: number,
): FullCost {
  const units = planIndex(state.plan).unitsOf(treatment.id);
  const lines: FullCostLine[] = [];
  const unknown: string[] = [];
  const each = units.map(() => 0);
  const differs: string[] = [];
  const addEach = (name: string, minors: readonly number[]) => {
    lines.push({ name, minor: mean(minors), outlay: 0 });
    minors.forEach((m, i) => (each[i]! += m));
    if (Math.max(...minors) - Math.min(...minors) > 1e-9) differs.push(name);
  };
  const addAlike = (line: FullCostLine) => {
    lines.push(line);
    each.forEach((_, i) => (each[i]! += line.minor));
  };
  const { byUnit } = products;
  const all = units.map((u) => byUnit?.get(u.id) ?? 0);
  // Feedings that name units of another contender leave the shares to the sum alone.
  if (
    byUnit &&
    units.length > 0 &&
    Math.abs(mean(all) - products.minor) <= 1e-6 * Math.max(1, products.minor)
  )
    addEach('products', all);
  else addAlike({ name: 'products', minor: products.minor, outlay: 0 });
  const metered = (name: string, per: 'water' | 'energy', price: number | null) => {
    if (price === null) return;
    const amounts = units.map((u) => givenDivisor(state, u, { per }, days));
    const known = amounts.filter((a) => a !== null);
    if (units.length === 0 || known.length < amounts.length) unknown.push(name);
    else
      addEach(
        name,
        known.map((a) => a * price),
      );
  };
  metered('water', 'water', settings.waterMinorPerL);
  metered('electricity', 'energy', settings.kWhMinor);
  const { hourMinor } = settings;
  const logged = settings.workAsLogged === true ? minutesByUnit(state) : null;
  if (hourMinor !== null && settings.workAsLogged === true) {
    if (logged === null || units.length === 0) unknown.push('work');
    else
      addEach(
        'work',
        units.map((u) => ((logged.get(u.id) ?? 0) * hourMinor) / 60),
      );
  } else if (hourMinor !== null && settings.minutesPerUnit !== null)
    addAlike({ name: 'work', minor: (settings.minutesPerUnit / 60) * hourMinor, outlay: 0 });
  for (const line of settings.lines) {
    if (line.treatmentIds.length > 0 && !line.treatmentIds.includes(treatment.id)) continue;
    const share = line.minor / line.sharedBy;
    addAlike({ name: line.name, minor: share / line.seasons, outlay: line.seasons > 1 ? share : 0 });
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
    each,
    differs,
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
