import { z } from 'zod';
import { numberIn } from '~core/quantity/number';
import { unitAt } from '~core/quantity/units';
import { farFromRound, implausible } from '~core/log/plausible';
import type { Observation } from '~core/log/observation';
import type { TrialState } from '~core/log/state';
import { type Round, type Trait, type Unit, kindOf } from '~core/model/plan';
import { replacing } from '../../walk/stops';

/** What is typed on the pad of a round. */
export const PadDraft = z.object({
  /** as the keys were pressed */
  text: z.string(),
  /** words on the unit, by trait: kept with its value */
  words: z.record(z.string(), z.string()),
  /** of k of n: so many more are borderline */
  borderline: z.number(),
  /** of k of n: so many of k aren't true to type */
  offType: z.number(),
});
export type PadDraft = z.infer<typeof PadDraft>;

export const blankPad: PadDraft = { text: '', words: {}, borderline: 0, offType: 0 };

/** Whether nothing was typed. */
export const isBlankPad = ({ text, words, borderline, offType }: PadDraft): boolean =>
  text === '' && borderline === 0 && offType === 0 && Object.values(words).every((w) => w.trim() === '');

/** The figure that stands on the pad; null where there is none yet. */
export const valueOn = ({ text }: PadDraft): number | null => (text === '0.' ? null : numberIn(text));

/** Whether a tape with eighths is read for it. */
export const inEighths = ({ unit }: Pick<Trait, 'unit'>): boolean =>
  ['in', 'ft', 'yd', 'oz', 'lb'].some((name) => unitAt(unit, ['length', 'mass'])?.name === name);

/** Why a value can't be: it isn't kept. */
export function faultOnPad(trait: Trait, value: number, { borderline, offType }: PadDraft): string | null {
  const fault = kindOf(trait).fault(value, trait);
  if (fault) return fault;
  if (trait.outOf !== null && value + borderline > trait.outOf)
    return `${value} and ${borderline} borderline are more than ${trait.outOf}.`;
  return offType > value ? `${offType} off type are more than the ${value} counted.` : null;
}

interface Asked {
  unit: Unit;
  trait: Trait;
  round: Round;
  value: number;
  sample: number | null;
  /** what the log has of it in this round */
  standing: Observation | undefined;
  /** null where a value for another day than the round's was confirmed already */
  today: string | null;
}

/** What is odd about a value: it is kept when it is said once more. */
export function doubtOnPad(
  state: TrialState,
  { unit, trait, round, value, sample, standing, today }: Asked,
): string | null {
  const doubts = [
    standing && !standing.notYet && standing.value !== value ? replacing(standing, trait) : null,
    implausible(state, unit.id, trait, value, round.id, sample),
    today === null ? null : farFromRound(state.plan, round, today),
  ].filter((d) => d !== null);
  return doubts.length > 0 ? doubts.join(' ') : null;
}
