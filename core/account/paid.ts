import { type GivenCost, givenCost } from '../cost/givenCost';
import { type CostError, type TreatmentCost, treatmentCost } from '../cost/treatmentCost';
import { localDay } from '../log/localDay';
import { type TrialState, ofKind } from '../log/state';
import { amountOf } from '../mixing/density';
import { givenPlan } from '../mixing/givenPlan';
import { feedsOf } from '../mixing/mixesInLog';
import { type Treatment, doseAmount } from '../model/plan';
import { type Result, ok } from '../model/result';
import { planIndex } from '../plan/planIndex';

type Logged = Pick<TrialState, 'plan' | 'byKind'>;

/** What one contender was given, and what it cost. */
export interface PaidLine {
  treatment: Treatment;
  /** products for one unit */
  cost: Result<TreatmentCost, CostError>;
  /** by the log; null where the table goes by the plan */
  given: GivenCost | null;
}

/** A product of which the log doesn't tell enough. */
interface NotLogged {
  treatmentId: string;
  product: string;
  /** days on which it was given by the log, of those that were planned */
  days: number;
  planned: number;
}

/** What was given and paid, on one basis for all contenders of a table. */
export interface Paid {
  basis: 'log' | 'plan';
  lines: ReadonlyMap<string, PaidLine>;
  /** why it isn't the log; empty where it is, or where nothing is given */
  notLogged: NotLogged[];
  /** batches in the log of each contender, whatever the basis */
  batches: ReadonlyMap<string, number>;
}

const known = new WeakMap<Logged, Paid>();

/** Of so much of what was planned the log has to tell before costs go by it (a tenth may be spilt or forgotten). */
const ENOUGH = 0.9;

/** Days on which a product was given by the log: feedings from its batches, and batches nobody wrote a feeding of. */
function daysGiven(state: Logged, treatmentId: string, productId: string): number {
  const days = new Set<string>();
  const stocks = new Map(ofKind(state, 'stock').map((s) => [s.body.batch, s.body.productId as string]));
  for (const mix of ofKind(state, 'mix')) {
    if (mix.body.treatmentId !== treatmentId) continue;
    const holds = mix.body.amounts.some(
      (a) => a.productId === productId || stocks.get(a.fromStock ?? '') === productId,
    );
    if (!holds) continue;
    const fed = feedsOf(state, mix.body);
    for (const e of fed.length > 0 ? fed : [mix]) days.add(localDay(e));
  }
  return days.size;
}

/** How much of a product all units of a contender were to get, and got by the log, in one unit; null: not comparable. */
function amounts(
  state: Logged,
  treatment: Treatment,
  productId: string,
): { planned: number; got: number } | null {
  const product = planIndex(state.plan).product(productId);
  if (!product) return null;
  const units = planIndex(state.plan).unitsOf(treatment.id).length;
  const [first] = treatment.products.filter((u) => u.productId === productId);
  if (!first) return null;
  const inFirst = (amount: number, unit: typeof first.unit): number => {
    const made = amountOf(product, amount, unit, first.unit);
    return made.ok ? made.value : NaN;
  };
  const planned = treatment.products
    .filter((u) => u.productId === productId)
    .reduce(
      (s, u) => s + units * inFirst(doseAmount(u) * (u.solutionLPerUnit ?? 1) * u.timesPerUnit, u.unit),
      0,
    );
  const got = ofKind(state, 'mix')
    .filter((m) => m.body.treatmentId === treatment.id)
    .flatMap((m) => m.body.amounts)
    .filter((a) => a.productId === productId && a.fromStock === undefined)
    .reduce((s, a) => s + inFirst(a.amount, a.unit), 0);
  return Number.isFinite(planned) && Number.isFinite(got) ? { planned, got } : null;
}

/** Products of a contender of which the log tells less than enough. */
function missingOf(state: Logged, treatment: Treatment): NotLogged[] {
  const ids = [...new Set(treatment.products.map((u) => u.productId as string))];
  return ids.flatMap((id): NotLogged[] => {
    const planned = treatment.products
      .filter((u) => u.productId === id)
      .reduce((s, u) => s + u.timesPerUnit, 0);
    const days = daysGiven(state, treatment.id, id);
    const much = amounts(state, treatment, id);
    if (days >= ENOUGH * planned || (days > 0 && much && much.got >= ENOUGH * much.planned)) return [];
    const product = planIndex(state.plan).product(id)?.name ?? 'a product';
    return [{ treatmentId: treatment.id, product, days, planned }];
  });
}

/**
 * What every contender was given and what it cost, on one basis: by the log where it tells of at least nine tenths of the
 * planned days (or amount) of every product of every contender; otherwise by the plan, with its dose changes, for all.
 * What the log has no feedings of counts whole, spare included, and then for all alike.
 *
 * @example paidOf(state).basis // 'plan': one batch of five is in the log
 */
export function paidOf(state: Logged): Paid {
  let paid = known.get(state);
  if (!paid) known.set(state, (paid = workedOut(state)));
  return paid;
}

function workedOut(state: Logged): Paid {
  const { plan } = state;
  const programme = givenPlan(state);
  const dosed = programme.treatments.filter((t) => t.products.length > 0);
  const notLogged = dosed.flatMap((t) => missingOf(state, t));
  const batches = new Map(
    plan.treatments.map((t) => [
      t.id as string,
      ofKind(state, 'mix').filter((m) => m.body.treatmentId === t.id && m.body.amounts.length > 0).length,
    ]),
  );
  const byLog = dosed.length > 0 && notLogged.length === 0;
  const given = new Map(byLog ? dosed.map((t) => [t.id as string, givenCost(state, t)]) : []);
  // A feeding that is written down for some batches alone would leave the spare with the others.
  const whole = [...given.values()].some((g) => g?.ok && g.value.byUnit === null);
  const lines = plan.treatments.map((treatment): [string, PaidLine] => {
    const now = programme.treatments.find((t) => t.id === treatment.id)!;
    const planned = treatmentCost(now, plan.products, plan.currency, plan.mixing.exchange);
    const logged = given.get(treatment.id) ?? null;
    if (logged === null || !planned.ok) return [treatment.id, { treatment, cost: planned, given: null }];
    if (!logged.ok) return [treatment.id, { treatment, cost: logged, given: null }];
    const { wholePerUnit } = logged.value;
    const perUnit = whole ? wholePerUnit : logged.value.perUnit;
    const value = whole ? { ...logged.value, perUnit, byUnit: null } : logged.value;
    return [treatment.id, { treatment, cost: ok({ ...planned.value, perUnit }), given: value }];
  });
  return { basis: byLog ? 'log' : 'plan', lines: new Map(lines), notLogged: byLog ? [] : notLogged, batches };
}
