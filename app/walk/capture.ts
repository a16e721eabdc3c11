import type { z } from 'zod';
import type { EntryBody } from '~core/log/entry';
import type { Unit } from '~core/model/plan';

/** Where a value is taken. */
export interface Stop {
  unit: Unit;
  /** null where the unit is taken as a whole */
  sample: number | null;
}

/** What is typed, and how it is read off. Anything typed or taken stands in one draft till it is in the log. */
export interface Drafts<D> {
  /** what a draft that was put by is read with */
  schema: z.ZodType<D>;
  /** nothing typed */
  blank: D;
  isBlank: (draft: D) => boolean;
  /** the figures an Enter is for: others are another value */
  textOf: (draft: D) => string;
  /** what is typed for a unit stands there again when it is gone to: fields, not the figures of a pad */
  resumes: boolean;
}

/** One way of taking a value on a walk. */
export interface Capture<D> extends Drafts<D> {
  /** what is said of a draft that isn't kept */
  said: (draft: D) => string;
  /** why it can't be kept as it is */
  fault: (draft: D, at: Stop) => string | null;
  /** what is odd about it: it is kept when that is said once more. @param today null where its day was confirmed already */
  doubt: (draft: D, at: Stop, today: string | null) => string | null;
  /** the lines of the log; none: the stop is passed over, and stays open */
  bodies: (draft: D, at: Stop) => EntryBody[];
}
