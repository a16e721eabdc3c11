import type { Trait } from '../model/plan';
import type { AnalysisRow } from './analysis';
import { comparedValue } from './goodness';
import { figureOfRow } from './number';

/** One figure a unit, for methods that work on figures: what is compared of its visits. */
export const figuresOf = (rows: readonly AnalysisRow[], trait: Trait): number[] =>
  rows.map((r) => comparedValue(trait, figureOfRow(r, trait)));
