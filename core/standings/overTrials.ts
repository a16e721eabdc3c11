import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import { outcomeOf, soleControl } from '../account/outcomes';
import { type DirectIndirect, directIndirect, sayDirectIndirect } from './directIndirect';
import type { Plan, Treatment } from '../model/plan';
import { planIndex } from '../plan/planIndex';
import { formatFigure, listNames } from '../quantity/format';
import { type NetworkMeta, type TrialArm, networkMeta } from '../stats/networkMeta';
import type { Finding } from '../account/finding';

/** What a contender without any product is called over trials. */
export const NOTHING = 'nothing added';

/** A trial as the standings take it. */
export interface StandingTrial {
  id: string;
  title: string;
  crop: string;
  plan: Plan;
  finding: Finding;
  /** what breaks its fairness and wasn't accepted, in words; empty where nothing does */
  faults: string[];
}

/** A trial that can't be pooled, and why. */
interface NotPooled {
  id: string;
  title: string;
  why: string;
}

export interface Standings {
  /** null where nothing could be pooled */
  meta: NetworkMeta | null;
  /** products that trials with the reference and others by way of a third both tell of */
  split: DirectIndirect[];
  reference: string | null;
  /** products compared directly, in how many trials */
  edges: { a: string; b: string; trials: number }[];
  /** products that share no path of trials with the reference: not ranked against it */
  apart: string[];
  notPooled: NotPooled[];
  pooled: { id: string; title: string }[];
  /** of one trial alone, what its own finding tells of each product against the reference; null for several */
  told: ReadonlyMap<string, 'above' | 'below' | 'open'> | null;
}

/** What the finding of a trial tells of its products against one of them. */
function toldBy(
  { plan, finding }: StandingTrial,
  reference: string,
): Map<string, 'above' | 'below' | 'open'> {
  const of = (name: string) =>
    finding.analysis.summaries.find((s) => {
      const treatment = planIndex(plan).treatment(s.name);
      return treatment && productsOf(plan, treatment) === name;
    })?.name;
  const base = of(reference);
  const names = plan.treatments.map((t) => productsOf(plan, t));
  return new Map(
    names.map((name) => {
      const id = of(name);
      const outcome = id && base ? outcomeOf(finding, id, base) : undefined;
      const apart = outcome?.verdict === 'better';
      return [name, !apart ? 'open' : outcome.ahead === id ? 'above' : 'below'];
    }),
  );
}

const Z = 1.959963984540054;

/** What a contender is over trials: its products' names. */
export function productsOf(plan: Plan, { products }: Pick<Treatment, 'products'>): string {
  const names = products.map((u) => planIndex(plan).product(u.productId)?.name ?? 'unknown');
  return names.length === 0 ? NOTHING : [...new Set(names)].sort((a, b) => a.localeCompare(b)).join(' + ');
}

/** The arms of one trial: a product each, the control first; or why it can't be pooled. */
function armsOf({ id, plan, finding }: StandingTrial): TrialArm[] | string {
  const { summaries, unitSd, unitDf } = finding.analysis;
  const arms: TrialArm[] = [];
  const control = soleControl(finding);
  const sorted = [...summaries].sort((a, b) => Number(b.name === control) - Number(a.name === control));
  // What units of one contender differ by, blocks off. The network reckons by the normal curve: a spread that few units
  // showed counts for more, so that a trial by itself has the limits of Student's t.
  const shared =
    unitSd !== null && unitDf !== undefined && unitDf > 0 ? (unitSd * tQuantile(0.975, unitDf)) / Z : null;
  for (const s of sorted) {
    const treatment = planIndex(plan).treatment(s.name);
    if (!treatment) continue;
    const name = productsOf(plan, treatment);
    if (arms.some((a) => a.treatment === name))
      return `${name} stands in it twice (other doses or conditions): which of them it is over trials isn’t clear`;
    if (s.sd === null || s.n < 2) return 'one unit of some: there is no spread to weigh it by';
    if (s.sd <= 0) return 'no spread was seen between units';
    if (s.mean <= 0) return 'a mean of 0 has no ratio';
    arms.push({ trial: id, treatment: name, mean: s.mean, sd: shared ?? s.sd, n: s.n });
  }
  return arms.length < 2 ? 'one contender alone has values' : arms;
}

/** The arms of every trial that can be pooled. */
export const pooledArms = (trials: readonly StandingTrial[]): TrialArm[] =>
  trials.flatMap((t) => {
    const own = armsOf(t);
    return typeof own === 'string' ? [] : own;
  });

/**
 * Products over all trials: which were compared with which, and what each does against the reference over all of them.
 * What shares no path of trials with the reference is named, not ranked.
 *
 * @param reference a product's name; null takes what most trials hold, nothing added before all
 */
export function standingsOf(trials: readonly StandingTrial[], reference: string | null = null): Standings {
  const notPooled: NotPooled[] = [];
  const pooled: Standings['pooled'] = [];
  const arms: TrialArm[] = [];
  for (const t of trials) {
    const own = armsOf(t);
    if (typeof own === 'string') notPooled.push({ id: t.id, title: t.title, why: own });
    else {
      arms.push(...own);
      pooled.push({ id: t.id, title: t.title });
    }
  }
  const names = [...new Set(arms.map((a) => a.treatment))];
  const edges = names.flatMap((a, i) =>
    names.slice(i + 1).flatMap((b) => {
      const both = pooled.filter((t) =>
        [a, b].every((n) => arms.some((x) => x.trial === t.id && x.treatment === n)),
      ).length;
      return both > 0 ? [{ a, b, trials: both }] : [];
    }),
  );
  const often = (n: string) => arms.filter((a) => a.treatment === n).length;
  const against =
    reference !== null && names.includes(reference)
      ? reference
      : names.includes(NOTHING)
        ? NOTHING
        : ([...names].sort((a, b) => often(b) - often(a))[0] ?? null);
  if (against === null)
    return { meta: null, reference: null, split: [], edges, apart: [], notPooled, pooled, told: null };
  const reached = new Set([against]);
  for (let grown = true; grown;) {
    grown = false;
    for (const e of edges) {
      if (reached.has(e.a) === reached.has(e.b)) continue;
      reached.add(e.a);
      reached.add(e.b);
      grown = true;
    }
  }
  const linked = arms.filter((a) => reached.has(a.treatment));
  const made = networkMeta(linked, against);
  return {
    meta: made.ok ? made.value : null,
    reference: against,
    split: names.flatMap((n) => {
      const split = n === against ? null : directIndirect(linked, n, against);
      return split ? [split] : [];
    }),
    edges,
    apart: names.filter((n) => !reached.has(n)),
    notPooled,
    pooled,
    told:
      pooled.length === 1
        ? toldBy(
            trials.find((t) => t.id === pooled[0]!.id)!,
            against,
          )
        : null,
  };
}

/** What the standings say, in sentences. */
export function sayStandings({ meta, reference, split, edges, apart, pooled, told }: Standings): string[] {
  if (!meta || reference === null) return ['Nothing can be pooled yet.'];
  const out: string[] = [];
  const others = meta.products.filter((p) => p.name !== reference);
  // One trial says what its own finding says, with its own multiplicity; several are pooled.
  const stand = (p: (typeof others)[number]) =>
    told?.get(p.name) ?? (p.low > 0 ? 'above' : p.high < 0 ? 'below' : 'open');
  const [above, below, open] = (['above', 'below', 'open'] as const).map((s) =>
    others.filter((p) => stand(p) === s),
  ) as [typeof others, typeof others, typeof others];
  const be = (n: number) => (n === 1 ? 'is' : 'are');
  if (above.length > 0)
    out.push(
      `${listNames(above.map((p) => p.name))} ${be(above.length)} above ${reference} over ${pooled.length === 1 ? 'the one trial' : `${pooled.length} trials`}.`,
    );
  if (below.length > 0) out.push(`${listNames(below.map((p) => p.name))} ${be(below.length)} below it.`);
  if (open.length > 0) out.push(`${listNames(open.map((p) => p.name))}: can’t be told from ${reference}.`);
  const varies = 100 * (Math.exp(Math.sqrt(meta.tau2)) - 1);
  out.push(
    pooled.length < 2
      ? 'One trial says nothing of how a product does elsewhere.'
      : varies < 0.5
        ? 'From trial to trial the effects vary no more than chance explains.'
        : `From trial to trial a product’s effect varies by about ${formatFigure(varies, 0)} %.`,
  );
  const indirect = others.filter(
    (p) => !edges.some((e) => [e.a, e.b].includes(p.name) && [e.a, e.b].includes(reference)),
  );
  if (indirect.length > 0)
    out.push(
      `${listNames(indirect.map((p) => p.name))} never stood beside ${reference}: what is said of ${indirect.length === 1 ? 'it' : 'them'} goes by way of others.`,
    );
  out.push(...split.map(sayDirectIndirect));
  if (apart.length > 0)
    out.push(`${listNames(apart)}: no path of trials to ${reference}, so not ranked against it.`);
  return out;
}
