import { formatFigure } from '../quantity/format';
import { type Random, seededRandom } from '../stats/random';
import { weightedKappa } from '../stats/weightedKappa';

/** One thing to be scored: how much of it is there, 0 … 1, and how it lies. */
export interface Shown {
  /** the same for both times */
  thing: number;
  /** share that is covered */
  cover: number;
  seed: number;
  /** shown turned by half, so that it isn't known again */
  turned: boolean;
}

/** A written scale of cover, one step a share; practised where a trial brings none. */
export const coverScale = [
  { value: 1, text: 'bare: a few leaves', from: 0 },
  { value: 2, text: 'up to a quarter covered', from: 0.1 },
  { value: 3, text: 'up to half covered', from: 0.25 },
  { value: 4, text: 'more than half covered', from: 0.5 },
  { value: 5, text: 'closed: hardly any ground', from: 0.75 },
] as const;

/** The step of the written scale that a share belongs to. */
export const trueStep = (cover: number): number =>
  coverScale.findLast((s) => cover >= s.from)?.value ?? coverScale[0].value;

/**
 * Pictures in the order they are shown: some come again, turned, not right after each other.
 * @param things different ones
 * @param again how many come twice
 * @param level how hard, 0 … 1
 */
export function scoringSeries(seed: number, things: number, again: number, level = 0): Shown[] {
  const random = seededRandom(seed);
  // The harder, the nearer to where two steps of the written scale meet.
  const nearBorder = (cover: number) => {
    const border = coverScale
      .slice(1)
      .reduce((best, s) => (Math.abs(s.from - cover) < Math.abs(best - cover) ? s.from : best), 0.1);
    return cover + (border - cover) * 0.8 * level;
  };
  const all = Array.from({ length: things }, (_, thing): Shown => ({
    ...{ thing, turned: false, seed: random.int(1, 1_000_000) },
    cover: nearBorder(0.03 + 0.92 * ((thing + random.uniform()) / things)),
  }));
  const first = random.shuffle(all);
  const second = random.shuffle(all.slice()).slice(0, again);
  return second.reduce((list, s) => inLater(list, { ...s, turned: true }, random), first);
}

/** Puts a second showing at least three behind the first, where there is room. */
function inLater(list: readonly Shown[], s: Shown, random: Random): Shown[] {
  const at = list.findIndex((x) => x.thing === s.thing && !x.turned);
  const from = Math.min(list.length, at + 3);
  const to = random.int(from, list.length);
  return [...list.slice(0, to), s, ...list.slice(to)];
}

/** How far two scorings of the same things agree, and where the second lies. */
export interface Agreement {
  pairs: number;
  /** the same step both times */
  same: number;
  /** null: every score was the same step, nothing to agree on */
  kappa: number | null;
  /** mean of second less first, in steps */
  drift: number;
  /** the step scored most differently, with how many of its pairs were not the same; null: none */
  weakest: { step: number; apart: number; of: number } | null;
}

/** @param pairs both scores of each thing, the first first @param steps of the scale, in order */
export function agreement(
  pairs: readonly (readonly [number, number])[],
  steps: readonly number[],
): Agreement {
  const byStep = steps.map((step) => {
    const own = pairs.filter(([a]) => a === step);
    return { step, apart: own.filter(([a, b]) => a !== b).length, of: own.length };
  });
  const worst = byStep.filter((s) => s.apart > 0).sort((a, b) => b.apart / b.of - a.apart / a.of)[0];
  return {
    pairs: pairs.length,
    same: pairs.filter(([a, b]) => a === b).length,
    kappa: weightedKappa(pairs, steps, 'linear'),
    drift: pairs.length === 0 ? 0 : pairs.reduce((s, [a, b]) => s + b - a, 0) / pairs.length,
    weakest: worst ?? null,
  };
}

/**
 * How steady a scorer was, in a sentence; or how far two agree.
 * @param by one person twice, or two people once each
 * @example sayAgreement({ pairs: 10, same: 8, kappa: 0.81, … }) // '8 of 10 pictures got the same step twice; weighted kappa 0.81.'
 */
export function sayAgreement(
  { pairs, same, kappa, drift, weakest }: Agreement,
  by: 'one' | 'both' = 'one',
): string {
  if (pairs === 0) return 'Nothing was scored twice yet.';
  const all = `${same} of ${pairs} ${pairs === 1 ? 'picture' : 'pictures'} got the same step ${by === 'one' ? 'twice' : 'from both'}`;
  const how =
    kappa === null
      ? '; all got one step, so agreement beyond chance can’t be said'
      : `; weighted kappa ${formatFigure(kappa, 2)}`;
  const leans =
    Math.abs(drift) >= 0.25
      ? ` ${by === 'one' ? 'The second time they were scored' : 'The second person scored them'} ${formatFigure(Math.abs(drift), 1)} steps ${drift > 0 ? 'higher' : 'lower'} on average.`
      : '';
  const where =
    weakest && same < pairs
      ? ` Step ${weakest.step} is the least steady: ${weakest.apart} of ${weakest.of} differed.`
      : '';
  return `${all}${how}.${leans}${where}`;
}
