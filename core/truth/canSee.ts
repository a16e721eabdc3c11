import { moreIsBetter } from '../analysis/goodness';
import type { Plan, Trait } from '../model/plan';
import { kindOf } from '../model/traitKinds';
import { comparesPeers } from '../plan/control';
import { replicatesOf, sharesPlace } from '../plan/sharing';
import { countWord, plural } from '../quantity/format';
import { planIndex } from '../plan/planIndex';
import type { MadeUp } from './madeUp';
import { tryOut } from './tried';

/** A plain difference of a kind of value, in words, and the truth that makes it. */
interface Example {
  levels: [number, number];
  scatter: number;
  until?: number;
  /** what takes it, and what is to be told, in words */
  said: readonly [takes: string, what: string];
}

/** What a kind of value that isn't a figure is tried out with; null for figures, which the rehearsal runs itself. */
function exampleOf(trait: Trait): Example | null {
  const up = moreIsBetter(trait);
  const both = (low: number, high: number): [number, number] => (up ? [low, high] : [high, low]);
  switch (kindOf(trait).observes) {
    case 'kOfN':
      // Out of how many is the reviewer's to say.
      if (trait.outOf === null) return null;
      return {
        levels: both(0.4, 0.8),
        scatter: 0.2,
        said: [`k of ${countWord(trait.outOf)}`, up ? '40 from 80 %' : '80 from 40 %'],
      };
    case 'count':
      return { levels: both(8, 20), scatter: 0.25, said: ['a count', up ? '8 from 20' : '20 from 8'] };
    case 'level': {
      const steps = trait.scale.map((s) => s.value);
      const middle = steps.length === 0 ? 3 : (Math.min(...steps) + Math.max(...steps)) / 2;
      return { levels: both(middle - 1, middle + 1), scatter: 0.8, said: ['a score', 'two steps apart'] };
    }
    case 'event':
      return {
        levels: both(12, 20),
        scatter: 2,
        until: 21,
        said: [
          'days until',
          `${up ? '12 from 20' : '20 from 12'} days where some haven’t got there by the last look`,
        ],
      };
    default:
      return null;
  }
}

const RUNS = 200;
/** Found in fewer of a hundred, it can't be told; in so many a plan would do. */
const [CANT, WOULD] = [0.1, 0.5];
const MOST_UNITS = 12;

/**
 * What the plan's deciding trait can tell where it isn't a figure: one contender differs plainly, the others not at all, and
 * the findings' own functions look at it two hundred times over.
 *
 * @returns a sentence; null for figures and words, without contenders, and where nothing says how many units there are
 * @example canSee(plan) // 'With 3 trays of each, k of ten can’t tell 40 from 80 %; 5 would.'
 */
export function canSee(plan: Plan): string | null {
  const trait = plan.primaryTraitId === null ? undefined : planIndex(plan).trait(plan.primaryTraitId);
  const example = trait && exampleOf(trait);
  const arms = plan.treatments.length;
  if (!trait || !example || arms < 2) return null;
  const laid = plan.units.length > 0;
  const each = laid
    ? Math.min(...plan.treatments.map((t) => replicatesOf(plan, t.id)))
    : plan.design?.replicates;
  if (each === undefined) return null;
  const blocked = laid
    ? !sharesPlace(plan) && plan.units.every((u) => u.block !== null)
    : plan.design!.kind !== 'crd';
  const powerAt = (n: number): number => {
    const made: MadeUp = {
      trait,
      design: blocked ? 'blocks' : 'random',
      units: Array.from({ length: arms }, () => n),
      levels: Array.from({ length: arms }, (_, i) => example.levels[i === 1 ? 1 : 0]),
      scatter: example.scatter,
      ...(example.until !== undefined && { until: example.until }),
      ...(comparesPeers(plan) && { peers: true }),
    };
    return tryOut(made, { runs: RUNS, seed: 1 }).found;
  };
  const now = powerAt(each);
  const [takes, what] = example.said;
  const units = `With ${each} ${each === 1 ? plan.unitNoun : plural(plan.unitNoun)} of each, ${takes}`;
  if (now >= CANT) return `${units} tells ${what} in ${Math.round(100 * now)} of 100 trials.`;
  // A few steps are enough to plan by.
  const enough = [each + 1, each + 2, 6, 8, MOST_UNITS].find((n) => n > each && powerAt(n) >= WOULD);
  return `${units} can’t tell ${what}; ${enough === undefined ? `even ${MOST_UNITS} wouldn’t` : `${enough} would`}.`;
}
