import { makeFinding } from '../account/finding';
import type { TraitId } from '../model/ids';
import type { Trait } from '../model/plan';
import { countWord, formatFigure, sentenceCase } from '../quantity/format';
import { headline } from '../say/headline';
import { oneOf, seededRandom } from '../stats/random';
import { type MadeUp, armsOf, inputOf, rowsOf } from '../truth/madeUp';

/** Dots of a made-up trial of equals: who won, or is it too close? */
export interface CallCase {
  seed: number;
  /** what was grown, one and several */
  noun: string;
  plural: string;
  what: string;
  unit: string;
  decimals: number;
  /** shown as pictures of trays, their cover in per cent; else as dots */
  pictured: boolean;
  /** values of each contender, A first */
  values: number[][];
  /** what it was drawn from */
  made: MadeUp;
  /** who truly is better than all others; null: all were drawn alike */
  best: number | null;
}

const crops = [
  { noun: 'lettuce head', plural: 'lettuce heads', what: 'weight', unit: 'g', mean: 210, decimals: 0 },
  { noun: 'tray of cress', plural: 'trays of cress', what: 'cut weight', unit: 'g', mean: 48, decimals: 1 },
  { noun: 'pot of basil', plural: 'pots of basil', what: 'height', unit: 'cm', mean: 24, decimals: 1 },
  { noun: 'bucket', plural: 'buckets', what: 'sound fruit', unit: 'g', mean: 1850, decimals: 0 },
  { noun: 'tray', plural: 'trays', what: 'ground covered', unit: '%', mean: 42, decimals: 0 },
] as const;

const traitOf = (c: (typeof crops)[number]): Trait => ({
  id: 'seen' as TraitId,
  name: sentenceCase(c.what),
  unit: c.unit,
  kind: 'number',
  direction: 'higher',
  ...{ bandLow: null, bandHigh: null, plausibleLow: null, plausibleHigh: null, outOf: null },
  ...{ decimals: c.decimals, samplesPerUnit: 1, summary: 'last', scale: [] },
});

/** Of how many scatters the best is ahead, from the easiest case to the hardest. */
const [FAR, NEAR] = [3.2, 1];

/** In half of the cases nothing differs. @param level how hard, 0 … 1 */
export function callCase(seed: number, level: number): CallCase {
  const random = seededRandom(seed);
  const crop = oneOf(random, crops);
  const arms = random.int(2, 4);
  const each = random.int(3, 8);
  const scatter = crop.mean * (0.08 + 0.1 * random.uniform());
  const differs = random.uniform() < 0.5;
  const best = differs ? random.int(0, arms - 1) : null;
  const ahead = scatter * (FAR + (NEAR - FAR) * level);
  const made: MadeUp = {
    trait: traitOf(crop),
    design: 'random',
    units: Array.from({ length: arms }, () => each),
    levels: Array.from({ length: arms }, (_, i) => crop.mean + (i === best ? ahead : 0)),
    scatter,
    peers: true,
  };
  const rows = rowsOf(made, random);
  const values = armsOf(made).map((arm) =>
    rows.flatMap((r) => {
      const seen = r.treatment === arm ? r.visits[0]!.samples[0]!.observed : null;
      if (seen?.type !== 'continuous') return [];
      const value = crop.unit === '%' ? Math.min(97, Math.max(3, seen.value)) : seen.value;
      return [Number(value.toFixed(crop.decimals))];
    }),
  );
  const { noun, plural, what, unit, decimals } = crop;
  const pictured = unit === '%';
  return { ...{ seed, noun, plural, what, unit, decimals, pictured }, values, made, best };
}

/** The rows of a case as it was shown, whole figures included. */
const shownRows = ({ made, values }: CallCase) =>
  rowsOf(made, seededRandom(0)).map((r, i) => {
    const own = armsOf(made).indexOf(r.treatment);
    const nth = i - made.units.slice(0, own).reduce((s, n) => s + n, 0);
    return {
      ...r,
      visits: r.visits.map((v) => ({
        ...v,
        samples: v.samples.map((s) => ({
          ...s,
          observed: { type: 'continuous' as const, value: values[own]![nth]! },
        })),
      })),
    };
  });

/** Who a finding says leads alone; null: too close. */
function leaderIn(made: MadeUp, rows: ReturnType<typeof rowsOf>): number | null {
  const found = makeFinding(inputOf(made, rows));
  if (!found.ok) return null;
  const leads = headline(found.value, (id) => id).facts.flatMap((f) => (f.is === 'leads' ? [f.a] : []));
  return leads.length === 1 ? armsOf(made).indexOf(leads[0]!) : null;
}

/** What the test says of a case: who leads alone, or that it is too close (null). */
export const testCalls = (c: CallCase): number | null => leaderIn(c.made, shownRows(c));

const mean = (xs: readonly number[]) => xs.reduce((s, x) => s + x, 0) / xs.length;
const gapOf = (means: readonly number[]) => {
  const [first, second] = [...means].sort((a, b) => b - a);
  return first! - second!;
};

/** How often the best of so many lies at least so far ahead when nothing differs, 0 … 1, by 4,000 draws. */
export function byChance({ made, values, seed }: CallCase): number {
  const gap = gapOf(values.map(mean));
  const random = seededRandom(seed + 1);
  const DRAWS = 4000;
  let as = 0;
  for (let i = 0; i < DRAWS; i++) {
    const means = made.units.map((n) => (made.scatter * random.normal()) / Math.sqrt(n));
    if (gapOf(means) >= gap) as += 1;
  }
  return as / DRAWS;
}

/** In how many of such trials, 0 … 1, the test names whoever is truly best. */
export function namedIn(c: CallCase, each: number, runs = 120): number {
  if (c.best === null) return 0;
  const random = seededRandom(c.seed + 2);
  const made = { ...c.made, units: c.made.units.map(() => each) };
  let named = 0;
  for (let i = 0; i < runs; i++) if (leaderIn(made, rowsOf(made, random)) === c.best) named += 1;
  return named / runs;
}

const SIZES = [4, 6, 8, 10, 12, 16];

/** The least number of each, up to 16, with which the test names the best in eight of ten such trials; null: more. */
export function wouldTell(c: CallCase, runs = 40): number | null {
  let [low, high] = [0, SIZES.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (namedIn(c, SIZES[middle]!, runs) >= 0.8) high = middle;
    else low = middle + 1;
  }
  return SIZES[low] ?? null;
}

export const letters = ['A', 'B', 'C', 'D'] as const;

/** “one in six”, “17 of 100”. @example ofHundred(0.17) // '17 of 100' */
const ofHundred = (share: number): string =>
  share < 0.005 ? 'fewer than one of 100' : `${Math.round(100 * share)} of 100`;

/** What is said once it is called: what was true, what the test said, and how far chance goes. */
export interface Told {
  title: string;
  text: string;
  right: boolean;
}

/** @param called a contender by its number; null: too close to call */
export function tellCall(c: CallCase, called: number | null, test: number | null): Told {
  const each = c.made.units[0]!;
  // Of shares points and per cent are two things.
  const figure = (x: number) => `${formatFigure(x, c.decimals)} ${c.pictured ? 'points of cover' : c.unit}`;
  const you = called === null ? 'You called it too close.' : `You called ${letters[called]}.`;
  const testSaid = test === null ? 'The test: too close to call.' : `The test: ${letters[test]} leads.`;
  const gap = gapOf(c.values.map(mean));
  if (c.best === null) {
    const all = c.values.length === 2 ? 'Both' : `All ${countWord(c.values.length)}`;
    return {
      title: `${you} Nothing was different.`,
      text: `${all} were drawn from one heap. With ${countWord(each)} ${c.plural} of each that vary like these, the best lies ${figure(gap)} or more ahead of the next in ${ofHundred(byChance(c))} trials by chance alone. ${testSaid}`,
      right: called === null,
    };
  }
  const truly = c.made.levels[c.best]! - Math.min(...c.made.levels);
  const enough = wouldTell(c);
  const need =
    enough === null
      ? 'Sixteen of each wouldn’t name it in eight of ten.'
      : enough <= each
        ? 'That many of each name it in eight of ten such trials.'
        : `${sentenceCase(countWord(enough))} of each would name it in eight of ten such trials.`;
  return {
    title: `${you} ${letters[c.best]} is truly better, by ${figure(truly)}.`,
    text: `${sentenceCase(countWord(each))} ${c.plural} of each show it ${figure(gapTo(c, c.best))} ahead of the best of the others. ${testSaid} ${need}`,
    right: called === c.best,
  };
}

/** How far a contender's mean lies ahead of the best of the others; below zero: behind. */
const gapTo = ({ values }: CallCase, of: number) =>
  mean(values[of]!) - Math.max(...values.filter((_, i) => i !== of).map(mean));
