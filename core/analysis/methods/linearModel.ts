import { formatFigure, formatSignificant, sayDf, sayP } from '../../quantity/format';
import { ok } from '../../model/result';
import { ENOUGH_RESIDUAL_DF } from '../../plan/limits';
import { compareTreatments } from '../../stats/compareTreatments';
import type { Comparison, PairDifference, VersusControl } from '../../stats/comparison';
import { kindOf } from '../../model/traitKinds';
import type { AnalysisInput, Assumption, Method } from '../analysis';
import { type Contrast, turned } from '../contrast';
import { figuresOf } from '../figures';
import { roundingVariance } from '../recorded';

const level = (alpha: number) => `${Math.round((1 - alpha) * 100)} %`;

const versusControlContrast = (v: VersusControl, control: string, percents: boolean): Contrast => ({
  a: v.name,
  b: control,
  scale: 'difference',
  estimate: v.difference,
  low: v.low,
  high: v.high,
  p: v.p,
  percent:
    percents && v.percent !== null && (v.percentTogether !== null || v.low === null)
      ? {
          estimate: v.percent,
          low: v.percentTogether && v.percentTogether.low,
          high: v.percentTogether && v.percentTogether.high,
        }
      : null,
  back: percents ? v.percentBack : null,
});

/** A per cent of a score, a rank or a per cent says nothing: nought isn't nothing there, or it is one already. */
const percentsMean = (trait: AnalysisInput['trait']): boolean => {
  const { observes } = kindOf(trait);
  return trait.direction !== 'band' && observes !== 'level' && observes !== 'rank' && observes !== 'kOfN';
};

/** A pair with the control is the contrast that stands against the control, so that no two screens differ. */
function pairContrast(
  p: PairDifference,
  control: string,
  own: readonly Contrast[],
  percents: boolean,
): Contrast {
  if (p.b === control) return own.find((c) => c.a === p.a)!;
  if (p.a === control) return turned(own.find((c) => c.a === p.b)!);
  return plainPair(p, percents);
}

const plainPair = (p: PairDifference, percents: boolean): Contrast => ({
  a: p.a,
  b: p.b,
  scale: 'difference',
  estimate: p.difference,
  low: p.low,
  high: p.high,
  p: p.p,
  percent: percents ? p.percent.ofB : null,
  back: percents ? p.percent.ofA : null,
});

/** Means of units by least squares, blocks taken off first; Dunnett against the control, Tukey–Kramer between all. */
export const linearModel: Method = {
  id: 'linear',
  name: 'means, by the linear model',
  figure: 'mean',
  accepts: ['continuous', 'count', 'kOfN', 'level', 'rank', 'event'],
  // A day that isn't known is no figure.
  analyse: (input) => {
    const { trait, rows, control, alpha, order } = input;
    const figures = figuresOf(rows, trait);
    const compared = compareTreatments({
      rows: rows.map((r, i) => ({
        treatment: r.treatment,
        unit: r.unit,
        value: figures[i]!,
        ...(r.block !== null && { block: r.block }),
        ...(r.column !== null && { column: r.column }),
      })),
      control,
      alpha,
      order,
      leastVariance: roundingVariance(rows, trait),
      spreads: input.peers ? 'peers' : 'own',
    });
    if (!compared.ok) return compared;
    const c = compared.value;
    const percents = percentsMean(trait);
    // Among equals every pair has the same limits, those with the first too.
    const own = input.peers
      ? c.pairs.flatMap((p) =>
          p.a === control
            ? [turned(plainPair(p, percents))]
            : p.b === control
              ? [plainPair(p, percents)]
              : [],
        )
      : c.versusControl.map((v) => versusControlContrast(v, control, percents));
    return ok({
      method: 'linear',
      alpha,
      control,
      spread: c.spread,
      summaries: c.treatments.map(({ adjustedMean, ...t }) => ({ ...t, estimate: adjustedMean })),
      versusControl: own,
      pairs: c.pairs.map((p) => pairContrast(p, control, own, percents)),
      assumptions: assumptionsOf(c),
      unitSd: c.anova && c.spread === 'shown' ? Math.sqrt(c.anova.residualMeanSquare) : null,
      ...(c.anova && c.spread === 'shown' && { unitDf: c.anova.dfResidual }),
      smallPrint: smallPrint(c, rows.length, input.peers ?? false),
    });
  },
};

function assumptionsOf(c: Comparison): Assumption[] {
  if (c.spread !== 'shown' || !c.anova) return [];
  const sds = c.treatments.flatMap((t) => (t.sd === null ? [] : [t.sd]));
  const [least, most] = [Math.min(...sds), Math.max(...sds)];
  const enough = c.anova.dfResidual >= ENOUGH_RESIDUAL_DF;
  return [
    { what: 'units independent of each other', holds: null, seen: 'by the layout, not by the values' },
    // Where contenders have spreads of their own nothing is taken for granted of them.
    ...(c.spreads === 'own'
      ? []
      : [
          {
            what: 'alike in spread',
            fails: 'not alike in spread',
            // A ratio of three between standard deviations is common practice's limit for equal numbers.
            holds: sds.length < 2 || least === 0 ? null : most / least <= 3,
            seen:
              sds.length < 2
                ? 'one unit of some'
                : `largest spread ${least === 0 ? 'beside none' : `${formatFigure(most / least, 1)} times the least`}`,
          },
        ]),
    {
      what: 'roughly normal',
      holds: null,
      seen: `${c.treatments.reduce((s, t) => s + t.n, 0)} units are too few to tell`,
    },
    {
      what: 'enough units',
      holds: enough,
      fails: 'too few units to judge the spread well',
      seen: `${sayDf(c.anova.dfResidual)}; ${ENOUGH_RESIDUAL_DF} or more are wanted`,
    },
  ];
}

function smallPrint(c: Comparison, units: number, peers: boolean): string {
  const first =
    c.columns > 1
      ? `Linear model on ${units} values, one a unit, ${c.blocks} rows and ${c.columns} columns of the square taken off first; means are adjusted for both.`
      : c.blocks > 1
        ? `Linear model on ${units} values, one a unit, ${c.blocks} blocks taken off first; means are adjusted for blocks.`
        : `Linear model on ${units} values, one a unit.`;
  const a = c.anova;
  if (!a || c.spread !== 'shown' || a.f === null || a.p === null) return first;
  return [
    first,
    `F(${a.dfTreatment}, ${a.dfResidual}) ${a.f < 0.001 ? '< 0.001' : `= ${formatSignificant(a.f, 3)}`}, ${sayP(a.p)}.`,
    peers
      ? `Every pair: Tukey–Kramer (${level(c.alpha)} for all together). Letters from the same intervals.`
      : `Against the control: Dunnett (two-sided, ${level(c.alpha)} for all together). Between the others: Tukey–Kramer. Letters from the same intervals. Per cent: Fieller, with the same critical value.`,
    ...(c.spreads === 'own'
      ? [
          peers
            ? 'A contender’s spread is half its own and half the others’ (Satterthwaite’s degrees of freedom).'
            : 'The control’s spread is its own, a contender’s half its own and half the others’ (Satterthwaite’s degrees of freedom).',
        ]
      : []),
    ...(!peers && c.dunnettMethod === 'lattice'
      ? ['Missing cells: Dunnett’s value by a lattice rule, good to about 0.0002.']
      : []),
  ].join(' ');
}
