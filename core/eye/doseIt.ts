import { aroundProduct, resolveRate } from '../mixing/resolveRate';
import { DOSE_ERROR_LIMIT, roundToStep } from '../mixing/rounding';
import { blankProduct } from '../model/blankProduct';
import type { ProductId } from '../model/ids';
import { formatFigure } from '../quantity/format';
import { parseRate } from '../quantity/rate';
import { type MeasureSystem, measureWorth, systemNames } from '../quantity/units';
import { type Random, oneOf, seededRandom } from '../stats/random';

/** Something that is worked out, with what comes out, or chosen. */
export type DoseStep =
  | {
      kind: 'figure';
      asks: string;
      unit: string;
      answer: number;
      /** off by so much still counts, per cent; 0: to the step of the tool */
      within: number;
      why: string;
    }
  | { kind: 'choice'; asks: string; options: string[]; answer: number; why: string };

export interface DoseCase {
  seed: number;
  /** what the label says, what the bucket holds, what there is to measure with */
  given: string[];
  steps: DoseStep[];
}

/** How a label prints it, from plain to the traps people fall into. */
interface Print {
  /** what a number stands before */
  text: string;
  liquid: boolean;
  amounts: readonly number[];
  measures: MeasureSystem;
  trap: string;
}

const us: MeasureSystem = { spoon: 'us', gallon: 'us' };
const imperial: MeasureSystem = { spoon: 'imperial', gallon: 'imperial' };
const metric: MeasureSystem = { spoon: 'metric', gallon: 'imperial' };

const prints: readonly Print[] = [
  {
    text: 'mL per L',
    liquid: true,
    amounts: [2, 2.5, 4, 5],
    measures: us,
    trap: 'Label and bucket are both in litres.',
  },
  {
    text: 'g per L',
    liquid: false,
    amounts: [0.8, 1, 1.5, 2],
    measures: us,
    trap: 'Label and bucket are both in litres.',
  },
  {
    text: 'mL per 10 L',
    liquid: true,
    amounts: [15, 25, 40],
    measures: us,
    trap: 'The label is for ten litres.',
  },
  { text: 'g per gal', liquid: false, amounts: [2.4, 3.2, 6], measures: us, trap: 'A US gallon is 3.785 L.' },
  {
    text: 'tsp per gal',
    liquid: true,
    amounts: [1, 1.5, 2],
    measures: us,
    trap: 'A US teaspoon is 4.93 mL, a US gallon 3.785 L.',
  },
  {
    text: 'tbsp per gal',
    liquid: true,
    amounts: [1, 2],
    measures: us,
    trap: 'A tablespoon is three teaspoons, not one: 14.79 mL.',
  },
  {
    text: 'fl oz per gal',
    liquid: true,
    amounts: [0.5, 1, 2],
    measures: imperial,
    trap: 'An imperial fluid ounce is 28.41 mL and its gallon 4.546 L; the US ones are 29.57 mL and 3.785 L.',
  },
  {
    text: 'tsp per gal',
    liquid: true,
    amounts: [1, 2],
    measures: imperial,
    trap: 'An imperial gallon is 4.546 L, a fifth more than a US one.',
  },
  {
    text: 'tbsp per 5 L',
    liquid: true,
    amounts: [1, 2],
    measures: metric,
    trap: 'A metric tablespoon is 15 mL, and the label is for five litres.',
  },
];

const litres = (x: number) => `${Number(x.toPrecision(3))} L`;

/** @param level how hard, 0 … 1: the harder, the more traps of units and the more steps */
export function doseCase(seed: number, level: number): DoseCase {
  const random = seededRandom(seed);
  const reach = Math.max(2, Math.ceil(prints.length * (0.35 + 0.65 * level)));
  const print = prints[random.int(Math.max(0, Math.floor(reach / 2) - 2), reach - 1)]!;
  const product = {
    ...blankProduct('p' as ProductId, ''),
    form: print.liquid ? ('liquid' as const) : ('powder' as const),
  };
  const amount = oneOf(random, print.amounts);
  const rate = parseRate(`${amount} ${print.text}`);
  const worked = rate.ok ? resolveRate(rate.value, aroundProduct(product, print.measures)) : null;
  if (!worked?.ok) throw new Error(`a label that isn’t read: ${amount} ${print.text}`);
  const perL = worked.value.low;
  const unit = print.liquid ? 'mL' : 'g';
  const volume = bucketOf(random, level, print.measures);
  const whole = perL * volume.litres;
  const step = print.liquid ? 1 : random.uniform() < level ? 1 : 0.1;
  const tool = print.liquid
    ? `a syringe with marks every ${step} mL`
    : step === 1
      ? 'a kitchen scale that shows whole grams'
      : 'a scale that shows tenths of a gram';
  const measured = roundToStep(whole, step);
  const system = `${systemNames[print.measures.gallon]} measures`;
  const steps: DoseStep[] = [
    {
      kind: 'figure',
      asks: `How much is that for one litre?`,
      ...{ unit: `${unit}/L`, answer: perL, within: 2 },
      why: `${amount} ${print.text} is ${formatFigure(perL, 2)} ${unit} in a litre. ${print.trap}`,
    },
    {
      kind: 'figure',
      asks: `How much goes into the bucket?`,
      ...{ unit, answer: whole, within: 2 },
      why: `${volume.text}${volume.isGallons ? ` is ${litres(volume.litres)}` : ''}, times ${formatFigure(perL, 2)} ${unit}: ${formatFigure(whole, 2)} ${unit}.`,
    },
    {
      kind: 'figure',
      asks: `What do you read off ${print.liquid ? 'the syringe' : 'the scale'}?`,
      ...{ unit, answer: measured.measured, within: 0 },
      why: `The nearest it shows is ${measured.measured} ${unit}: ${formatFigure(Math.abs(measured.errorPercent), 0)} % ${measured.errorPercent < 0 ? 'short' : measured.errorPercent > 0 ? 'over' : 'off'}.${Math.abs(measured.errorPercent) > DOSE_ERROR_LIMIT ? ' A bigger batch, or a stock solution, brings that down.' : ''}`,
    },
  ];
  const more = extraSteps(random, perL);
  return {
    seed,
    given: [
      `The label: ${amount} ${print.text}${/gal|tsp|tbsp|oz/.test(print.text) ? ` (${system})` : ''}.`,
      `The bucket: ${volume.text} of water.`,
      `To measure with: ${tool}.`,
    ],
    steps: level > 0.35 ? [...steps, oneOf(random, more)] : steps,
  };
}

function bucketOf(random: Random, level: number, measures: MeasureSystem) {
  const isGallons = random.uniform() < level * 0.8;
  if (!isGallons) {
    const amount = oneOf(random, [3, 5, 7.5, 10, 12]);
    return { isGallons, litres: amount, text: litres(amount) };
  }
  const amount = oneOf(random, [1, 2, 2.5, 5]);
  const one = measureWorth({ unit: 'gal', system: measures.gallon }, measures).base / 1000;
  return { isGallons, litres: amount * one, text: `${amount} ${systemNames[measures.gallon]} gal` };
}

/** What else goes wrong at the bucket: parts together, strength of the water. */
function extraSteps(random: Random, perL: number): DoseStep[] {
  const water = oneOf(random, [0.2, 0.3, 0.4, 0.6]);
  const feed = oneOf(random, [0.8, 1.2, 1.4, 1.6]);
  const shuffled = random.shuffle([0, 1, 2]);
  const ways = [
    'each into the bucket on its own, stirred before the next',
    'both parts together into a cup, then into the bucket',
    'both parts undiluted into the empty bucket, water after',
  ];
  return [
    {
      kind: 'choice',
      asks: 'The feed has two parts. How do they go in?',
      options: shuffled.map((i) => ways[i]!),
      answer: shuffled.indexOf(0),
      why: 'Undiluted, the calcium of one part and the sulfate or phosphate of the other fall out as a solid no plant can use. Each is dissolved apart.',
    },
    {
      kind: 'figure',
      asks: `Your water reads ${water} mS/cm. In pure water this dose would read ${feed}. What will the meter show, about?`,
      ...{ unit: 'mS/cm', answer: Number((water + feed).toFixed(2)), within: 3 },
      why: `Strength adds up, about: ${water} of the water and ${feed} of the feed.`,
    },
    {
      kind: 'figure',
      asks: 'The label’s rate is for grown plants. Seedlings get half. How much for one litre now?',
      ...{ unit: 'per L', answer: perL / 2, within: 2 },
      why: `Half of ${formatFigure(perL, 2)}: ${formatFigure(perL / 2, 2)} in a litre. The water stays as much.`,
    },
  ];
}

/** Whether what was typed or chosen is right. @param given a figure in the step's unit, or the number of the option */
export function isRight(step: DoseStep, given: number): boolean {
  if (step.kind === 'choice') return given === step.answer;
  const off = Math.abs(given - step.answer);
  return (
    off <= Math.max(1e-9, (step.within / 100) * Math.abs(step.answer)) ||
    off < 0.005 * Number(step.within > 0)
  );
}
