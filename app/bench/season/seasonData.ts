import { treatmentCost } from '~core/cost/treatmentCost';
import type { Plan } from '~core/model/plan';
import { dayOfDate } from '~core/plan/days';
import type { Money } from '~core/quantity/money';
import { USUAL_PRIOR, USUAL_TAU2, knowledgeOf, telling } from '~core/season/knowledge';
import { type Goal, type Proposal, type Wishes, proposeSeason } from '~core/season/propose';
import { NOTHING, pooledArms, productsOf, standingsOf } from '~core/standings/overTrials';
import { isDosed } from '~core/model/product';
import { listProducts } from '../../store/products';
import { seasonWishes } from '../../store/seasonWishes';
import { listPlans } from '../../store/trials';
import { todayDate } from '../../ui/clock';
import { currencyHere } from '../../ui/region';
import { type InFamily, standingTrials } from '../standingTrials';
import { SeasonForm, type SeasonTyped, type SeasonWishes, slotsOf } from './seasonForm';

/** A trial as it is proposed, with what it costs and whether it was made. */
export interface Offered extends Proposal {
  crop: string;
  /** products alone; null: of some nobody knows what a unit takes */
  cost: Money | null;
  /** adds up to more than there is */
  overBudget: boolean;
  /** the trial that was made of it */
  madeId: string | null;
}

export interface SeasonData {
  typed: SeasonTyped;
  /** names that can be asked about */
  names: string[];
  crops: string[];
  offered: Offered[];
  /** finished trials that the proposals go by */
  trials: number;
  /** spread from unit to unit, per cent, and whether trials showed it */
  cv: { percent: number; seen: boolean };
  currency: string;
  /** why there is nothing to propose; null: there is */
  nothing: string | null;
}

const median = (xs: readonly number[]) => [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)];
/** Spread from unit to unit where no trial shows one, per cent (practice: the usual spread of a protocol lies about here). */
const USUAL_CV = 12;

const nextMonday = (today: string): string => {
  const day = new Date(`${today}T12:00:00Z`);
  day.setUTCDate(day.getUTCDate() + ((8 - day.getUTCDay()) % 7 || 7));
  return day.toISOString().slice(0, 10);
};

/** What stands in the form before anybody has typed: what the last trial had. */
function begun(plans: readonly Plan[], asked: readonly string[], today: string): SeasonTyped {
  const last = [...plans].sort((a, b) => b.startDate.localeCompare(a.startDate))[0];
  const areas = last?.areas.map((a) => ({ name: a.name, places: String(a.rows * a.columns) })) ?? [];
  const end = last?.rounds.at(-1)?.day;
  const weeks = end === undefined ? '' : String(Math.max(1, Math.ceil(end / 7)));
  const water = last?.treatments.flatMap((t) => t.products).find((u) => u.solutionLPerUnit)?.solutionLPerUnit;
  return {
    ...{ goal: 'best', products: asked.slice(0, 8), withNothing: true, a: '', b: '' },
    crop: last?.crop ?? '',
    areas: areas.length > 0 ? areas : [{ name: 'The shelf', places: '' }],
    ...{ startDate: nextMonday(today), weeks: '', trialWeeks: weeks },
    ...{ hands: '', arms: '6', budget: '', solution: water ? `${water} L` : '' },
  };
}

/** The newest trial of a crop that tells how such a trial is run; else the newest of all. */
export const likeOf = (plans: readonly Plan[], crop: string): Plan | undefined => {
  const newest = [...plans].sort((a, b) => b.startDate.localeCompare(a.startDate));
  return newest.find((p) => p.crop === crop) ?? newest[0];
};

/** What one unit of it took in the newest trial it stood in; null: none, or it can't be told. */
function costOf(name: string, plans: readonly Plan[], currency: string): Money | null {
  if (name === NOTHING) return { minor: 0, currency };
  for (const plan of [...plans].sort((a, b) => b.startDate.localeCompare(a.startDate))) {
    const treatment = plan.treatments.find((t) => productsOf(plan, t) === name);
    const cost = treatment && treatmentCost(treatment, plan.products, plan.currency);
    if (cost?.ok) return cost.value.perUnit;
  }
  return null;
}

/** The trials that count: of the asked crop where that is what is asked, one trait each, nothing broken. */
function counted(standing: readonly InFamily[], wishes: SeasonWishes | null): InFamily[] {
  const families = new Map<string, number>();
  for (const s of standing) families.set(s.family, (families.get(s.family) ?? 0) + 1);
  const family = [...families].sort((a, b) => b[1] - a[1])[0]?.[0];
  const byTrial = new Map<string, InFamily>();
  for (const s of standing) {
    if (s.family !== family || s.faults.length > 0) continue;
    if (wishes?.goal === 'crop' && s.crop.toLowerCase() !== wishes.crop.toLowerCase()) continue;
    if (!byTrial.has(s.id) || s.finding.trait.id === s.plan.primaryTraitId) byTrial.set(s.id, s);
  }
  return [...byTrial.values()];
}

const goalOf = (w: SeasonWishes): Goal =>
  w.goal === 'pair'
    ? { kind: 'pair', a: w.a, b: w.b }
    : w.goal === 'crop'
      ? { kind: 'pair', a: w.a, b: NOTHING }
      : { kind: w.goal };

export async function loadSeason(): Promise<SeasonData> {
  const today = todayDate();
  const [library, plans, kept, standing] = await Promise.all([
    listProducts(),
    listPlans(),
    seasonWishes(),
    standingTrials(today).then((all) => all.flat()),
  ]);
  const inTrials = [...new Set(standing.flatMap((s) => s.plan.treatments.map((t) => productsOf(s.plan, t))))];
  const names = [
    ...new Set([...inTrials, ...library.filter((p) => isDosed(p.category)).map((p) => p.name)]),
  ].filter((n) => n !== NOTHING);
  const crops = [...new Set(plans.map((p) => p.crop).filter(Boolean))];
  const tried = names.filter((n) => inTrials.includes(n));
  const fresh = begun(plans, tried.length > 1 ? tried : names, today);
  const read = SeasonForm.safeParse(kept);
  const wishes = read.success ? read.data : null;
  const typed = wishes ? (kept as SeasonTyped) : fresh;
  const trials = counted(standing, wishes);
  const arms = pooledArms(trials);
  const spreads = arms.map((a) => a.sd / a.mean);
  const cv = median(spreads);
  const like = likeOf(plans, wishes?.crop ?? '');
  const base = {
    ...{ typed, names, crops, trials: telling([NOTHING, ...typed.products], arms).length },
    cv: { percent: cv === undefined ? USUAL_CV : 100 * cv, seen: cv !== undefined },
    currency: like?.currency ?? currencyHere(),
  };
  if (!wishes) return { ...base, offered: [], nothing: null };
  const { meta, pooled } = standingsOf(trials);
  const asked =
    wishes.goal === 'crop' ? [wishes.a] : wishes.goal === 'pair' ? [wishes.a, wishes.b] : wishes.products;
  const withNothing = wishes.withNothing || wishes.goal === 'crop' || asked.includes(NOTHING);
  const all = [...new Set([...(withNothing ? [NOTHING] : []), ...asked])];
  const tau2 = meta && pooled.length >= 3 ? meta.tau2 : USUAL_TAU2;
  const w: Wishes = {
    ...{
      goal: goalOf(wishes),
      among: wishes.goal === 'crop' ? all : asked,
      reference: withNothing ? NOTHING : null,
    },
    ...{ cv: base.cv.percent / 100, tau2, leastEach: 4, mostArms: wishes.arms },
  };
  const slots = slotsOf(wishes);
  const told = telling(all, arms);
  const seen = new Set(told.flatMap((own) => own.map((a) => a.treatment)));
  const proposals = proposeSeason(knowledgeOf(all, arms, { prior: USUAL_PRIOR, tau2 }), slots, w, seen);
  let spent = 0;
  const offered = proposals.map((p): Offered => {
    const each = p.arms.map((n) => costOf(n, plans, base.currency));
    const known = each.every((c) => c !== null && c.currency === base.currency);
    const cost = known
      ? { minor: each.reduce((s, c) => s + c!.minor * p.each, 0), currency: base.currency }
      : null;
    spent += cost?.minor ?? 0;
    return {
      ...p,
      ...{ crop: wishes.crop, cost },
      overBudget: wishes.budget !== null && spent > 100 * wishes.budget,
      madeId: madeOf(p, plans)?.id ?? null,
    };
  });
  const nothing =
    slots.length === 0
      ? 'No trial fits between the first day and the last: a longer season, or a shorter trial.'
      : offered.length === 0
        ? 'Too little room: two contenders take eight places at least, four of each.'
        : null;
  return { ...base, trials: told.length, offered, nothing };
}

/** The trial that was made of a proposal: the same day, the same contenders. */
const madeOf = (p: Proposal, plans: readonly Plan[]): Plan | undefined =>
  plans.find((plan) => {
    if (dayOfDate(p.slot.startDate, plan.startDate) !== 0) return false;
    // What nobody has dosed yet goes by its name.
    const own = plan.treatments
      .map((t) => (t.role === 'test' && t.products.length === 0 ? t.name : productsOf(plan, t)))
      .sort();
    return own.join('|') === [...p.arms].sort().join('|');
  });
