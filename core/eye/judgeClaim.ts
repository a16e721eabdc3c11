import { type Finding, makeFinding } from '../account/finding';
import { contrastOf } from '../account/outcomes';
import { blankPlan, blankTreatment } from '../model/blankPlan';
import { blankProduct } from '../model/blankProduct';
import type { ProductId, TraitId, TreatmentId, TrialId } from '../model/ids';
import type { SetClaim } from '../model/judgement';
import type { Plan, Trait } from '../model/plan';
import { formatFigure } from '../quantity/format';
import { seededRandom } from '../stats/random';
import { type MadeUp, inputOf, rowsOf } from '../truth/madeUp';
import { judgeClaims } from '../verdict/claims';
import { readChange } from '../verdict/readChange';

/** What a label's sentence can be called; “not tested” isn't asked. */
export const stamps = ['borneOut', 'inPart', 'notShown', 'contradicted'] as const;
export type Stamp = (typeof stamps)[number];

export interface ClaimCase {
  seed: number;
  /** the label's sentence */
  claim: string;
  /** what a trial found, in a sentence */
  found: string;
  truth: Stamp;
  /** why, with the figures */
  why: string;
  finding: Finding;
}

const trait: Trait = {
  id: 'cut' as TraitId,
  name: 'Cut weight',
  unit: 'g',
  kind: 'weighing',
  direction: 'higher',
  ...{ bandLow: null, bandHigh: null, plausibleLow: null, plausibleHigh: null, outOf: null },
  ...{ decimals: 1, samplesPerUnit: 1, summary: 'last', scale: [] },
};

const WATER = 't0' as TreatmentId;
const FEED = 't1' as TreatmentId;
const named = (id: string) => (id === WATER ? 'water' : 'the feed');

const planOf = (claim: string): Plan => ({
  ...blankPlan({
    ...{ id: 'eye' as TrialId, question: claim, code: 'EYE', crop: 'cress', unitNoun: 'tray' },
    ...{ startDate: '2026-01-01', currency: 'EUR' },
  }),
  traits: [trait],
  primaryTraitId: trait.id,
  treatments: [
    { ...blankTreatment('Water', 'untreated'), id: WATER },
    { ...blankTreatment('The feed', 'test'), id: FEED },
  ],
  products: [{ ...blankProduct('feed' as ProductId, 'The feed'), claims: [{ id: 'claim', text: claim }] }],
});

/** “25 % more yield”, “up to 25 % more yield”, “more yield”. */
const sentence = ({ percent, upTo }: Pick<SetClaim, 'percent' | 'upTo'>) =>
  percent === null ? 'More yield' : `${upTo ? 'Up to ' : ''}${percent} % more yield`;

/** @param level how hard, 0 … 1: the harder, the nearer to the borders between the four */
export function claimCase(seed: number, level: number): ClaimCase {
  for (let at = seed; ; at = (at + 7919) >>> 0) {
    const made = tryCase(at, level, stamps[seed % stamps.length]!);
    if (made) return { ...made, seed };
  }
}

/** A case of the wanted kind, as near to its borders as the level asks; null where chance made another. */
function tryCase(seed: number, level: number, wanted: Stamp): ClaimCase | null {
  const random = seededRandom(seed);
  const each = random.int(4, 8);
  const percent = random.uniform() < 0.2 ? null : 5 * random.int(2, 8);
  const upTo = percent !== null && random.uniform() < 0.35;
  const change = -15 + 55 * random.uniform();
  const made: MadeUp = {
    ...{ trait, design: 'random', units: [each, each], levels: [60, 60 * (1 + change / 100)] },
    scatter: 60 * (0.05 + 0.1 * random.uniform()),
  };
  const found = makeFinding(inputOf(made, rowsOf(made, random)));
  if (!found.ok) return null;
  const claim = sentence({ percent, upTo });
  const set: SetClaim = {
    ...{ claimId: 'claim', productId: 'feed', treatmentId: FEED, traitId: trait.id, direction: 'more' },
    ...{ percent, upTo, absolute: false },
  };
  const judged = judgeClaims(planOf(claim), [set], [found.value], named)[0]!;
  const change95 = readChange(contrastOf(found.value, FEED, WATER)!, found.value);
  if (judged.verdict !== wanted || change95 === null || change95.unit !== '%') return null;
  const { estimate, low, high } = change95;
  // How near the interval comes to what would change the word.
  const borders = [0, percent ?? 0];
  const near = Math.min(...borders.flatMap((b) => [low, high, estimate].map((x) => Math.abs(x - b))));
  if (near > 12 - 10 * level || near < 0.6) return null;
  const show = (x: number) => `${x > 0 ? '+' : x < 0 ? '−' : ''}${formatFigure(Math.abs(x), 0)}`;
  return {
    ...{ seed, claim, truth: wanted, why: judged.text, finding: found.value },
    found: `${each} trays of each. Cut weight against water: ${show(estimate)} % (95 % interval ${show(low)} to ${show(high)} %).`,
  };
}
