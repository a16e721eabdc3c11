import type { Factor } from '~core/model/plan';
import { roleInFactorial } from '~core/plan/ownControl';
import type { TreatmentInput } from './contendersForm';
import { newTreatment } from './newContender';

/** A level of a factor and what it adds to a treatment; a plain level adds nothing. */
export interface LevelInput {
  name: string;
  use: TreatmentInput['products'][number] | null;
}

export interface FactorInput {
  name: string;
  levels: LevelInput[];
}

/**
 * All combinations of the factors' levels as contenders, in order, the plain one first; each with the role it has
 * beside the others.
 *
 * @param factors two or more, each with two or more levels
 * @param like a contender whose surroundings are taken over
 * @example base (none, Duo) × additive (none, Alga) // none · none, none · Alga, Duo · none, Duo · Alga
 */
export function combinations(factors: readonly FactorInput[], like?: TreatmentInput): TreatmentInput[] {
  const all = factors.reduce<LevelInput[][]>(
    (sofar, f) => sofar.flatMap((combination) => f.levels.map((l) => [...combination, l])),
    [[]],
  );
  const made = all.map((combination) => ({
    name: combination
      .map((l) => l.name)
      .join(' · ')
      .slice(0, 80),
    levels: Object.fromEntries(combination.map((l, f) => [factors[f]!.name.trim(), l.name.trim()])),
    products: combination.flatMap((l) => (l.use ? [{ ...l.use }] : [])),
  }));
  const named = factorsOf(factors);
  return made.map((t) => ({ ...newTreatment(roleInFactorial(made, named, t), like), ...t }));
}

/** Contenders a trial can carry that are made at once. */
export const MOST_ARMS = 24;

/** What is wrong with the factors as typed, or null. */
export function factorProblem(factors: readonly FactorInput[]): string | null {
  for (const [i, f] of factors.entries()) {
    const which = f.name || `Factor ${i + 1}`;
    if (f.name.trim() === '') return `Factor ${i + 1} needs a name.`;
    if (factors.findIndex((o) => o.name.trim() === f.name.trim()) !== i)
      return `Two factors are called ${f.name}.`;
    if (f.levels.length < 2) return `${which} needs two levels or more.`;
    if (f.levels.some((l) => l.name.trim() === '')) return `${which} has a level without a name.`;
    if (new Set(f.levels.map((l) => l.name.trim())).size !== f.levels.length)
      return `${which} has a level twice.`;
    if (f.levels.some((l) => l.use && l.use.amount.trim() === '')) {
      return `${which}: give each product a dose.`;
    }
  }
  const count = factors.reduce((n, f) => n * f.levels.length, 1);
  return count > MOST_ARMS
    ? `${count} combinations are more than a trial can carry; ${MOST_ARMS} at most.`
    : null;
}

/** The factors as the plan keeps them. */
export const factorsOf = (factors: readonly FactorInput[]): Factor[] =>
  factors.map((f) => ({ name: f.name.trim(), levels: f.levels.map((l) => l.name.trim()) }));
