import { type Comparison, type ComparisonRow, describeComparisonError } from '~core/stats/comparison';
import { compareTreatments } from '~core/stats/compareTreatments';
import { readArgs, shareOption } from './options';
import { DataFile, figure, lines, pText } from './table';
import { PlainError } from './plainError';

export const compareUsage = `palazzo compare FILE.csv --treatment COL --response COL --control LEVEL
  [--unit COL] [--block COL] [--alpha 0.05] [--json]`;

/** Why nothing was tested. */
const noTest: Record<Comparison['spread'], string> = {
  shown: '',
  oneEach: 'One unit each: numbers only, no test and no winner. More units per treatment are needed.',
  noFreedom: 'No residual is left after blocks: numbers only, no test and no winner.',
  zero: 'The units of a treatment read the same: no spread to test against, numbers only, no winner.',
};

function readOptions(args: string[]) {
  const { values, positionals } = readArgs(
    args,
    {
      treatment: { type: 'string' },
      response: { type: 'string' },
      control: { type: 'string' },
      unit: { type: 'string' },
      block: { type: 'string' },
      alpha: { type: 'string', default: '0.05' },
      json: { type: 'boolean', default: false },
    },
    true,
  );
  if (positionals.length !== 1) throw new PlainError('Name one CSV file to compare.');
  const required = (name: 'treatment' | 'response' | 'control') => {
    const v = values[name];
    if (v === undefined || v === '') throw new PlainError(`--${name} is missing.`);
    return v;
  };
  const alpha = shareOption('alpha', values.alpha);
  return {
    file: positionals[0]!,
    treatment: required('treatment'),
    response: required('response'),
    control: required('control'),
    unit: values.unit,
    block: values.block,
    alpha,
    json: values.json,
  };
}

/** Runs `compare` and returns what goes to stdout. */
export function compare(args: string[]): string {
  const o = readOptions(args);
  const data = new DataFile(o.file);
  const [treatmentAt, responseAt] = [data.column(o.treatment), data.column(o.response)];
  const unitAt = o.unit === undefined ? null : data.column(o.unit);
  const blockAt = o.block === undefined ? null : data.column(o.block);
  const observations = Array.from({ length: data.size }, (_, i) => i).flatMap((i): ComparisonRow[] => {
    const value = data.response(i, responseAt);
    const row = {
      treatment: data.label(i, treatmentAt),
      ...(unitAt !== null && { unit: data.label(i, unitAt) }),
      ...(blockAt !== null && { block: data.label(i, blockAt) }),
    };
    return value === null ? [] : [{ ...row, value }];
  });
  const result = compareTreatments({ rows: observations, control: o.control, alpha: o.alpha });
  if (!result.ok) throw new PlainError(describeComparisonError(result.error));
  return o.json
    ? JSON.stringify(comparisonShape(o.response, result.value), null, 1)
    : asTable(o, result.value);
}

/** A comparison as the contract has it. */
export const comparisonShape = (response: string, c: Comparison) => ({
  response,
  alpha: c.alpha,
  treatments: c.treatments.map(({ name, n, mean, sd, min, max }) => ({ name, n, mean, sd, min, max })),
  anova: c.anova && {
    f: c.anova.f,
    dfTreatment: c.anova.dfTreatment,
    dfResidual: c.anova.dfResidual,
    p: c.anova.p,
    residualMeanSquare: c.anova.residualMeanSquare,
  },
  versusControl: c.versusControl.map(
    ({ name, difference, low, high, p, percent, percentLow, percentHigh }) => ({
      ...{ name, difference, low, high, p, percent, percentLow, percentHigh },
    }),
  ),
  pairs: c.pairs,
  letters: c.letters,
});

function asTable(o: { response: string }, c: Comparison): string {
  const level = `${Math.round((1 - c.alpha) * 1000) / 10} %`;
  const parts = [
    `${o.response}: ${c.treatments.length} treatments, ${c.treatments.reduce((s, t) => s + t.n, 0)} units` +
      (c.blocks > 1 ? `, ${c.blocks} blocks` : ''),
    lines(
      ['treatment', 'units', 'mean', 'sd', 'min', 'max', 'letter'],
      c.treatments.map((t) => [
        t.name,
        String(t.n),
        ...[t.mean, t.sd, t.min, t.max].map(figure),
        c.letters[t.name] ?? '–',
      ]),
    ),
  ];
  if (c.anova && c.anova.p !== null) {
    const { f, dfTreatment, dfResidual, p, residualMeanSquare } = c.anova;
    parts.push(
      `Analysis of variance: F(${dfTreatment}, ${dfResidual}) = ${figure(f)}, p ${p < 0.001 ? '<0.001' : `= ${p.toFixed(3)}`}, residual mean square ${figure(residualMeanSquare)}`,
    );
  } else {
    parts.push(noTest[c.spread]);
  }
  const row = (d: { difference: number; low: number | null; high: number | null; p: number | null }) => [
    figure(d.difference),
    d.low === null ? '–' : `${figure(d.low)} to ${figure(d.high)}`,
    pText(d.p),
  ];
  parts.push(
    `Against ${c.control} (Dunnett, ${level} simultaneous)\n` +
      lines(
        ['treatment', 'difference', 'interval', 'p', 'change %', 'interval % (Fieller)'],
        c.versusControl.map((v) => [
          v.name,
          ...row(v),
          figure(v.percent),
          v.percentLow === null ? '–' : `${figure(v.percentLow)} to ${figure(v.percentHigh)}`,
        ]),
      ),
    `All pairs (Tukey–Kramer, ${level} simultaneous)\n` +
      lines(
        ['pair', 'difference', 'interval', 'p'],
        c.pairs.map((d) => [`${d.a} − ${d.b}`, ...row(d)]),
      ),
  );
  return parts.join('\n\n');
}
