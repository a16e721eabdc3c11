import { numberIn } from '../quantity/number';
import type { LabelAnalysis } from '../model/product';
import { type Result, err, ok } from '../model/result';

/** A label by weight with nothing on it. */
export const emptyAnalysis: LabelAnalysis = {
  basis: 'w/w',
  nPercent: 0,
  nitratePercent: null,
  ammoniumPercent: null,
  ureaPercent: null,
  p2o5Percent: 0,
  k2oPercent: 0,
  caPercent: null,
  mgPercent: null,
  sPercent: null,
  micros: {},
  printedAs: { main: 'oxide', secondary: 'element' },
};

function percents(text: string, between: RegExp): Result<number[], string> {
  const values: number[] = [];
  for (const part of text.split(between)) {
    const value = numberIn(part.trim() === '' ? '0' : part.trim());
    if (value === null || value < 0 || value > 100)
      return err(`“${part.trim()}” isn’t a per cent from 0 to 100.`);
    values.push(value);
  }
  return ok(values);
}

/**
 * Reads an analysis as people write it in a line: N-P-K as labels print it (P₂O₅ and K₂O), then, after
 * commas, Ca, Mg and S as elements; per cent by weight. Decimals have a point.
 *
 * @returns the analysis, or a line that says what is wrong
 * @example parseAnalysis('12-6-18,4,1.5') // N 12, P₂O₅ 6, K₂O 18, Ca 4, Mg 1.5
 */
export function parseAnalysis(text: string): Result<LabelAnalysis, string> {
  const [head = '', ...tail] = text.split(',');
  const main = percents(head.trim(), /\s*[-–]\s*/);
  if (!main.ok) return main;
  if (main.value.length !== 3) return err('Begin with three figures: N-P-K, such as 12-6-18.');
  const rest = tail.length > 0 ? percents(tail.join(','), /\s*,\s*/) : ok<number[]>([]);
  if (!rest.ok) return rest;
  if (rest.value.length > 3) return err('After N-P-K come Ca, Mg and S, and no more.');
  const [nPercent, p2o5Percent, k2oPercent] = main.value as [number, number, number];
  const [caPercent = null, mgPercent = null, sPercent = null] = rest.value;
  return ok({ ...emptyAnalysis, nPercent, p2o5Percent, k2oPercent, caPercent, mgPercent, sPercent });
}
