import { readFileSync } from 'node:fs';
import { describeTableError, readTable } from '~core/formats/csv';
import { parseDecimal } from '~core/quantity/decimal';
import { type Comparison, type ComparisonRow, describeComparisonError } from '~core/stats/comparison';
import { compareTreatments } from '~core/stats/compareTreatments';
import { readArgs, shareOption } from './options';
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

function readText(file: string): string {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    throw new PlainError(`The file “${file}” can't be read.`);
  }
}

/** Runs `compare` and returns what goes to stdout. */
export function compare(args: string[]): string {
  const o = readOptions(args);
  const table = readTable(readText(o.file));
  if (!table.ok) throw new PlainError(`${o.file}: ${describeTableError(table.error)}`);
  const { columns, rows } = table.value;
  const column = (name: string) => {
    const i = columns.indexOf(name);
    if (i < 0)
      throw new PlainError(`${o.file} has no column “${name}”; its columns are ${columns.join(', ')}.`);
    return i;
  };
  const [treatmentAt, responseAt] = [column(o.treatment), column(o.response)];
  const unitAt = o.unit === undefined ? null : column(o.unit);
  const blockAt = o.block === undefined ? null : column(o.block);

  const observations: ComparisonRow[] = [];
  rows.forEach((cells, i) => {
    const line = i + 2;
    const label = (at: number, name: string) => {
      const text = cells[at] ?? '';
      if (text === '') throw new PlainError(`Row ${line}: the column “${name}” is empty.`);
      return text;
    };
    const text = cells[responseAt] ?? '';
    if (text === '' || text === 'NA') return;
    const value = parseDecimal(text);
    if (value === null) {
      throw new PlainError(`Row ${line}: “${text}” in the column “${o.response}” isn't a number.`);
    }
    observations.push({
      treatment: label(treatmentAt, o.treatment),
      value,
      ...(unitAt !== null && { unit: label(unitAt, o.unit!) }),
      ...(blockAt !== null && { block: label(blockAt, o.block!) }),
    });
  });
  const result = compareTreatments({ rows: observations, control: o.control, alpha: o.alpha });
  if (!result.ok) throw new PlainError(describeComparisonError(result.error));
  return o.json ? asJson(o.response, result.value) : asTable(o, result.value);
}

function asJson(response: string, c: Comparison): string {
  return JSON.stringify(
    {
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
          name,
          difference,
          low,
          high,
          p,
          percent,
          percentLow,
          percentHigh,
        }),
      ),
      pairs: c.pairs,
      letters: c.letters,
    },
    null,
    1,
  );
}

const figure = (x: number | null) => (x === null ? '–' : Number(x.toPrecision(5)).toString());
const pText = (p: number | null) => (p === null ? '–' : p < 0.001 ? '<0.001' : p.toFixed(3));

function lines(head: string[], body: string[][]): string {
  const width = head.map((h, i) => Math.max(h.length, ...body.map((r) => r[i]!.length)));
  const line = (r: string[]) =>
    r.map((c, i) => (i === 0 ? c.padEnd(width[i]!) : c.padStart(width[i]!))).join('  ');
  return [line(head), width.map((w) => '-'.repeat(w)).join('  '), ...body.map(line)].join('\n');
}

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
