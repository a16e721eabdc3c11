import { figureOfVisit, curveOf } from '../analysis/number';
import { comparedValue, moreIsBetter } from '../analysis/goodness';
import { exclusionReason, responseOf } from '../log/response';
import type { TrialState } from '../log/state';
import { givenDivisor } from '../log/givenDivisor';
import { type Trait, kindOf } from '../model/plan';
import { type Logistic, logisticFit } from '../stats/curves';
import { localDay } from '../log/localDay';
import { dayOfDate } from '../plan/days';
import { mean } from '../stats/moments';
import { seededRandom } from '../stats/random';

/** One unit's values over the rounds. */
interface UnitCurve {
  unit: string;
  code: string;
  treatment: string;
  points: { day: number; value: number }[];
  /** day it died; from then on nothing is asked of it. Left out while it lives */
  diedOn?: number;
  /** null where it doesn't fit, or with fewer than four days */
  logistic: Logistic | null;
}

/** Who was ahead on a day all units were measured. */
interface Lead {
  day: number;
  round: string;
  /** mean of each treatment that day */
  means: { id: string; mean: number }[];
  /** the treatment ahead; null where the first are level */
  leader: string | null;
  /** in what share of re-drawn trials whoever led this day led at the end too; null for the last day */
  stillAhead: number | null;
}

export interface OverTime {
  curves: UnitCurve[];
  /** mean of each treatment on days on which all of its units then alive were measured */
  means: { id: string; points: { day: number; mean: number; n: number }[] }[];
  leads: Lead[];
}

/** Whether all units that were alive on a day were measured, and some were. */
const wholeOn = (curves: readonly UnitCurve[], day: number): boolean => {
  const alive = curves.filter((c) => c.points.some((p) => p.day === day) || (c.diedOn ?? Infinity) > day);
  return alive.length > 0 && alive.every((c) => c.points.some((p) => p.day === day));
};

/** A contender's mean as it goes on: one of its units less is no end of it. */
function meanLine(own: readonly UnitCurve[]): { day: number; mean: number; n: number }[] {
  const days = [...new Set(own.flatMap((c) => c.points.map((p) => p.day)))].sort((a, b) => a - b);
  return days.flatMap((day) => {
    const values = own.flatMap((c) => c.points.filter((p) => p.day === day).map((p) => p.value));
    return wholeOn(own, day) ? [{ day, mean: mean(values), n: values.length }] : [];
  });
}

/** What a unit adds to the mean of each day, and of how many values. */
interface Summed {
  sum: Float64Array;
  n: Float64Array;
}

function summedOn({ points }: UnitCurve, days: readonly number[], trait: Trait): Summed {
  const sum = new Float64Array(days.length);
  const n = new Float64Array(days.length);
  for (const { day, value } of points) {
    const at = days.indexOf(day);
    if (at < 0) continue;
    sum[at]! += comparedValue(trait, value);
    n[at]! += 1;
  }
  return { sum, n };
}

const REDRAWN = 2000;

/** Kinds of value that make a curve. */
const drawn = new Set(['continuous', 'count', 'kOfN', 'level']);

/**
 * A trait over its rounds: each unit's curve, and who led when. How often a leader of a day is still ahead at the end
 * comes from the data's own spread: units of each treatment are drawn again, with replacement, whole curves at a time.
 *
 * @returns null for traits measured on fewer than two days, or of another kind
 */
export function overTime(state: TrialState, trait: Trait, seed = 1): OverTime | null {
  const { plan } = state;
  if (!drawn.has(kindOf(trait).observes)) return null;
  const curves = plan.units.flatMap((u): UnitCurve[] => {
    if (exclusionReason(state, u.id, trait.id) !== null) return [];
    const { visits } = responseOf(state, u.id, trait);
    const points = visits.flatMap((v) => {
      const value = figureOfVisit(v, trait);
      const divisor = givenDivisor(state, u, trait, v.day, () => null);
      return value === null || divisor === null || v.roundId === null
        ? []
        : [{ day: v.day, value: value / divisor }];
    });
    if (points.length === 0) return [];
    const death = state.deaths.get(u.id);
    return [
      {
        ...{ unit: u.id, code: u.code, treatment: u.treatmentId, points },
        ...(death && { diedOn: dayOfDate(plan.startDate, localDay(death)) }),
        logistic: logisticFit(curveOf(visits, trait)),
      },
    ];
  });
  const rounds = plan.rounds
    .filter((r) => r.traitIds.includes(trait.id))
    .sort((a, b) => a.day - b.day)
    .filter((r) => wholeOn(curves, r.day));
  if (new Set(curves.flatMap((c) => c.points.map((p) => p.day))).size < 2) return null;
  const ids = plan.treatments
    .map((t) => t.id as string)
    .filter((id) => curves.some((c) => c.treatment === id));
  const sign = moreIsBetter(trait) ? 1 : -1;
  const own = ids.map((id) => curves.filter((c) => c.treatment === id));
  // Added up once for each unit and day: the draws ask thousands of times.
  const days = [...new Set(rounds.map((r) => r.day))];
  const at = rounds.map((r) => days.indexOf(r.day));
  const sums = own.map((g) => g.map((c) => summedOn(c, days, trait)));
  const meansOn = (day: number, groups: readonly (readonly Summed[])[]) =>
    groups.map((g) => {
      let [sum, n] = [0, 0];
      for (const u of g) {
        sum += u.sum[day]!;
        n += u.n[day]!;
      }
      return sum / n;
    });
  const first = (means: readonly number[]): number | null => {
    // Of a contender that is gone by then there is no mean: it doesn't lead.
    const best = Math.max(...means.filter((m) => !Number.isNaN(m)).map((m) => sign * m));
    const at = means.flatMap((m, i) => (Math.abs(sign * m - best) <= 1e-12 * Math.abs(best) ? [i] : []));
    return at.length === 1 ? at[0]! : null;
  };
  const random = seededRandom(seed);
  const still = rounds.map(() => 0);
  const end = rounds.at(-1);
  for (let d = 0; end && rounds.length > 1 && d < REDRAWN; d++) {
    const again = sums.map((g) => g.map(() => g[Math.floor(random.uniform() * g.length)]!));
    const last = first(meansOn(days.indexOf(end.day), again));
    rounds.forEach((_, i) => {
      if (last !== null && first(meansOn(at[i]!, again)) === last) still[i]! += 1;
    });
  }
  return {
    curves,
    means: ids.map((id, i) => ({ id, points: meanLine(own[i]!) })),
    leads: rounds.map((r, i): Lead => {
      const means = meansOn(at[i]!, sums);
      const leader = first(means);
      return {
        day: r.day,
        round: r.name,
        means: ids.flatMap((id, j) => (Number.isNaN(means[j]!) ? [] : [{ id, mean: means[j]! }])),
        leader: leader === null ? null : ids[leader]!,
        stillAhead: r === end || own.some((g) => g.length < 2) ? null : still[i]! / REDRAWN,
      };
    }),
  };
}

/**
 * Who led when, in sentences.
 * @param over the end is reached: all planned rounds of the trait are in
 * @param told whom the trait's finding names as ahead; of others being ahead is said to be no more than that
 * @example 'B led on day 5; at the end A leads. Whoever led on day 5 was still ahead at the end in 61 of 100 re-drawn trials.'
 */
export function sayLeads(
  { leads }: OverTime,
  nameOf: (id: string) => string,
  { over, told }: { over: boolean; told: readonly string[] },
): string[] {
  const [end] = leads.slice(-1);
  if (!end || leads.length < 2) return [];
  const out: string[] = [];
  const last = end.leader === null ? 'nobody leads alone' : `${nameOf(end.leader)} leads`;
  const when = over ? 'at the end' : `so far, on day ${end.day},`;
  const earlier = leads.slice(0, -1);
  const others = earlier.filter((l) => l.leader !== null && l.leader !== end.leader);
  out.push(
    others.length === 0
      ? end.leader === null
        ? `${over ? 'At the end' : `On day ${end.day}`} nobody leads alone.`
        : `${nameOf(end.leader)} led ${earlier.every((l) => l.leader === end.leader) ? 'from the first round on' : 'whenever anybody led alone'}.`
      : `${others.map((l, i) => `${i === 0 ? 'On' : 'on'} day ${l.day} ${nameOf(l.leader!)} led`).join('; ')}; ${when} ${last}.`,
  );
  for (const l of earlier) {
    if (l.stillAhead === null) continue;
    out.push(
      `Whoever led on day ${l.day} was still ahead ${over ? 'at the end' : `on day ${end.day}`} in ${Math.round(100 * l.stillAhead)} of 100 re-drawn trials.`,
    );
  }
  const named = leads.flatMap((l) => (l.leader === null ? [] : [l.leader]));
  if (others.length > 0)
    out.push(
      'An early leader isn’t the winner: being ahead on a day says nothing of whether the difference is more than chance.',
    );
  else if (named.some((id) => !told.includes(id)))
    out.push('Being ahead isn’t winning: the finding doesn’t show that it is more than chance.');
  return out;
}
