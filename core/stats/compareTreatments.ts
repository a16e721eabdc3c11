import fCdf from '@stdlib/stats-base-dists-f-cdf';
import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import { type Result, err, ok } from '../model/result';
import { againstControl } from './againstControl';
import type { Comparison, ComparisonError, ComparisonInput, TreatmentSummary } from './comparison';
import { centre } from './decimal';
import { gatherUnits } from './experimentalUnits';
import { type Errors, pooledErrors } from './contrast';
import { type LinearModel, type UnitRow, prepareLinearModel } from './linearModel';
import { ownSpreads } from './ownSpread';
import { allPairs, lettersOf } from './pairwise';
import { mean } from './moments';

/**
 * Compares treatments on their experimental units: analysis of variance (blocks taken off first where
 * there are any), each treatment against the control (Dunnett), all pairs (Tukey–Kramer) with letters,
 * and per cent change (Fieller).
 *
 * Where the units show no spread to test against (see `Comparison.spread`) means and differences are given,
 * tests are null.
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
  const units = gathered.value.map((u) => ({ ...u, value: mean(u.values) }));
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
  const prepared = prepareLinearModel(unitRows, modelNames.length, blockNames.length, columnNames.length);
  if (!prepared.ok) {
    const { error } = prepared;
    if (error.tag !== 'disconnected') throw new Error(`unexpected model error ${error.tag}`);
    return err({ tag: 'disconnected', a: modelNames[error.a]!, b: modelNames[error.b]! });
  }
  const values = unitRows.map((r) => r.value);
  const fit = prepared.value.fit(values);
  const seen = fit.residualMeanSquare;
  const spread =
    seen === null
      ? units.length === names.length
        ? 'oneEach'
        : 'noFreedom'
      : seen <= (input.leastVariance ?? 0)
        ? 'zero'
        : 'shown';
  // Without a spread that was seen nothing can be tested: what follows treats it as having none.
  const model = spread === 'shown' ? fit : { ...fit, residualMeanSquare: null };
  const base = input.spreads === 'own' ? 0 : null;
  const own =
    input.spreads === undefined || spread !== 'shown'
      ? null
      : ownSpreads(prepared.value, unitRows, values, modelNames.length, base);
  const drawn = pooledErrors(model);
  const errors: Errors | null = own ?? drawn;

  const pairs = allPairs(names, index, model, errors, { alpha, origin });
  const dunnett = againstControl(modelNames, model, errors, {
    ...{ alpha, origin },
    spreads: own ? 'own' : 'one',
  });
  const treatments = names.map((name): TreatmentSummary => {
    const i = index.get(name)!;
    const own = units.filter((u) => u.treatment === name).map((u) => u.value);
    const m = mean(own);
    // A mean alone is drawn with what all units show: of a few of its own little is known.
    const half = drawn && tQuantile(1 - alpha / 2, drawn.df(i, i)) * Math.sqrt(drawn.covariance(i, i));
    const adjusted = model.adjustedMeans[i]!;
    return {
      name,
      n: own.length,
      mean: origin + m,
      adjustedMean: origin + adjusted,
      low: half === null ? null : origin + adjusted - half,
      high: half === null ? null : origin + adjusted + half,
      sd: own.length > 1 ? Math.sqrt(own.reduce((s, v) => s + (v - m) ** 2, 0) / (own.length - 1)) : null,
      min: origin + Math.min(...own),
      max: origin + Math.max(...own),
    };
  });

  return ok({
    alpha,
    control,
    blocks: blockNames.length,
    columns: columnNames.length,
    treatments,
    anova: seen === null ? null : anovaOf(model, seen, spread === 'shown'),
    spread,
    versusControl: names.filter((n) => n !== control).map((n) => dunnett.rows.get(n)!),
    pairs,
    letters: errors === null ? {} : lettersOf(names, treatments, pairs, alpha),
    dunnettMethod: dunnett.method,
    spreads: own ? 'own' : 'one',
  });
}

function anovaOf(model: LinearModel, residualMeanSquare: number, shown: boolean): Comparison['anova'] {
  const { dfTreatment, dfResidual } = model;
  const base = { dfTreatment, dfResidual, residualMeanSquare };
  if (!shown) return { ...base, f: null, p: null };
  const f = model.treatmentSumOfSquares / dfTreatment / residualMeanSquare;
  // The upper tail through the reciprocal keeps small p-values exact.
  return { ...base, f, p: f === 0 ? 1 : fCdf(1 / f, dfResidual, dfTreatment) };
}
