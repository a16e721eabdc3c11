import { letterOf } from '../plan/letters';
import type { TrialState } from '../log/state';
import { roleNames } from '../model/plan';
import { countWord, formatFigure, listNames, plural, sentenceCase } from '../quantity/format';
import type { Finding } from '../account/finding';
import type { Verdict } from '../verdict/verdict';
import type { Block } from './block';

const unitsSaid: Record<string, string> = {
  g: 'grams',
  kg: 'kilograms',
  cm: 'centimetres',
  mm: 'millimetres',
  '%': 'per cent',
  L: 'litres',
  mL: 'millilitres',
};

/** A figure as it is said before a camera: whole where that is enough, its unit in words. @example spoken(80.94, 'g') // '81 grams' */
export const spoken = (value: number, unit: string): string =>
  `${formatFigure(value, Math.abs(value) >= 10 ? 0 : 1)} ${unitsSaid[unit] ?? unit}`.trim();

/**
 * A shot list and a spoken script in the order of the work: question, set-up, rounds, and only then who was what and what
 * came out. Contenders go by their letters until the reveal.
 */
export function filmingBlocks(
  state: TrialState,
  finding: Finding | null,
  verdict: Verdict | null,
  nameOf: (id: string) => string,
): Block[] {
  const { plan } = state;
  const letters = plan.treatments.map((_, i) => letterOf(i));
  const units = plural(plan.unitNoun);
  const scene = (title: string, shots: string[], said: string[]): Block[] => [
    { type: 'heading', level: 2, text: title },
    { type: 'list', items: shots.map((s) => `Shot: ${s}`) },
    ...said.map((text): Block => ({ type: 'paragraph', text })),
  ];
  const rounds = [...plan.rounds].sort((a, b) => a.day - b.day);
  const n = plan.design?.replicates ?? Math.round(plan.units.length / Math.max(1, plan.treatments.length));
  const byLot = plan.design !== null && plan.design.kind !== 'hand' && plan.design.kind !== 'interleave';
  const reveal = plan.treatments.map((t, i) => `${letters[i]} is ${t.name}, ${roleNames[t.role]}.`);
  const figures =
    finding === null
      ? []
      : plan.treatments.flatMap((t) => {
          const s = finding.analysis.summaries.find((x) => x.name === t.id);
          return s ? [`${nameOf(t.id)}: ${s.shown ?? spoken(s.estimate, finding.trait.unit)}.`] : [];
        });
  return [
    { type: 'heading', level: 1, text: `Filming: ${plan.question}` },
    ...scene(
      'The question',
      ['the host, the packs out of sight'],
      [plan.question, ...(plan.winning ? [`It is won by this: ${plan.winning}`] : [])],
    ),
    ...scene(
      'Set-up',
      [
        `one ${plan.unitNoun} of each, labels by letter`,
        `the whole place from above`,
        'the light meter or the balance',
      ],
      [
        `${sentenceCase(countWord(plan.treatments.length))} contenders, ${letters.join(', ')}, ${countWord(n)} ${n === 1 ? plan.unitNoun : units} of each${byLot ? '; who stands where was drawn by lot' : ''}.`,
        ...(plan.blinding === 'open' ? [] : ['What is in which stayed closed until the end.']),
      ],
    ),
    ...rounds.flatMap((r) =>
      scene(
        `${r.name}, day ${r.day}`,
        [
          `all ${units} from the same spot as before`,
          `the measuring of ${listNames(plan.traits.filter((t) => r.traitIds.includes(t.id)).map((t) => t.name.toLowerCase()))}`,
        ],
        ['No names, no guesses: an early leader isn’t the winner.'],
      ),
    ),
    ...scene('The reveal', ['the letters and the packs side by side'], reveal),
    ...scene(
      'The verdict',
      [`the best and the control side by side`, 'the picture of the finding'],
      [
        ...(verdict ? [verdict.headline.text] : ['Nothing is decided yet.']),
        ...figures,
        ...(verdict ? [verdict.bestValue.text] : []),
        ...(verdict ? verdict.cannotTell.slice(0, 2).map((c) => `What it can’t tell: ${c.text}`) : []),
      ],
    ),
  ];
}
