import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';
import { ok } from '../../model/result';
import { formatSignificant, sayP } from '../../quantity/format';
import {
  type Seen,
  excessEvents,
  kaplanMeier,
  logRank,
  logRankScores,
  medianTime,
} from '../../stats/survival';
import { MOST_SWAPPED, swappedApart } from '../../stats/swapping';
import type { Analysis, AnalysisInput, Method, Summary } from '../analysis';
import { type Contrast, agreeing } from '../contrast';
import { allHappened, seenOf } from '../number';
import { linearModel } from './linearModel';
import {
  byBonferroni,
  byClosedTesting,
  canTell,
  closedP,
  comparedNames,
  contrastsOf,
  familyOf,
  inBlocks,
} from './pairwise';

interface SeenUnit extends Seen {
  treatment: string;
  block: string;
}

/** p of groups: log-rank scores among these alone, handed out inside blocks. */
const logRankApart = (
  units: readonly SeenUnit[],
  names: readonly string[],
  base: string | null,
): number | null => {
  const these = units.filter((u) => names.includes(u.treatment));
  const scores = logRankScores(these);
  return swappedApart(
    these.map((u, i) => ({ group: names.indexOf(u.treatment), block: u.block, score: scores[i]! })),
    base === null || !names.includes(base) ? null : names.indexOf(base),
  );
};

function contrastOf(
  units: readonly SeenUnit[],
  [a, b]: readonly [string, string],
  { family, alpha, p }: { family: number; alpha: number; p: number | null },
): Contrast {
  const [of, against] = [a, b].map((name) => units.filter((u) => u.treatment === name)) as [
    SeenUnit[],
    SeenUnit[],
  ];
  const { excess, variance } = excessEvents(of, against);
  // Peto's estimate: how much faster it happens in a; ahead in time is the unit it happens to later.
  const faster = variance > 0 ? excess / variance : 0;
  const later = (log: number) => 1 / (1 + Math.exp(log));
  const base = { a, b, scale: 'superiority' as const, estimate: later(faster), percent: null };
  if (p === null || variance <= 0) return { ...base, low: null, high: null, p: null };
  const half = normalQuantile(1 - alpha / family / 2, 0, 1) / Math.sqrt(variance);
  const limits = { estimate: base.estimate, low: later(faster + half), high: later(faster - half) };
  return { ...base, ...agreeing('superiority', limits, p, alpha), p };
}

function summaryOf(name: string, units: readonly SeenUnit[], alpha: number): Summary {
  const times = units.map((u) => u.time);
  const { median, low, high } = medianTime(kaplanMeier(units), alpha);
  const happened = units.filter((u) => u.happened).length;
  const [until, mean] = [Math.max(...times), times.reduce((s, t) => s + t, 0) / times.length];
  const limits = units.length > 1 && low !== null && high !== null;
  return {
    name,
    n: units.length,
    mean,
    // Not reached: after all that was seen, for the order alone.
    estimate: median ?? until + 1,
    ...(median === null && { shown: `not by day ${until}` }),
    low: limits ? low : null,
    high: limits ? high : null,
    sd:
      units.length > 1
        ? Math.sqrt(times.reduce((s, t) => s + (t - mean) ** 2, 0) / (units.length - 1))
        : null,
    min: Math.min(...times),
    max: until,
    counted: `${happened}/${units.length} by day ${until}`,
  };
}

/** Days until something happened; a unit it hadn't happened to is known to take longer, and given no day. */
export const daysUntil: Method = {
  id: 'times',
  name: 'days until, by curves',
  figure: 'median day',
  accepts: ['event'],
  analyse: (input) => {
    const names = comparedNames(input);
    if (!names.ok) return names;
    // Days that are all known are figures.
    if (input.rows.every(allHappened)) return linearModel.analyse(input);
    return ok(analysed(input, names.value));
  },
};

function analysed(input: AnalysisInput, names: readonly string[]): Analysis {
  const { alpha, control, peers, rows } = input;
  const blocked = inBlocks(rows);
  const units = rows.flatMap((r): SeenUnit[] => {
    const seen = seenOf(r);
    return seen ? [{ ...seen, treatment: r.treatment, block: blocked ? r.block! : '' }] : [];
  });
  const own = (name: string) => units.filter((u) => u.treatment === name);
  const numbered = units.map((u) => ({ group: names.indexOf(u.treatment), block: u.block }));
  const tells = canTell(numbered, names, input);
  const p = closedP(names, input, (set) => {
    if (set.length === 2 && !tells(set[0]!, set[1]!)) return null;
    return logRankApart(
      units,
      set.map((i) => names[i]!),
      peers ? null : control,
    );
  });
  const { versusControl, pairs } = contrastsOf(names, input, (a, b, family) =>
    contrastOf(units, [a, b], { family, alpha, p: p(a, b) }),
  );
  const alone = names.every((n) => own(n).length === 1);
  const overall = logRank(names.map(own));
  const all =
    overall.chiSquare === null
      ? 'nothing to test'
      : `log-rank χ²(${overall.df}) = ${formatSignificant(overall.chiSquare, 3)}, ${sayP(overall.p!)}`;
  const never = units.filter((u) => !u.happened).length;
  return {
    method: 'times',
    alpha,
    control,
    spread: pairs.some((c) => c.low !== null) ? 'shown' : alone ? 'oneEach' : 'tooFew',
    summaries: names.map((n) => summaryOf(n, own(n), alpha)),
    versusControl,
    pairs,
    assumptions: [
      { what: 'units handed out by chance', holds: null, seen: 'by the layout, not by the values' },
      {
        what: 'one is ahead by as much early as late',
        holds: null,
        seen: 'for the size of the effect alone',
      },
    ],
    unitSd: null,
    smallPrint: `Kaplan–Meier on ${units.length} units${never > 0 ? `, ${never} of them without it when last looked at` : ''}; ${all}. Medians with log-log limits (Brookmeyer and Crowley 1982). Pairs: log-rank, p from swapping units ${blocked ? 'inside blocks ' : ''}in every possible way where there are up to ${MOST_SWAPPED.toLocaleString('en')}, else, and of more than two the largest difference, by the normal curve; ${byClosedTesting}. Share of pairs in which one takes longer by Peto’s estimate, ${byBonferroni(familyOf(names, peers))}; where the two part, the limit towards five of ten is the test’s. Days are those of the visits: it happened between a visit and the one before.`,
  };
}
