import type { Plan, Trait } from '../model/plan';
import { comparedValue } from '../analysis/goodness';
import { dunnettFamily } from '../stats/dunnett';
import { prepareLinearModel } from '../stats/linearModel';
import { seededRandom } from '../stats/random';
import { controlOf } from '../plan/control';
import type { OverTime } from './overTime';

/** What looking at every round, and stopping at the first clear difference, would do. */
interface Peeking {
  looks: number;
  /** share of trials with nothing in them in which some look finds a winner */
  falseWinner: number;
  /** the same for the last look alone */
  atTheEnd: number;
}

const SHUFFLES = 600;

/**
 * How often peeking crowns a false winner, rehearsed on the trial's own curves: contenders are dealt anew over the units
 * (inside blocks), so that nothing is in it, and every round is analysed as the end would be.
 *
 * @returns null with fewer than two whole rounds, without a control, or where nothing is left to test against
 */
export function peeking(plan: Plan, trait: Trait, time: OverTime, alpha = 0.05, seed = 1): Peeking | null {
  const control = controlOf(plan)?.id;
  const days = time.leads.map((l) => l.day);
  if (control === undefined || days.length < 2) return null;
  // Units that were there to the end: the others have no value on some day.
  const curves = time.curves.filter((c) => days.every((d) => c.points.some((p) => p.day === d)));
  const unit = new Map(plan.units.map((u) => [u.id as string, u]));
  const names = [control, ...plan.treatments.map((t) => t.id).filter((id) => id !== control)].filter((id) =>
    curves.some((c) => c.treatment === id),
  );
  if (names[0] !== control || names.length < 2) return null;
  const blocked = curves.every((c) => unit.get(c.unit)!.block !== null);
  const blocks = [...new Set(curves.map((c) => (blocked ? unit.get(c.unit)!.block : null)))];
  const blockOf = curves.map((c) => blocks.indexOf(blocked ? unit.get(c.unit)!.block : null));
  const values = days.map((day) =>
    curves.map((c) => comparedValue(trait, c.points.find((p) => p.day === day)!.value)),
  );
  const random = seededRandom(seed);
  let [any, last, done] = [0, 0, 0];
  const k = names.length;
  const equal = Array.from({ length: k - 1 }, (_, i) =>
    Array.from({ length: k - 1 }, (_, j) => (i === j ? 1 : 0.5)),
  );
  for (let s = 0; s < SHUFFLES; s++) {
    const dealt = curves.map((c) => names.indexOf(c.treatment as (typeof names)[number]));
    for (const b of blocks.keys()) {
      const here = blockOf.flatMap((x, i) => (x === b ? [i] : []));
      const shuffled = random.shuffle(here.map((i) => dealt[i]!));
      here.forEach((i, j) => (dealt[i] = shuffled[j]!));
    }
    const model = prepareLinearModel(
      dealt.map((treatment, i) => ({ treatment, block: blockOf[i]! })),
      k,
      blocks.length,
    );
    if (!model.ok) continue;
    const clear = values.map((v) => {
      const fit = model.value.fit(v);
      const ms = fit.residualMeanSquare;
      if (ms === null || ms <= 0) return null;
      const critical = dunnettFamily(equal, fit.dfResidual).criticalValue(alpha);
      return names.some((_, i) => {
        if (i === 0) return false;
        const c = fit.unscaledCovariance;
        const se = Math.sqrt(ms * (c(i, i) + c(0, 0) - 2 * c(i, 0)));
        return Math.abs(fit.adjustedMeans[i]! - fit.adjustedMeans[0]!) > critical * se;
      });
    });
    if (clear.includes(null)) continue;
    done += 1;
    if (clear.includes(true)) any += 1;
    if (clear.at(-1)) last += 1;
  }
  return done < SHUFFLES / 2 ? null : { looks: days.length, falseWinner: any / done, atTheEnd: last / done };
}

/** What peeking would do, in a sentence. @example 'Looked at in 4 rounds: stopping at …' */
export const sayPeeking = ({ looks, falseWinner, atTheEnd }: Peeking): string =>
  `Measured in ${looks} rounds: whoever stops at the first clear difference crowns a false winner in ${Math.round(100 * falseWinner)} of 100 trials with nothing in them; at the end alone it is ${Math.round(100 * atTheEnd)}.`;
