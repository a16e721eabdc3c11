import { holm } from '~core/stats/holm';
import {
  cliffsDelta,
  dunn,
  friedman,
  kruskalWallis,
  leastRankDifference,
  meanRanks,
  medianOf,
} from '~core/stats/ranks';
import { readArgs, shareOption } from './options';
import { PlainError } from './plainError';
import {
  DataFile,
  type UnitRow,
  byUnit,
  common,
  figure,
  groupsOf,
  lines,
  meanOf,
  needed,
  oneFile,
  pText,
  wantControl,
} from './table';

export const scoresUsage = `palazzo scores FILE --treatment T --score COL [--control C] [--taster COL]
  [--unit U] [--alpha 0.05] [--json]`;

/** Without tasters: Kruskal–Wallis, and Dunn against the control. */
function byUnits(groups: Map<string, UnitRow<number>[]>, control: string | undefined) {
  if (groups.size < 2) throw new PlainError('Scores of two treatments or more are needed.');
  if (control !== undefined) wantControl(groups, control);
  const names = [...groups.keys()];
  const scores = names.map((n) => groups.get(n)!.map((u) => u.value));
  const ranks = meanRanks(scores);
  const test = kruskalWallis(scores);
  const against = control === undefined ? [] : names.flatMap((n, i) => (n === control ? [] : [i]));
  const home = names.indexOf(control ?? '');
  const tests = against.map((i) => dunn(scores, i, home));
  const adjusted = holm(tests.map((t) => t.p));
  return {
    treatments: names.map((name, i) => ({
      name,
      n: scores[i]!.length,
      median: medianOf(scores[i]!),
      meanRank: ranks[i]!,
    })),
    kruskalWallis: { h: test.statistic, df: test.df, p: test.p },
    versusControl: against.map((i, k) => ({
      name: names[i]!,
      z: tests[k]!.z,
      p: tests[k]!.p,
      pHolm: adjusted[k]!,
      cliffsDelta: cliffsDelta(scores[i]!, scores[home]!),
    })),
  };
}

/** With tasters, each of whom scored each treatment once: Friedman. */
function byTasters(rows: readonly UnitRow<number>[], alpha: number) {
  const names = [...new Set(rows.map((r) => r.treatment))];
  const tasters = [...new Set(rows.map((r) => r.place))];
  if (names.length < 2) throw new PlainError('Scores of two treatments or more are needed.');
  const table = tasters.map((taster) =>
    names.map((name) => {
      const own = rows.filter((r) => r.place === taster && r.treatment === name);
      if (own.length !== 1) {
        throw new PlainError(
          `Taster “${taster}” scored “${name}” ${own.length === 0 ? 'not at all' : `${own.length} times`}; each has to score each treatment once.`,
        );
      }
      return own[0]!.value;
    }),
  );
  const { rankSums, statistic, df, p } = friedman(table);
  return {
    treatments: names.map((name, j) => ({
      name,
      n: tasters.length,
      median: medianOf(table.map((r) => r[j]!)),
      rankSum: rankSums[j]!,
    })),
    friedman: { chiSquare: statistic, df, p },
    leastSignificantDifference: leastRankDifference(tasters.length, names.length, alpha),
  };
}

/** Runs `scores` and returns what goes to stdout. */
export function scores(args: string[]): string {
  const { values, positionals } = readArgs(
    args,
    { ...common, score: { type: 'string' }, taster: { type: 'string' } },
    true,
  );
  const data = new DataFile(oneFile(positionals));
  const treatmentAt = data.column(needed('treatment', values.treatment));
  const scoreAt = data.column(needed('score', values.score));
  const unitAt = values.unit === undefined ? null : data.column(values.unit);
  const tasterAt = values.taster === undefined ? null : data.column(values.taster);
  const alpha = shareOption('alpha', values.alpha);
  const rows = Array.from({ length: data.size }, (_, i) => i).flatMap((i): UnitRow<number>[] => {
    const row = {
      treatment: data.label(i, treatmentAt),
      unit: unitAt === null ? `row ${i}` : data.label(i, unitAt),
      place: tasterAt === null ? '' : data.label(i, tasterAt),
    };
    const value = data.response(i, scoreAt);
    return value === null ? [] : [{ ...row, value }];
  });
  const units = byUnit(rows, meanOf);
  if (units.length === 0) throw new PlainError('There are no scores to compare.');
  if (tasterAt !== null) {
    const compared = byTasters(units, alpha);
    if (values.json) return JSON.stringify(compared);
    return [
      lines(
        ['treatment', 'tasters', 'median', 'rank sum'],
        compared.treatments.map((t) => [t.name, String(t.n), figure(t.median), figure(t.rankSum)]),
      ),
      '',
      `Friedman: χ²(${compared.friedman.df}) = ${figure(compared.friedman.chiSquare)}, p ${pText(compared.friedman.p)}`,
      `rank sums differ where they are ${figure(compared.leastSignificantDifference)} or more apart`,
    ].join('\n');
  }
  const compared = byUnits(groupsOf(units), values.control);
  if (values.json) return JSON.stringify(compared);
  return [
    lines(
      ['treatment', 'units', 'median', 'mean rank'],
      compared.treatments.map((t) => [t.name, String(t.n), figure(t.median), figure(t.meanRank)]),
    ),
    '',
    `Kruskal–Wallis: H(${compared.kruskalWallis.df}) = ${figure(compared.kruskalWallis.h)}, p ${pText(compared.kruskalWallis.p)}`,
    ...(compared.versusControl.length === 0
      ? []
      : [
          lines(
            ['against control', 'z', 'p', 'p Holm', 'delta'],
            compared.versusControl.map((c) => [
              c.name,
              figure(c.z),
              pText(c.p),
              pText(c.pHolm),
              figure(c.cliffsDelta),
            ]),
          ),
        ]),
  ].join('\n');
}
