import type { RoundId, TraitId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import { lookScale } from '~core/schedule/protocols/protocol';
import type { QuestionFormInput } from './questionForm';
import { scaleToText } from './writtenScale';

/** A trait to start from; the examples under the empty list. */
const traitExamples = {
  weight: { name: 'Cut weight', unit: 'g', kind: 'weighing', decimals: '1', summary: 'sum' },
  height: { name: 'Plant height', unit: 'cm', kind: 'number', decimals: '1', summary: 'last' },
  count: { name: '', unit: '', kind: 'count', decimals: '0', summary: 'last' },
  ratio: { name: 'Rooted', unit: '%', kind: 'ratio', decimals: '0', summary: 'last', outOf: '5' },
  score: {
    name: 'Look',
    unit: 'points',
    kind: 'score',
    decimals: '1',
    summary: 'last',
    scaleText: scaleToText(lookScale.map((text, i) => ({ value: i + 1, text }))),
  },
  picks: { name: 'Picked weight', unit: 'g', kind: 'pickWeight', decimals: '0', summary: 'last' },
  pickShare: { name: 'Sound fruit', unit: '%', kind: 'pickSound', decimals: '0', summary: 'last' },
  pickFirst: {
    name: 'Days to the first pick',
    unit: 'days',
    kind: 'pickFirst',
    decimals: '0',
    summary: 'last',
    direction: 'lower',
  },
  rank: { name: 'Rank by eye', unit: '', kind: 'rank', decimals: '0', summary: 'last', direction: 'lower' },
  blank: { name: '', unit: '', kind: 'number', decimals: '1', summary: 'last' },
} as const;

/** @param bare without another trait's scale in it */
export function newTrait(
  example: keyof typeof traitExamples,
  bare = false,
): QuestionFormInput['traits'][number] {
  return {
    id: newId<TraitId>(),
    direction: 'higher',
    bandLow: '',
    bandHigh: '',
    plausibleLow: '',
    plausibleHigh: '',
    samplesPerUnit: '1',
    per: 'unit',
    wholeUnit: false,
    evenDead: false,
    deadIsZero: false,
    halfSteps: false,
    withinBlocks: false,
    isHeight: example === 'height',
    countsAs: '',
    constantPercent: '',
    outOf: '',
    scaleText: '',
    ...traitExamples[example],
    ...(bare && { scaleText: '' }),
  };
}

export const newRound = (n: number, day: number, traitIds: readonly string[]) => ({
  id: newId<RoundId>() as string,
  name: `Round ${n}`,
  day: String(day),
  traitIds: [...traitIds],
});
