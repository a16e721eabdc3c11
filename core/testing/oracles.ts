import tCdf from '@stdlib/stats-base-dists-t-cdf';
import type { Finding } from '../account/finding';
import { kindOf } from '../model/traitKinds';
import type { Fact, Statement } from '../say/statement';
import type { Untidy } from './untidy';

/**
 * Whether what a sentence claims is true, worked out from the raw log by other ways than the app's: figures by plain
 * loops over the lines, tests by ordinary least squares on dummy columns, costs from the pack's price.
 */

interface Raw {
  /** experimental unit: tent where plants share one, else the unit */
  unit: string;
  arm: string;
  block: string;
  figure: number;
}

/** One figure a unit from the lines of the rounds a finding says it rests on. */
export function rawFigures({ trial }: Untidy, finding: Finding): Raw[] {
  const { plan, log } = trial;
  const { trait } = finding;
  const rounds = new Map(plan.rounds.map((r) => [r.id as string, r.day]));
  const counted = new Set(finding.basis.rounds.map((r) => r.id as string));
  const lost = new Set(log.flatMap((e) => (e.kind === 'mixedUp' ? e.unitIds.map(String) : [])));
  const values = new Map<string, Map<string, number>>();
  for (const e of log) {
    if ((e.kind !== 'measurement' && e.kind !== 'weighing') || e.traitId !== trait.id) continue;
    if (e.roundId === null || lost.has(e.unitId)) continue;
    // Of “days until” every look up to the last one counts: it had happened when it was first seen.
    const until = Math.max(...finding.basis.rounds.map((r) => r.day));
    if (trait.kind === 'time' ? rounds.get(e.roundId)! > until : counted.size > 0 && !counted.has(e.roundId))
      continue;
    const value = e.kind === 'weighing' ? e.grossG - e.tareG : e.value;
    const own = values.get(e.unitId) ?? new Map<string, number>();
    own.set(`${e.roundId}/${e.sample ?? 0}`, value);
    values.set(e.unitId, own);
  }
  const perUnit = plan.units.flatMap((u) => {
    const own = values.get(u.id);
    if (!own) return [];
    const byRound = new Map<string, number[]>();
    for (const [key, v] of own) {
      const round = key.split('/')[0]!;
      byRound.set(round, [...(byRound.get(round) ?? []), v]);
    }
    const n = Math.max(1, plan.cropsWithin.length) * trait.samplesPerUnit;
    const crops = plan.cropsWithin.length;
    const figures = [...byRound]
      .sort((a, b) => rounds.get(a[0])! - rounds.get(b[0])!)
      .flatMap(([, list]) => {
        // Weights of several crops are added: a unit without one of them has no figure.
        if (trait.kind === 'weighing' && crops > 1)
          return list.length < n ? [] : [list.reduce((s, x) => s + x, 0)];
        return [list.reduce((s, x) => s + x, 0) / list.length];
      });
    if (figures.length === 0) return [];
    const figure = trait.summary === 'sum' ? figures.reduce((s, x) => s + x, 0) : figures.at(-1)!;
    return [{ u, figure }];
  });
  const tents = plan.wholeSystem;
  const by = new Map<string, Raw & { n: number }>();
  for (const { u, figure } of perUnit) {
    const unit = tents ? `${u.position.areaId}` : u.id;
    const there = by.get(unit);
    if (there) {
      there.figure = (there.figure * there.n + figure) / (there.n + 1);
      there.n += 1;
    } else by.set(unit, { unit, arm: u.treatmentId, block: String(u.block ?? ''), figure, n: 1 });
  }
  const band = (x: number) =>
    trait.direction === 'band' ? Math.max(0, trait.bandLow! - x, x - trait.bandHigh!) : x;
  const raw = [...by.values()].map((x) => ({ ...x, figure: band(x.figure) }));
  const blocked = raw.every((x) => x.block !== '') && !tents;
  return raw.map((x) => (blocked ? x : { ...x, block: '' }));
}

/** Solves a small positive-definite system by Gauss–Jordan with pivoting; null where it is singular. */
function inverse(matrix: number[][]): number[][] | null {
  const n = matrix.length;
  const a = matrix.map((row, i) => [...row, ...row.map((_, j) => (i === j ? 1 : 0))]);
  for (let c = 0; c < n; c++) {
    let p = c;
    for (let i = c + 1; i < n; i++) if (Math.abs(a[i]![c]!) > Math.abs(a[p]![c]!)) p = i;
    if (Math.abs(a[p]![c]!) < 1e-9) return null;
    [a[c], a[p]] = [a[p]!, a[c]!];
    const d = a[c]![c]!;
    a[c] = a[c]!.map((x) => x / d);
    for (let i = 0; i < n; i++) {
      if (i === c) continue;
      const f = a[i]![c]!;
      a[i] = a[i]!.map((x, j) => x - f * a[c]![j]!);
    }
  }
  return a.map((row) => row.slice(n));
}

/** p of a pair, not shared out, and the difference, by least squares on dummy columns; null without a residual. */
export function plainTest(
  raw: readonly Raw[],
  a: string,
  b: string,
): { p: number; difference: number; df: number; t: number } | null {
  const arms = [...new Set(raw.map((x) => x.arm))];
  const blocks = [...new Set(raw.map((x) => x.block))];
  const rows = raw.map((x) => [
    ...arms.map((arm) => Number(arm === x.arm)),
    ...blocks.slice(1).map((k) => Number(k === x.block)),
  ]);
  const columns = arms.length + blocks.length - 1;
  const xtx = Array.from({ length: columns }, (_, i) =>
    Array.from({ length: columns }, (_, j) => rows.reduce((s, row) => s + row[i]! * row[j]!, 0)),
  );
  const inv = inverse(xtx);
  if (!inv) return null;
  const xty = Array.from({ length: columns }, (_, i) =>
    rows.reduce((s, row, m) => s + row[i]! * raw[m]!.figure, 0),
  );
  const beta = inv.map((row) => row.reduce((s, x, j) => s + x * xty[j]!, 0));
  const rss = raw.reduce(
    (s, x, m) => s + (x.figure - rows[m]!.reduce((t, v, j) => t + v * beta[j]!, 0)) ** 2,
    0,
  );
  const df = raw.length - columns;
  const [i, j] = [arms.indexOf(a), arms.indexOf(b)];
  if (df < 1 || i < 0 || j < 0) return null;
  const variance = (rss / df) * (inv[i]![i]! + inv[j]![j]! - 2 * inv[i]![j]!);
  const difference = beta[i]! - beta[j]!;
  if (!(variance > 1e-12)) return null;
  const t = Math.abs(difference) / Math.sqrt(variance);
  return { p: 2 * tCdf(-t, df), difference, df, t };
}

/** What is likelier than this by every plain test can't be told apart: spreads lean on each other. */
const LEANING = 0.1;
/** What is as sure as this by plain tests must be told apart. */
const SURE = 0.002;

/** Why a fact isn't true; null where it is, or where nothing can be said against it. */
export function falsehood(fact: Fact, untidy: Untidy, finding: Finding): string | null {
  const { plan } = untidy.trial;
  const raw = rawFigures(untidy, finding);
  const has = (id: string) => raw.some((x) => x.arm === id);
  const n = (id: string) => raw.filter((x) => x.arm === id).length;
  const { trait } = finding;
  const sign = trait.direction === 'higher' ? 1 : -1;
  const mean = (id: string) => {
    const own = raw.filter((x) => x.arm === id);
    return own.reduce((s, x) => s + x.figure, 0) / own.length;
  };
  const linear = finding.analysis.method === 'linear';
  const pairs = Math.max(
    1,
    (finding.analysis.summaries.length * (finding.analysis.summaries.length - 1)) / 2,
  );
  /** by the spread of all, and by that of the two alone, with the freedom of the smaller: spreads needn't be alike */
  const tests = (a: string, b: string) => {
    if (!linear) return [];
    const own = plainTest(raw.filter((x) => x.arm === a || x.arm === b), a, b); // prettier-ignore
    const df = Math.min(n(a), n(b)) - 1;
    return [plainTest(raw, a, b), own, own && df > 0 ? { ...own, df, p: 2 * tCdf(-own.t, df) } : null];
  };
  const test = (a: string, b: string, which: (...p: number[]) => number = Math.max) => {
    const known = tests(a, b).filter((t) => t !== null);
    return known.length === 0 ? null : { ...known[0]!, p: which(...known.map((t) => t.p)) };
  };
  switch (fact.is) {
    case 'better': {
      if (!has(fact.a) || !has(fact.b)) return 'one of the two has no value';
      if (raw.length <= new Set(raw.map((x) => x.arm)).size) return 'one unit of each, and a winner';
      if (n(fact.a) < 2 || n(fact.b) < 2) return 'a winner from one unit';
      if (!linear) {
        // Days, scores and counts by their ranks: the side that is ahead must have the better mean rank.
        const both = raw.filter((x) => x.arm === fact.a || x.arm === fact.b);
        const wins = (id: string) =>
          both.reduce(
            (s, x) =>
              s +
              (x.arm !== id
                ? 0
                : both.filter((y) => y.arm !== id && sign * (x.figure - y.figure) > 0).length),
            0,
          );
        if (trait.kind === 'time') return null;
        // Ranks, shares and rates have tests of their own; what they tell apart a plain test finds at least likely.
        const plain = plainTest(raw, fact.a, fact.b);
        if (plain && plain.p > 0.3) return `p of a plain test is ${plain.p.toFixed(2)}`;
        return wins(fact.a) >= wins(fact.b) || sign * (mean(fact.a) - mean(fact.b)) > 0
          ? null
          : 'the other one is ahead';
      }
      const t = test(fact.a, fact.b, Math.min);
      if (!t) return 'there is no spread to test with';
      if (sign * t.difference <= 0) return 'the other one is ahead';
      return t.p > LEANING ? `p is ${t.p.toFixed(3)} before it is shared out` : null;
    }
    case 'notTold': {
      if (!has(fact.a) || !has(fact.b)) return 'one of the two has no value: that isn’t “too close”';
      const t = test(fact.a, fact.b);
      if (n(fact.a) < 2 || n(fact.b) < 2) return 'one unit of one of the two: that isn’t “too close”';
      if (linear && !t) return 'nothing can be tested: that isn’t “too close”';
      // Spreads lean on each other: what both plain tests find unlikely isn't sure by the method's own.
      return t && t.p * pairs < SURE ? `p is ${(t.p * pairs).toFixed(4)} over all pairs` : null;
    }
    case 'untested': {
      const t = test(fact.a, fact.b);
      // Figures alike to the last one recorded have rounding alone between them.
      const enough = n(fact.a) > 1 && n(fact.b) > 1;
      return finding.analysis.spread === 'shown' && enough && t ? 'it can be tested' : null;
    }
    case 'alike':
      return has(fact.a) && has(fact.b) ? null : 'one of the two has no value';
    case 'leads': {
      if (!has(fact.a)) return 'it has no value';
      const beaten = [...new Set(raw.map((x) => x.arm))].find((b) => {
        const t = b === fact.a || n(b) < 2 || !sameGround(untidy, fact.a, b) ? null : test(b, fact.a);
        return t && sign * t.difference > 0 && t.p * pairs < SURE;
      });
      return beaten === undefined ? null : `${beaten} is better`;
    }
    case 'figure':
      return has(fact.a) ? null : 'it has no value';
    case 'noFigure':
      return has(fact.a) ? 'it has a value' : null;
    case 'units':
      return n(fact.a) === fact.n ? null : `it has ${n(fact.a)}`;
    case 'noControl': {
      if (plan.peers) return null;
      const controls = plan.treatments.filter((t) => t.role === 'untreated');
      return controls.some((t) => has(t.id)) && raw.some((x) => !controls.some((c) => c.id === x.arm))
        ? 'there is a control with values'
        : null;
    }
    case 'control':
      return plan.peers ? 'equals have none' : has(fact.a) ? null : 'the control has no value';
    case 'given': {
      const dosed = plan.treatments.filter((t) => t.products.length > 0);
      const whole = dosed.every((t) => {
        const l = untidy.logged.get(t.id)!;
        return l.days >= 0.9 * l.planned;
      });
      return (fact.by === 'log') === whole ? null : `the log is ${whole ? 'whole' : 'not whole'}`;
    }
    case 'costs': {
      const t = plan.treatments.find((x) => x.id === fact.a)!;
      const spare = untidy.logged.get(fact.a)!;
      const planned = t.products.reduce((s, u) => {
        const pack = plan.products.find((p) => p.id === u.productId)!.packs[0]!;
        return s + ((u.amount / 1000) * u.timesPerUnit * pack.priceMinor) / pack.size;
      }, 0);
      const whole = plan.treatments.filter((x) => x.products.length > 0).every((x) => untidy.logged.get(x.id)!.days >= 0.9 * untidy.logged.get(x.id)!.planned); // prettier-ignore
      const wanted = whole ? (planned * 1.1 * spare.days) / Math.max(1, spare.planned) : planned;
      return Math.abs(wanted - fact.minor) < 1e-6 * Math.max(1, wanted) ? null : `it costs ${wanted}`;
    }
    case 'best': {
      const held = finding.against.find((o) => o.id === fact.a);
      if (!held) return 'it is held against nothing';
      return falsehood({ is: 'better', a: fact.a, b: held.control }, untidy, finding);
    }
    case 'round':
    case 'firstOf100':
      return null;
  }
}

/** Whether two arms stand on one ground: not two species. */
function sameGround({ trial: { plan } }: Untidy, a: string, b: string): boolean {
  const species = (id: string) => plan.treatments.find((t) => t.id === id)?.levels.Species ?? '';
  return species(a) === species(b);
}

/** Statements that aren't true, each with why. */
export const falseStatements = (said: readonly Statement[], untidy: Untidy, finding: Finding): string[] =>
  said.flatMap((s) =>
    s.facts.flatMap((f) => {
      const why = falsehood(f, untidy, finding);
      return why === null ? [] : [`“${s.text}” (${JSON.stringify(f)}): ${why}`];
    }),
  );

/** What no sentence may hold, whatever it says. */
const never: [RegExp, string][] = [
  [/NaN|undefined|\[object|Infinity/, 'a figure that is none'],
  [/(?<![\d.,])1 (?:times|batches|trays|units|rounds|tasters|days|readings)\b/, 'one in the plural'],
  [/(?<!\.)\.\.(?!\.)|\s,|,,|\(\s*\)| {2,}/, 'a gap in a sentence'],
  [/degrees of freedom\b.*\b1 residual degrees/, 'one in the plural'],
  [/\b\d+\.\d{7,}/, 'more figures than anybody measures'],
];

/** Faults of wording in any text that is shown. */
export const wordFaults = (texts: readonly string[]): string[] =>
  texts.flatMap((text) =>
    never.flatMap(([bad, why]) => (bad.test(text) ? [`${why}: “${text.slice(0, 200)}”`] : [])),
  );

/** Kinds of trait whose figures the plain test is right for. */
export const isPlain = (finding: Finding): boolean =>
  finding.analysis.method === 'linear' && kindOf(finding.trait).observes === 'continuous';
