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
  /** a residual mean square at or below this isn't spread that was seen; default 0 */
  leastVariance?: number;
  /**
   * whose spread is whose own (see `ownSpreads`): own, the control's and that of one that stands out; peers, of one that
   * stands out alone; left out: one for all
   */
  spreads?: 'own' | 'peers';
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

interface PercentLimits {
  low: number;
  high: number;
}

export interface VersusControl extends Difference {
  name: string;
  /** difference in per cent of the control; null when the control is 0 */
  percent: number | null;
  /** Fieller's interval of this one alone, null when the control isn't clearly away from zero */
  percentLow: number | null;
  percentHigh: number | null;
  /** at Dunnett's critical value: for all together, as the limits of the difference; what the app shows */
  percentTogether: PercentLimits | null;
  /** the control's difference in per cent of this one, with the same limits; null where this one isn't clear of zero */
  percentBack: PercentChange | null;
}

export interface PairDifference extends Difference {
  a: string;
  b: string;
  /** the difference in per cent of b, and of a as b sees it, with Fieller's limits at the same critical value */
  percent: { ofB: PercentChange | null; ofA: PercentChange | null };
}

export interface PercentChange extends PercentLimits {
  estimate: number;
}

export interface Comparison {
  alpha: number;
  control: string;
  blocks: number;
  /** columns of Latin squares; 1 in other designs */
  columns: number;
  treatments: TreatmentSummary[];
  /** null without a residual; f and p are null where its spread isn't `shown` */
  anova: {
    f: number | null;
    dfTreatment: number;
    dfResidual: number;
    p: number | null;
    residualMeanSquare: number;
  } | null;
  /**
   * Whether there is an honest spread to test against. Without it there are means and differences, and no
   * interval, p or letter: oneEach one unit of each treatment, noFreedom none left after blocks, zero the
   * units of a treatment read the same.
   */
  spread: 'shown' | 'oneEach' | 'noFreedom' | 'zero';
  versusControl: VersusControl[];
  pairs: PairDifference[];
  /** empty without a residual */
  letters: Record<string, string>;
  /** how Dunnett's critical value was found; null without a residual */
  dunnettMethod: 'product' | 'lattice' | 'single' | null;
  /** whether some have a spread of their own */
  spreads: 'own' | 'one';
}

export type ComparisonError =
  | { tag: 'noRows' }
  | { tag: 'oneTreatment'; treatment: string }
  | { tag: 'unknownControl'; control: string; known: string[] }
  | { tag: 'unitInTwoTreatments'; unit: string; treatments: [string, string] }
  | { tag: 'unitInTwoBlocks'; unit: string; blocks: [string, string] }
  | { tag: 'disconnected'; a: string; b: string }
  | { tag: 'notFinite'; index: number };

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
