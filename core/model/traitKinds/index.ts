import { count } from './count';
import { dryWeight, waterShare } from './dry';
import type { TraitKindSpec } from './kind';
import { number } from './number';
import { pickCount, pickFirst, pickMean, pickSound, pickWeight } from './picks';
import { rank } from './rank';
import { ratio } from './ratio';
import { score } from './score';
import { text } from './text';
import { time } from './time';
import { weighing } from './weighing';
import { yesno } from './yesno';

export type * from './kind';

/** Every way to take a trait, by the name it is stored under, in the order the Question lists them. */
export const traitKinds = {
  number,
  count,
  weighing,
  dryWeight,
  waterShare,
  ratio,
  score,
  time,
  yesno,
  rank,
  text,
  pickWeight,
  pickCount,
  pickSound,
  pickMean,
  pickFirst,
} as const satisfies Record<string, TraitKindSpec>;

export type TraitKind = keyof typeof traitKinds;

/** How a trait is taken. @example kindOf({ kind: 'ratio' }).name // 'k of n' */
export const kindOf = (trait: { kind: TraitKind }): TraitKindSpec => traitKinds[trait.kind];
