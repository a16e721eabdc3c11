/** One step of a written scale: what has to be seen for this figure. */
export interface Step {
  value: number;
  text: string;
}

/** What a kind of trait needs to know of the trait. */
interface TraitShape {
  unit: string;
  decimals: number;
  samplesPerUnit: number;
  halfSteps?: true | undefined;
  outOf: number | null;
  scale: readonly Step[];
}

/** A value as it was written down. */
export interface Written {
  value: number;
  /** n of a k-of-n value, where it was said with the value */
  outOf: number | null;
  /** it hadn't happened when last looked at */
  notYet: boolean;
  /** of k of n: so many more are borderline */
  borderline?: number | undefined;
  /** of k of n: so many of k aren't true to type */
  offType?: number | undefined;
}

/**
 * What was observed, not a number made from it. Means, per cents and sums are made by the analyses.
 * - continuous: a figure in the trait's unit
 * - count: so many, of something that could be seen so much of (plants, area …)
 * - kOfN: so many of so many
 * - level: a step of a written scale, or between two
 * - event: the day on which it was seen to have happened; or, when not, the day of the last look
 * - rank: 1 is first
 * - words: read, not compared
 */
export type Observed =
  | { type: 'continuous'; value: number }
  | { type: 'count'; count: number; exposure: number }
  | {
      type: 'kOfN';
      k: number;
      n: number;
      /** so many more are borderline, not in k */
      borderline?: number;
      /** so many of k aren't true to type */
      offType?: number;
    }
  | { type: 'level'; level: number }
  | { type: 'event'; happened: boolean; day: number }
  | { type: 'rank'; rank: number }
  | { type: 'words'; text: string };
export type ObservedType = Observed['type'];

/** What the Question asks of a trait of this kind beside its name. */
type TraitField =
  | 'direction'
  | 'plausible'
  | 'decimals'
  | 'samples'
  | 'summary'
  | 'per'
  | 'outOf'
  | 'scale'
  | 'constant'
  | 'halves'
  | 'countsAs'
  | 'withinBlocks';

/**
 * A way to take a trait. Adding one is adding a file in this folder and naming it in `index.ts`.
 */
export interface TraitKindSpec {
  /** as the Question names it */
  name: string;
  /** where it is taken: typed, written or put in order in Rounds, weighed in Weigh-in, worked out from picks or drying */
  takenBy: 'pad' | 'words' | 'order' | 'scale' | 'picks' | 'oven';
  observes: ObservedType;
  fields: readonly TraitField[];
  /** the unit it must be kept in; null: any */
  fixedUnit: string | null;
  observed: (written: Written, trait: TraitShape) => Observed;
  /** what can't be a value of the trait, in words; null for a value that can */
  fault: (value: number, trait: TraitShape) => string | null;
  /** what is tapped instead of typed, best first; empty where figures are typed */
  choices: (trait: TraitShape) => Step[];
  /** what stands behind the figure on the pad */
  padUnit: (trait: TraitShape) => string;
  /** samples taken of each crop within a unit */
  samples: (trait: TraitShape) => number;
  /** how the crops of a unit make one: weights are added, all else is averaged */
  overCrops: 'mean' | 'sum';
  /** whether a value is held against the unit's last one */
  jumpsAreOdd: boolean;
  /** a true value as it would be written down, for simulated trials */
  takenAs: (drawn: number, trait: TraitShape) => number;
}

export const wholeNumber = (value: number, said: string): string | null =>
  Number.isInteger(value) ? null : said;
export const rounded = (drawn: number, trait: TraitShape): number => Number(drawn.toFixed(trait.decimals));

/** What a figure typed on the pad is, unless a kind says otherwise. */
export const typedFigure = {
  takenBy: 'pad',
  fixedUnit: null,
  fault: () => null,
  choices: () => [],
  padUnit: (trait) => trait.unit,
  samples: (trait) => trait.samplesPerUnit,
  overCrops: 'mean',
  jumpsAreOdd: true,
  takenAs: rounded,
} as const satisfies Partial<TraitKindSpec>;
