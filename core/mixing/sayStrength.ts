import { howDense } from './density';
import type { MatchedArm } from './matching';
import type { Solution } from './solution';
import { STRENGTH_ERROR_PERCENT } from './strength';
import { formatFigure } from '../quantity/format';

/**
 * The estimated strength as it may be said: a floor where a product's share in it isn't known, and nothing where no
 * product's is.
 *
 * @param dosed products in the solution
 * @example sayStrength(solution, 1) // '1.62 mS/cm, ± 10 %'
 */
export function sayStrength(
  { strength: s, unknown }: Pick<Solution, 'strength' | 'unknown'>,
  dosed: number,
): string {
  const ec = (x: number) => formatFigure(x, 2);
  if (unknown.length > 0 && unknown.length >= dosed) return 'not known';
  if (s.incomplete) return `at least ${ec(s.ec)} mS/cm`;
  return s.high - s.low > 0.02
    ? `${ec(s.ec)} mS/cm, between ${ec(s.low)} and ${ec(s.high)}`
    : `${ec(s.ec)} mS/cm, ± ${STRENGTH_ERROR_PERCENT} %`;
}

/** What has to be known before a product's elements can be worked out. @example 'Luce: give its density (weigh 100 mL)' */
export const sayUnknown = (unknown: Solution['unknown']): string =>
  unknown.map((p) => `${p.name}: ${p.analysis === null ? 'its analysis' : howDense(p)}`).join('; ');

/** An element of a solution, mg/L: a floor where a product isn't known, and no figure where nothing is. */
export function sayElement(mgPerL: number, { unknown }: Pick<Solution, 'unknown'>): string {
  const figure =
    mgPerL === 0 ? '0' : mgPerL < 10 ? String(Number(mgPerL.toPrecision(2))) : String(Math.round(mgPerL));
  if (unknown.length === 0) return figure;
  return mgPerL === 0 ? 'not known' : `≥ ${figure}`;
}

/** A treatment's name with what one unit of it gets of an element in a week, mg. */
interface Weekly {
  name: string;
  mg: number | null;
}

/**
 * What litres and weeks say of a nutrient side by side: alike in a litre isn't alike for a unit.
 *
 * @param arms treatments with their names and what is in a litre
 * @param weekly what a unit gets in a week; left out where volumes aren't known
 * @example sayNutrient(arms, weekly, 'bucket')
 * // 'A litre of each has about the same nitrogen; in a week a bucket of A gets 345 mg, of B 188 mg.'
 */
export function sayNutrient(
  arms: readonly { name: string; arm: MatchedArm }[],
  weekly: readonly Weekly[],
  unitNoun: string,
): string {
  const fed = arms.filter(({ arm }) => arm.doses.length > 0 && arm.solution.unknown.length === 0);
  if (fed.length < 2) return 'Milligrams of each element in a litre, the water’s own included.';
  const nOf = (x: (typeof fed)[number]) => x.arm.solution.mgPerL.N;
  const sorted = [...fed].sort((a, b) => nOf(a) - nOf(b));
  const [least, most] = [sorted[0]!, sorted[sorted.length - 1]!];
  const times = nOf(most) / nOf(least);
  const head =
    times > ALIKE && Number.isFinite(times)
      ? `A litre of ${most.name} has ${formatFigure(times, 1)} times the nitrogen of a litre of ${least.name}: ${sayElement(nOf(most), most.arm.solution)} against ${sayElement(nOf(least), least.arm.solution)} mg`
      : 'A litre of each has about the same nitrogen';
  const known = weekly.filter((w): w is { name: string; mg: number } => w.mg !== null && w.mg > 0);
  const byWeek = [...known].sort((a, b) => b.mg - a.mg);
  const [high, low] = [byWeek[0], byWeek[byWeek.length - 1]];
  // Said where a week tells something else than a litre.
  if (!high || !low || high === low || Math.abs(high.mg / low.mg / times - 1) < ALIKE - 1) return `${head}.`;
  return `${head}; in a week a ${unitNoun} of ${high.name} gets ${formatFigure(high.mg, 0)} mg, of ${low.name} ${formatFigure(low.mg, 0)} mg.`;
}

/** Figures within a tenth are called about the same (practice). */
const ALIKE = 1.1;

/**
 * How long a pack lasts, in words.
 * @param forecast null where the trial takes nothing from it
 */
export function sayLasts(
  forecast: { outOnDay: number | null; ahead: number; perFeed: number } | null,
  left: number,
  dateOf: (day: number) => string,
): string {
  if (forecast === null) return 'not used by this trial';
  if (forecast.outOnDay !== null) return `day ${forecast.outOnDay}, ${dateOf(forecast.outOnDay)}`;
  if (forecast.ahead > 0) return 'lasts the programme';
  return left < forecast.perFeed * (1 - 1e-9)
    ? 'not enough for another feed'
    : 'no feeds planned on fixed days ahead';
}
