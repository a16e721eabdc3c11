import fCdf from '@stdlib/stats-base-dists-f-cdf';
import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import { type Result, err, ok } from '../model/result';
import { centre } from './decimal';
import { dunnettFamily } from './dunnett';
import { fiellerInterval } from './fieller';
import { letterDisplay } from './letters';
import { type LinearModel, type UnitRow, fitLinearModel } from './linearModel';
import { studentizedRangeCdf, studentizedRangeQuantile } from './studentizedRange';

/** One measured value. Rows with the same `unit` are samples of that unit and are averaged first. */
export interface ComparisonRow {
  treatment: string;
  /** experimental unit; a row without one is a unit of its own */
  unit?: string;
  block?: string;
  /** column of a Latin square, taken off beside the block */
  column?: string;
  value: number;
}

export interface ComparisonInput {
  rows: readonly ComparisonRow[];
  control: string;
  /** family-wise error and 1 − confidence, default 0.05 */
  alpha?: number;
  /** order of the treatments in the result; default: control first, then as they appear */
  order?: readonly string[];
}

export interface TreatmentSummary {
  name: string;
  /** experimental units */
  n: number;
  /** mean of the units, in raw units of the trait */
  mean: number;
  /** mean adjusted for blocks; equals `mean` without blocks */
  adjustedMean: number;
  /** confidence interval of the adjusted mean from the pooled spread; null without a residual */
  low: number | null;
  high: number | null;
  /** null when n = 1 */
  sd: number | null;
  min: number;
  max: number;
}

export interface Difference {
  difference: number;
  /** simultaneous interval; null without a residual */
  low: number | null;
  high: number | null;
  p: number | null;
}

export interface VersusControl extends Difference {
  name: string;
  /** difference in per cent of the control; null when the control is 0 */
  percent: number | null;
  /** Fieller's interval, null when the control isn't clearly away from zero */
  percentLow: number | null;
  percentHigh: number | null;
}

export interface PairDifference extends Difference {
  a: string;
  b: string;
}

export interface Comparison {
  alpha: number;
  control: string;
  blocks: number;
  /** columns of Latin squares; 1 in other designs */
  columns: number;
  treatments: TreatmentSummary[];
  anova: {
    /** null when the residual is exactly zero */
    f: number | null;
    dfTreatment: number;
    dfResidual: number;
    p: number;
    residualMeanSquare: number;
  } | null;
  versusControl: VersusControl[];
  pairs: PairDifference[];
  /** empty without a residual */
  letters: Record<string, string>;
  /** how Dunnett's critical value was found; null without a residual */
  dunnettMethod: 'product' | 'lattice' | 'single' | null;
}

export type ComparisonError =
  | { tag: 'noRows' }
  | { tag: 'oneTreatment'; treatment: string }
  | { tag: 'unknownControl'; control: string; known: string[] }
  | { tag: 'unitInTwoTreatments'; unit: string; treatments: [string, string] }
  | { tag: 'unitInTwoBlocks'; unit: string; blocks: [string, string] }
  | { tag: 'disconnected'; a: string; b: string }
  | { tag: 'notFinite'; index: number };

interface Unit {
  treatment: string;
  block: string;
  column: string;
  values: number[];
}

/** Says in one plain line what is wrong with the data. */
export function describeComparisonError(e: ComparisonError): string {
  switch (e.tag) {
    case 'noRows':
      return 'There are no values to compare.';
    case 'oneTreatment':
      return `Only one treatment, “${e.treatment}”: a comparison needs at least two.`;
    case 'unknownControl':
      return `The control “${e.control}” isn't among the treatments: ${e.known.join(', ')}.`;
    case 'unitInTwoTreatments':
      return `Unit “${e.unit}” is listed under two treatments: ${e.treatments.join(' and ')}.`;
    case 'unitInTwoBlocks':
      return `Unit “${e.unit}” is listed in two blocks: ${e.blocks.join(' and ')}.`;
    case 'disconnected':
      return `“${e.a}” and “${e.b}” share no block, directly or through others, so they can't be compared.`;
    case 'notFinite':
      return `Value ${e.index + 1} isn't a finite number.`;
  }
}

function gatherUnits(
  rows: readonly ComparisonRow[],
  centred: readonly number[],
): Result<Map<string, Unit>, ComparisonError> {
  const units = new Map<string, Unit>();
  for (const [i, row] of rows.entries()) {
    const block = row.block ?? '';
    const key = row.unit === undefined ? `row ${i}` : `unit ${row.unit}`;
    const unit = units.get(key);
    if (!unit) {
      units.set(key, { treatment: row.treatment, block, column: row.column ?? '', values: [centred[i]!] });
      continue;
    }
    const name = row.unit ?? '';
    if (unit.treatment !== row.treatment) {
      return err({ tag: 'unitInTwoTreatments', unit: name, treatments: [unit.treatment, row.treatment] });
    }
    if (unit.block !== block) return err({ tag: 'unitInTwoBlocks', unit: name, blocks: [unit.block, block] });
    unit.values.push(centred[i]!);
  }
  return ok(units);
}

const mean = (xs: readonly number[]) => xs.reduce((s, x) => s + x, 0) / xs.length;

/**
 * Compares treatments on their experimental units: analysis of variance (blocks taken off first where
 * there are any), each treatment against the control (Dunnett), all pairs (Tukey–Kramer) with letters,
 * and per cent change (Fieller).
 *
 * With one unit per treatment there is no residual: means and differences are given, tests are null.
 *
 * @param input values in the trait's own unit; see `ComparisonRow`
 * @returns the comparison, or what is wrong with the data
 * Sources: Dunnett (1964), Tukey (1953) and Kramer (1956), Piepho (2004), Fieller (1954).
 * @example compareTreatments({ control: 'Water', rows: [
 *   { treatment: 'Water', value: 1 }, { treatment: 'Water', value: 3 },
 *   { treatment: 'A', value: 4 }, { treatment: 'A', value: 6 }] }) // A − Water = 3, F = 4.5 on 1 and 2
 */
export function compareTreatments(input: ComparisonInput): Result<Comparison, ComparisonError> {
  const alpha = input.alpha ?? 0.05;
  const { rows, control } = input;
  if (rows.length === 0) return err({ tag: 'noRows' });
  const bad = rows.findIndex((r) => !Number.isFinite(r.value));
  if (bad >= 0) return err({ tag: 'notFinite', index: bad });

  const present = [...new Set(rows.map((r) => r.treatment))];
  if (!present.includes(control)) return err({ tag: 'unknownControl', control, known: present });
  if (present.length < 2) return err({ tag: 'oneTreatment', treatment: present[0]! });
  const wanted = input.order ?? [control, ...present.filter((t) => t !== control)];
  const names = [...wanted.filter((t) => present.includes(t)), ...present.filter((t) => !wanted.includes(t))];

  const { origin, centred } = centre(rows.map((r) => r.value));
  const gathered = gatherUnits(rows, centred);
  if (!gathered.ok) return gathered;
  const units = [...gathered.value.values()].map((u) => ({ ...u, value: mean(u.values) }));
  const blockNames = [...new Set(units.map((u) => u.block))];
  const columnNames = [...new Set(units.map((u) => u.column))];
  // The control is treatment 0, the model's reference.
  const modelNames = [control, ...names.filter((n) => n !== control)];
  const index = new Map(modelNames.map((n, i) => [n, i]));
  const unitRows: UnitRow[] = units.map((u) => ({
    treatment: index.get(u.treatment)!,
    block: blockNames.indexOf(u.block),
    column: columnNames.indexOf(u.column),
    value: u.value,
  }));
  const fit = fitLinearModel(unitRows, modelNames.length, blockNames.length, columnNames.length);
  if (!fit.ok) {
    if (fit.error.tag !== 'disconnected') throw new Error(`unexpected model error ${fit.error.tag}`);
    return err({ tag: 'disconnected', a: modelNames[fit.error.a]!, b: modelNames[fit.error.b]! });
  }
  const model = fit.value;
  const ms = model.residualMeanSquare;
  const df = model.dfResidual;

  const pairs = allPairs(names, index, model, alpha);
  const dunnett = againstControl(modelNames, model, alpha, origin);
  const t = ms === null ? null : tQuantile(1 - alpha / 2, df);
  const treatments = names.map((name): TreatmentSummary => {
    const i = index.get(name)!;
    const values = units.filter((u) => u.treatment === name).map((u) => u.value);
    const m = mean(values);
    const half = t === null ? null : t * Math.sqrt(ms! * model.unscaledCovariance(i, i));
    const adjusted = model.adjustedMeans[i]!;
    return {
      name,
      n: values.length,
      mean: origin + m,
      adjustedMean: origin + adjusted,
      low: half === null ? null : origin + adjusted - half,
      high: half === null ? null : origin + adjusted + half,
      sd:
        values.length > 1
          ? Math.sqrt(values.reduce((s, v) => s + (v - m) ** 2, 0) / (values.length - 1))
          : null,
      min: origin + Math.min(...values),
      max: origin + Math.max(...values),
    };
  });

  return ok({
    alpha,
    control,
    blocks: blockNames.length,
    columns: columnNames.length,
    treatments,
    anova: ms === null ? null : anovaOf(model, ms),
    versusControl: names.filter((n) => n !== control).map((n) => dunnett.rows.get(n)!),
    pairs,
    letters: ms === null ? {} : lettersOf(names, treatments, pairs, alpha),
    dunnettMethod: dunnett.method,
  });
}

function anovaOf(model: LinearModel, residualMeanSquare: number): Comparison['anova'] {
  const { dfTreatment, dfResidual } = model;
  const treatmentMeanSquare = model.treatmentSumOfSquares / dfTreatment;
  const base = { dfTreatment, dfResidual, residualMeanSquare };
  if (residualMeanSquare === 0) {
    const alike = model.adjustedMeans.every((m) => Math.abs(m - model.adjustedMeans[0]!) < 1e-12);
    return { ...base, f: null, p: alike ? 1 : 0 };
  }
  const f = treatmentMeanSquare / residualMeanSquare;
  // The upper tail through the reciprocal keeps small p-values exact.
  return { ...base, f, p: f === 0 ? 1 : fCdf(1 / f, dfResidual, dfTreatment) };
}

/** |difference| / standard error; infinite where there is a difference and no spread at all. */
function statistic(difference: number, se: number): number {
  if (se > 0) return Math.abs(difference) / se;
  return Math.abs(difference) < 1e-12 ? 0 : Infinity;
}

function contrast(model: LinearModel, a: number, b: number) {
  const v = model.unscaledCovariance;
  return {
    difference: model.adjustedMeans[a]! - model.adjustedMeans[b]!,
    se:
      model.residualMeanSquare === null
        ? null
        : Math.sqrt(model.residualMeanSquare * Math.max(0, v(a, a) + v(b, b) - 2 * v(a, b))),
  };
}

function allPairs(
  names: readonly string[],
  index: ReadonlyMap<string, number>,
  model: LinearModel,
  alpha: number,
): PairDifference[] {
  const pairs: PairDifference[] = [];
  for (let i = 0; i < names.length; i++) {
    for (let j = i + 1; j < names.length; j++) {
      const [a, b] = [names[i]!, names[j]!];
      const { difference, se } = contrast(model, index.get(a)!, index.get(b)!);
      if (se === null) {
        pairs.push({ a, b, difference, low: null, high: null, p: null });
        continue;
      }
      const df = model.dfResidual;
      const half = (studentizedRangeQuantile(1 - alpha, names.length, df) / Math.SQRT2) * se;
      const q = statistic(difference, se) * Math.SQRT2;
      const p = q === Infinity ? 0 : 1 - studentizedRangeCdf(q, names.length, df);
      pairs.push({ a, b, difference, low: difference - half, high: difference + half, p });
    }
  }
  return pairs;
}

function againstControl(modelNames: readonly string[], model: LinearModel, alpha: number, origin: number) {
  const v = model.unscaledCovariance;
  const ms = model.residualMeanSquare;
  const k = modelNames.length - 1;
  const cov = (i: number, j: number) => v(i, j) - v(i, 0) - v(j, 0) + v(0, 0);
  const variances = Array.from({ length: k }, (_, i) => cov(i + 1, i + 1));
  const correlation = variances.map((vi, i) =>
    variances.map((vj, j) => (i === j ? 1 : cov(i + 1, j + 1) / Math.sqrt(vi * vj))),
  );
  const family = ms === null ? null : dunnettFamily(correlation, model.dfResidual);
  const critical = family?.criticalValue(alpha) ?? null;
  const controlMean = origin + model.adjustedMeans[0]!;
  const rows = new Map<string, VersusControl>();
  for (let i = 1; i <= k; i++) {
    const { difference, se } = contrast(model, i, 0);
    const percent = controlMean === 0 ? null : (100 * difference) / controlMean;
    const base = { name: modelNames[i]!, difference, percent };
    if (se === null || !family || critical === null) {
      rows.set(base.name, { ...base, low: null, high: null, p: null, percentLow: null, percentHigh: null });
      continue;
    }
    const t = statistic(difference, se);
    const ratio = fiellerInterval({
      numerator: controlMean + difference,
      denominator: controlMean,
      varNumerator: ms! * v(i, i),
      varDenominator: ms! * v(0, 0),
      covariance: ms! * v(i, 0),
      df: model.dfResidual,
      alpha,
    });
    rows.set(base.name, {
      ...base,
      low: difference - critical * se,
      high: difference + critical * se,
      p: t === Infinity ? 0 : family.pValue(t),
      percentLow: ratio ? (ratio.low - 1) * 100 : null,
      percentHigh: ratio ? (ratio.high - 1) * 100 : null,
    });
  }
  return { rows, method: family?.method ?? null };
}

function lettersOf(
  names: readonly string[],
  treatments: readonly TreatmentSummary[],
  pairs: readonly PairDifference[],
  alpha: number,
): Record<string, string> {
  const order = names
    .map((_, i) => i)
    .sort((x, y) => treatments[y]!.adjustedMean - treatments[x]!.adjustedMean);
  const p = new Map(pairs.map((d) => [`${d.a}\n${d.b}`, d.p!]));
  const letters = letterDisplay(order, (a, b) => {
    const [first, second] = a < b ? [a, b] : [b, a];
    return p.get(`${names[first]!}\n${names[second]!}`)! < alpha;
  });
  return Object.fromEntries(names.map((n, i) => [n, letters[i]!]));
}
