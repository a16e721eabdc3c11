import type { TrialStage } from '~core/schedule/rounds';

/** A trial as Today lists it, as it may be shown. */
export interface TrialLine {
  id: string;
  question: string;
  /** crop and units. @example 'basil · 12 trays' */
  about: string;
  contenders: string[];
  /** the tile of each of them */
  tiles: readonly number[];
  stage: TrialStage;
  startDate: string;
  /** what comes next */
  summary: string;
  blind: boolean;
}

/** A trial that nothing is left to do of, as it will be listed on any later day. */
export interface SettledRow {
  id: string;
  /** the trial's revision then */
  rev: number;
  /** the day it was seen to be so */
  on: string;
  /** the build that said so: another may say it otherwise */
  build: string;
  line: TrialLine;
}
