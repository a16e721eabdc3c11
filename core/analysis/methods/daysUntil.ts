import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';
import { ok } from '../../model/result';
import { formatSignificant, sayP } from '../../quantity/format';
import { choose } from '../../stats/combinations';
import { type PermutationBlock, permutationTest } from '../../stats/permutation';
import { type Seen, excessEvents, kaplanMeier, logRank, medianTime } from '../../stats/survival';
import { chiSquareTail } from '../../stats/mantelHaenszel';
import type { Analysis, AnalysisInput, AnalysisRow, Method, Summary } from '../analysis';
import type { Contrast } from '../contrast';
import { byBonferroni, comparedNames, contrastsOf, familyOf, inBlocks } from './pairwise';

/** Up to so many arrangements every one is tried; above, χ² is close enough. */
export const MOST_SWAPPED = 200_000;
const JUST_CLEAR = 1e-6;

interface SeenUnit extends Seen {
  treatment: string;
  block: string;
}

/**
 * When it had happened to a unit, by its last visit; of several samples the middle one, the earlier of two.
 * @returns null where it isn't an event
 */
export function seenOf(row: Pick<AnalysisRow, 'visits'>): Seen | null {
  const last = row.visits.at(-1);
  const events = (last?.samples ?? []).flatMap(({ observed: o }) =>
    o.type === 'event' ? [{ time: o.day, happened: o.happened }] : [],
  );
  events.sort((a, b) => Number(b.happened) - Number(a.happened) || a.time - b.time);
  return events[Math.floor((events.length - 1) / 2)] ?? null;
}

function blocksOf(units: readonly SeenUnit[], own: ReadonlySet<SeenUnit>, scores: readonly number[]) {
  return [...new Set(units.map((u) => u.block))].map((block): PermutationBlock => {
    const of = (mine: boolean) =>
      units.flatMap((u, i) => (u.block === block && own.has(u) === mine ? [scores[i]!] : []));
    return { a: of(true), b: of(false) };
  });
}

function contrastOf(
  units: readonly SeenUnit[],
  [a, b]: readonly [string, string],
  { family, alpha }: { family: number; alpha: number },
): Contrast {
  const [of, against] = [a, b].map((name) => units.filter((u) => u.treatment === name)) as [
    SeenUnit[],
    SeenUnit[],
  ];
  const { excess, variance, scores } = excessEvents(of, against);
  // Peto's estimate: how much faster it happens in a; ahead in time is the unit it happens to later.
  const faster = variance > 0 ? excess / variance : 0;
  const later = (log: number) => 1 / (1 + Math.exp(log));
  const base = { a, b, scale: 'superiority' as const, estimate: later(faster), percent: null };
  const none: Contrast = { ...base, low: null, high: null, p: null };
  if (of.length < 2 || against.length < 2 || variance <= 0) return none;
  const blocks = blocksOf([...of, ...against], new Set(of), scores);
  const arrangements = blocks.reduce((c, x) => c * choose(x.a.length + x.b.length, x.a.length), 1);
  const mirrored = blocks.every((x) => x.a.length === x.b.length);
  if (((mirrored ? 2 : 1) / arrangements) * family > alpha) return none;
  const raw =
    arrangements <= MOST_SWAPPED
      ? permutationTest(blocks)!.p
      : chiSquareTail((excess * excess) / variance, 1);
  const p = Math.min(1, raw * family);
  const half = normalQuantile(1 - alpha / family / 2, 0, 1) / Math.sqrt(variance);
  let [low, high] = [later(faster + half), later(faster - half)];
  if (p > alpha || faster === 0) [low, high] = [Math.min(low, 0.5), Math.max(high, 0.5)];
  else if (faster < 0) low = Math.max(low, 0.5 + JUST_CLEAR);
  else high = Math.min(high, 0.5 - JUST_CLEAR);
  return { ...base, low, high, p };
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
    return names.ok ? ok(analysed(input, names.value)) : names;
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
  const { versusControl, pairs } = contrastsOf(names, input, (a, b, family) =>
    contrastOf(units, [a, b], { family, alpha }),
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
    smallPrint: `Kaplan–Meier on ${units.length} units${never > 0 ? `, ${never} of them without it when last looked at` : ''}; ${all}. Medians with log-log limits (Brookmeyer and Crowley 1982). Pairs: log-rank, p from swapping units ${blocked ? 'inside blocks ' : ''}in every possible way where there are up to ${MOST_SWAPPED.toLocaleString('en')}, else by χ²; share of pairs in which one takes longer by Peto’s estimate, made to agree with p. Both ${byBonferroni(familyOf(names, peers))}. Days are those of the visits: it happened between a visit and the one before.`,
  };
}
