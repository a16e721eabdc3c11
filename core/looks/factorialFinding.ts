import { figuresOf } from '../analysis/figures';
import { figureOfVisit } from '../analysis/number';
import type { FindingRow } from '../analysis/rows';
import type { Plan } from '../model/plan';
import { kindOf } from '../model/traitKinds';
import { formatFigure, formatP, listNames } from '../quantity/format';
import { unitTable } from '../analysis/unitTable';
import fCdf from '@stdlib/stats-base-dists-f-cdf';
import { pooledCounts, scatterOf } from '../stats/dispersion';
import { mantelHaenszel } from '../stats/mantelHaenszel';
import { holm } from '../stats/holm';
import { type FactorialRow, type FactorialTerm, factorial } from '../stats/factorial';
import type { FindingInput } from '../account/finding';

/** Main effects and interactions of a trait: of factors, of settings of main plots, of crops within units. */
export interface FactorialFinding {
  /** what is crossed with what */
  kind: 'factors' | 'settings' | 'crops';
  names: string[];
  terms: FactorialTerm[];
  alpha: number;
  /** mean of each combination of the first two, as drawn */
  cells: { levels: [string, string]; mean: number; n: number }[];
  /** of k of n: each level of the last factor against its first, over the levels of the others; p by how units scatter */
  over: { level: string; against: string; oddsRatio: number | null; p: number }[];
}

/** Kinds of value whose figures can be added and averaged. */
const asFigures = new Set(['continuous', 'count', 'kOfN']);

function cellsOf(rows: readonly FactorialRow[]): FactorialFinding['cells'] {
  const cells = new Map<string, { levels: [string, string]; values: number[] }>();
  for (const r of rows) {
    const levels: [string, string] = [r.levels[0]!, r.levels[1]!];
    const key = JSON.stringify(levels);
    const cell = cells.get(key) ?? { levels, values: [] };
    cell.values.push(r.value);
    cells.set(key, cell);
  }
  return [...cells.values()].map(({ levels, values }) => ({
    levels,
    mean: values.reduce((s, v) => s + v, 0) / values.length,
    n: values.length,
  }));
}

/** All that is said of one crossing shares the level (Holm). */
function shared(terms: FactorialTerm[]): FactorialTerm[] {
  const known = terms.filter((t) => t.p !== null);
  const p = holm(known.map((t) => t.p!));
  return terms.map((t) => (t.p === null ? t : { ...t, p: p[known.indexOf(t)]! }));
}

function tested(
  kind: FactorialFinding['kind'],
  names: string[],
  rows: FactorialRow[],
  alpha: number,
  main: number | null,
): FactorialFinding[] {
  if (rows.length === 0 || new Set(rows.map((r) => r.levels.join('\n'))).size < 2) return [];
  // Where nothing can be tested, as with one unit of each, the means by level stand for themselves.
  const made = factorial(names, rows, main);
  const terms = made.ok ? shared(made.value) : [];
  return [{ kind, names, terms, alpha, cells: cellsOf(rows), over: [] }];
}

const blockOf = (r: FindingRow) => (r.block === null ? {} : { block: r.block });

/**
 * What a trait says of factors and of what units stand in or carry. Only figures that may be averaged are taken; what a
 * design can't bear (an empty cell, nothing to test against) isn't tested; its means stand.
 *
 * - factors: each unit a value; type II, blocks taken off
 * - settings: given to main plots, which are what they are tested against
 * - crops within units: contenders were given to whole units, which are what they are tested against
 */
export function factorialFindings(input: FindingInput): FactorialFinding[] {
  const { trait, rows, alpha, factors, settings } = input;
  if (!asFigures.has(kindOf(trait).observes) || rows.length === 0) return [];
  const values = figuresOf(rows, trait);
  const out: FactorialFinding[] = [];
  if (factors && factors.names.length <= 3) {
    // An arm beside the factorial has no levels: it takes nothing from those that have.
    const whole = (r: FindingRow) => (factors.levels[r.treatment] ?? ['']).every((l) => l !== '');
    const crossed = rows.flatMap((r, i): FactorialRow[] =>
      whole(r) ? [{ levels: factors.levels[r.treatment]!, ...blockOf(r), value: values[i]! }] : [],
    );
    const over = overStrata({ ...input, rows: rows.filter(whole) });
    out.push(...tested('factors', factors.names, crossed, alpha, null).map((f) => ({ ...f, over })));
  }
  if (settings && rows.every((r) => settings[r.unit] !== undefined && r.block !== null)) {
    const split = rows.map((r, i): FactorialRow => ({
      levels: [settings[r.unit]!, r.treatment],
      plot: r.block!,
      value: values[i]!,
    }));
    out.push(...tested('settings', ['setting', 'contender'], split, alpha, 0));
  }
  out.push(...cropsFinding(input));
  return out;
}

/** Cochran–Mantel–Haenszel on the counts, the levels of all factors but the last as strata, over how much units scatter. */
function overStrata({ trait, rows, factors }: FindingInput): FactorialFinding['over'] {
  if (!factors || kindOf(trait).observes !== 'kOfN') return [];
  const counted = unitTable(rows, trait).map((u) => {
    const levels = factors.levels[u.treatment] ?? [];
    return { k: u.k ?? 0, n: u.n ?? 0, stratum: JSON.stringify(levels.slice(0, -1)), level: levels.at(-1)! };
  });
  const names = [...new Set(rows.map((r) => r.treatment))];
  const scatter = scatterOf(
    counted.map(({ k, n }, i) => ({
      k,
      n,
      group: names.indexOf(rows[i]!.treatment),
      block: rows[i]!.block ?? '',
    })),
  );
  const [against, ...others] = [...new Set(counted.map((c) => c.level))];
  const strata = [...new Set(counted.map((c) => c.stratum))];
  return others.flatMap((level) => {
    const of = (stratum: string, l: string) =>
      pooledCounts(counted.filter((c) => c.stratum === stratum && c.level === l));
    const { oddsRatio, chiSquare } = mantelHaenszel(
      strata.map((s) => ({ treatment: of(s, level), control: of(s, against!) })),
    );
    if (chiSquare === null || scatter.df < 1) return [];
    const p = chiSquare > 0 ? fCdf(scatter.spread / chiSquare, scatter.df, 1) : 1;
    return [{ level, against: against!, oddsRatio, p: Math.min(1, p * others.length) }];
  });
}

/** Contenders × crops, where units carry several. */
function cropsFinding({ trait, rows, alpha }: FindingInput): FactorialFinding[] {
  const split = rows.flatMap((r): FactorialRow[] => {
    const last = r.visits.at(-1);
    const crops = [...new Set(last?.samples.map((s) => s.crop))];
    return crops.flatMap((crop) => {
      const value = figureOfVisit({ samples: last!.samples.filter((s) => s.crop === crop) }, trait);
      return value === null
        ? []
        : [{ levels: [r.treatment, String(crop)], ...blockOf(r), plot: r.unit, value: value / r.divisor }];
    });
  });
  if (trait.summary !== 'last' && rows.some((r) => r.visits.length > 1)) return [];
  return new Set(split.map((s) => s.levels[1])).size > 1
    ? tested('crops', ['contender', 'crop'], split, alpha, 0)
    : [];
}

/** What a level is called: contenders and crops go by their names. @param factor its name, as in `names` */
export const levelName = (
  plan: Plan,
  nameOf: (id: string) => string,
  factor: string,
  level: string,
): string =>
  factor === 'contender'
    ? nameOf(level)
    : factor === 'crop'
      ? (plan.cropsWithin[Number(level)] ?? level)
      : level;

const interactions = (f: FactorialFinding) => f.terms.filter((t) => t.term.includes(':'));

/**
 * Whether one works the same with every level of the other, in a sentence; then what each does over all.
 * @example saysFactorial(f) // 'Additive and Base: what one does depends on the other (p = 0.003).'
 */
export function saysFactorial(f: FactorialFinding): string[] {
  const p = (t: FactorialTerm) => (t.p! < 0.001 ? 'p < 0.001' : `p = ${formatP(t.p!)}`);
  const out: string[] = [];
  if (f.terms.every((t) => t.p === null))
    return ['Nothing is left over to test this against: the means stand for themselves, no judgement.'];
  for (const t of interactions(f)) {
    if (t.p === null) continue;
    const [names, last] = [t.term.split(':'), t.term.split(':').at(-1)!];
    if (f.kind === 'crops') {
      out.push(
        t.p <= f.alpha
          ? `The contenders don’t rank alike on every crop (${p(t)}): look at each crop by itself.`
          : `No sign that contenders rank differently from crop to crop (${p(t)}); with few units only a large change would show.`,
      );
    } else if (f.kind === 'settings') {
      out.push(
        t.p <= f.alpha
          ? `What a contender does depends on the setting of its main plot (${p(t)}).`
          : `No sign that contenders do differently from setting to setting (${p(t)}); with few main plots only a large change would show.`,
      );
    } else {
      const others = listNames(names.slice(0, -1));
      out.push(
        t.p <= f.alpha
          ? `What ${last} does depends on ${others} (${p(t)}): read it level by level.`
          : `No sign that ${last} works differently with different ${others} (${p(t)}); with few units only a large change would show.`,
      );
    }
  }
  const called = (term: string) =>
    ({ contender: 'the contenders', setting: 'the setting', crop: 'the crops' })[term] ?? term;
  for (const t of f.terms.filter((x) => !x.term.includes(':') && x.p !== null)) {
    if (f.kind !== 'factors' && t.term !== 'setting') continue;
    out.push(
      t.p! <= f.alpha
        ? `Over all the rest, ${called(t.term)} made a difference (${p(t)}).`
        : `Over all the rest, no difference by ${called(t.term)} was shown (${p(t)}).`,
    );
  }
  for (const { level, against, oddsRatio, p: value } of f.over) {
    const odds = oddsRatio === null ? 'odds without bound' : `${formatFigure(oddsRatio, 1)} times the odds`;
    out.push(
      `Over all ${listNames(f.names.slice(0, -1))} together: ${level} has ${odds} of ${against} (${value < 0.001 ? 'p < 0.001' : `p = ${formatP(value)}`}, Cochran–Mantel–Haenszel over how much units scatter).`,
    );
  }
  return out;
}
