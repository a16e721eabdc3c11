import { type Result, err, ok } from '../model/result';
import type { ComparisonError, ComparisonRow } from './comparison';

/** What got the treatment on its own, with the values of its samples. */
export interface ExperimentalUnit {
  treatment: string;
  block: string;
  column: string;
  values: number[];
}

/**
 * Gathers rows into experimental units: rows with one `unit` are samples of it, a row without one is a unit
 * of its own.
 *
 * @param values the rows' values, in their order, in whatever origin the caller counts from
 * @returns the units in the order they first appear, or a unit that stands in two treatments or two blocks
 * @example gatherUnits([{ treatment: 'A', unit: '1', value: 2 }, { treatment: 'A', unit: '1', value: 4 }], [2, 4])
 * // one unit of A with values 2 and 4
 */
export function gatherUnits(
  rows: readonly ComparisonRow[],
  values: readonly number[],
): Result<ExperimentalUnit[], ComparisonError> {
  const units = new Map<string, ExperimentalUnit>();
  for (const [i, row] of rows.entries()) {
    const block = row.block ?? '';
    const key = row.unit === undefined ? `row ${i}` : `unit ${row.unit}`;
    const unit = units.get(key);
    if (!unit) {
      units.set(key, { treatment: row.treatment, block, column: row.column ?? '', values: [values[i]!] });
      continue;
    }
    const name = row.unit ?? '';
    if (unit.treatment !== row.treatment) {
      return err({ tag: 'unitInTwoTreatments', unit: name, treatments: [unit.treatment, row.treatment] });
    }
    if (unit.block !== block) return err({ tag: 'unitInTwoBlocks', unit: name, blocks: [unit.block, block] });
    unit.values.push(values[i]!);
  }
  return ok([...units.values()]);
}
