import type { RoundId, TraitId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { lookScale } from '~core/schedule/protocols/protocol';
import type { ScaleStep, Trait } from '~core/model/plan';
import { shownIn } from '../../form/schemaFields';
import { type QuestionFormInput, TraitForm } from './questionForm';

/** Steps of a scale from the words for each. */
export const stepsOf = (words: readonly string[]): ScaleStep[] =>
  words.map((text, i) => ({ value: i + 1, text }));

/** A trait to start from; the examples under the empty list. */
const traitExamples = {
  weight: { name: 'Cut weight', unit: 'g', kind: 'weighing', decimals: 1, summary: 'sum' },
  height: { name: 'Plant height', unit: 'cm', kind: 'number', role: 'height', decimals: 1, summary: 'last' },
  count: { name: '', unit: '', kind: 'count', decimals: 0, summary: 'last' },
  ratio: { name: 'Rooted', unit: '%', kind: 'ratio', decimals: 0, summary: 'last', outOf: 5 },
  score: {
    name: 'Look',
    unit: 'points',
    kind: 'score',
    decimals: 1,
    summary: 'last',
    scale: stepsOf(lookScale),
  },
  picks: { name: 'Picked weight', unit: 'g', kind: 'pickWeight', decimals: 0, summary: 'last' },
  pickShare: { name: 'Sound fruit', unit: '%', kind: 'pickSound', decimals: 0, summary: 'last' },
  pickFirst: {
    name: 'Days to the first pick',
    unit: 'days',
    kind: 'pickFirst',
    decimals: 0,
    summary: 'last',
    direction: 'lower',
  },
  rank: { name: 'Rank by eye', unit: '', kind: 'rank', decimals: 0, summary: 'last', direction: 'lower' },
  blank: { name: '', unit: '', kind: 'number', decimals: 1, summary: 'last' },
} as const satisfies Record<string, Partial<Trait>>;

/** @param over what else is said of it */
export const newTrait = (
  example: keyof typeof traitExamples,
  over: Partial<Trait> = {},
): QuestionFormInput['traits'][number] =>
  shownIn(TraitForm, {
    id: newId<TraitId>(),
    direction: 'higher',
    ...{ bandLow: null, bandHigh: null, plausibleLow: null, plausibleHigh: null },
    samplesPerUnit: 1,
    outOf: null,
    scale: [],
    ...traitExamples[example],
    ...over,
  });

export const newRound = (n: number, day: number, traitIds: readonly string[]) => ({
  id: newId<RoundId>() as string,
  name: `Round ${n}`,
  day: String(day),
  traitIds: [...traitIds],
});
