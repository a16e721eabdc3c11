import type { Visit } from '../log/response';
import type { Trait } from '../model/plan';
import type { ComparisonError } from '../stats/comparison';
import type { Result } from '../model/result';
import type { ObservedType } from '../model/traitKinds';
import type { Contrast } from './contrast';

/** An experimental unit as it goes into an analysis: what got the treatment on its own, with what was observed. */
export interface AnalysisRow {
  unit: string;
  treatment: string;
  /** block, or row of a Latin square; null where the design has none */
  block: string | null;
  /** column of a Latin square */
  column: string | null;
  /** the visits that count, in the order of their days */
  visits: Visit[];
  /** what the unit's figure is divided by: plants, m²; 1 where it is per unit */
  divisor: number;
}

export interface AnalysisInput {
  trait: Trait;
  rows: readonly AnalysisRow[];
  control: string;
  /** equals are compared: every pair alike, none is held against the control more than against another */
  peers?: boolean;
  /** order of the treatments in the result */
  order: readonly string[];
  /** family-wise error and 1 − confidence */
  alpha: number;
}

/** A treatment in a result. */
export interface Summary {
  name: string;
  /** experimental units */
  n: number;
  /** plain mean of the units */
  mean: number;
  /** the figure contrasts are made of: the mean, adjusted for blocks where there are any */
  estimate: number;
  low: number | null;
  high: number | null;
  /** null for one unit */
  sd: number | null;
  min: number;
  max: number;
  /** what the figure was counted from, e.g. 7/20; left out where it wasn't counted */
  counted?: string;
  /** what is said in place of a figure that wasn't reached; \`estimate\` then serves the order alone */
  shown?: string;
}

/**
 * Whether there was a spread to test against:
 * - shown: yes
 * - oneEach: one unit of each treatment
 * - noFreedom: none left after blocks
 * - zero: units of a treatment read the same, to the last figure recorded
 * - tooFew: even the most extreme outcome would be likelier by chance than the level asks for
 * - alone: one treatment alone has values
 * - disconnected: treatments share no block, directly or through others
 */
export type Spread = 'shown' | 'oneEach' | 'noFreedom' | 'zero' | 'tooFew' | 'alone' | 'disconnected';

/** Something a method takes for granted, and what was seen of it. */
export interface Assumption {
  what: string;
  /** what is said where it doesn't hold */
  fails?: string;
  /** null: can't be looked at */
  holds: boolean | null;
  seen: string;
}

/** The answer of a method, in plain data: it crosses to and from a worker. */
export interface Analysis {
  method: string;
  alpha: number;
  control: string;
  spread: Spread;
  summaries: Summary[];
  /** every other treatment against the control */
  versusControl: Contrast[];
  /** every pair once; those with the control are the contrasts above, read either way */
  pairs: Contrast[];
  assumptions: Assumption[];
  /** pooled spread between units of a treatment, in the trait's unit; null where there is none */
  unitSd: number | null;
  /** degrees of freedom that spread was seen with; left out where there is none */
  unitDf?: number;
  /** the method's own small print, without what it assumes */
  smallPrint: string;
}

export type AnalysisError = ComparisonError | { tag: 'notForThis'; method: string };

/**
 * A way to analyse. Adding one is adding a file in `methods/` and naming it in its index; nothing outside that
 * folder asks for a trait's kind or for a method's own figures.
 */
export interface Method {
  id: string;
  /** as the reader chooses it */
  name: string;
  /** what its figure of a treatment is: mean, median, rate … */
  figure: string;
  /** kinds of value it takes */
  accepts: readonly ObservedType[];
  /** left out: every trait of those kinds */
  takes?: (trait: Trait) => boolean;
  analyse: (input: AnalysisInput) => Result<Analysis, AnalysisError>;
}
