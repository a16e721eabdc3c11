import { seededRandom } from '../stats/random';
import { mean } from '../stats/moments';

/** A score, and where in the order it was served. */
interface Served {
  taster: number;
  sample: number;
  /** counted from 0 */
  place: number;
  /** cups in the set */
  places: number;
  value: number;
}

/** Whether what was served first and last was scored otherwise than what came between. */
export interface PositionEffect {
  /** mean of first and last less the mean of those between, each sample's own mean taken off; steps of the scale */
  difference: number;
  /** by shuffling places within tasters, seeded */
  p: number;
}

const DRAWS = 2000;
/** With fewer ways to deal places out even the farthest two of them have p > 0.05: nothing could be seen. */
const FEWEST_WAYS = 40;

/** Ways to choose k of n. */
const choose = (n: number, k: number): number => (k === 0 ? 1 : (choose(n - 1, k - 1) * n) / k);

function contrastOf(residuals: readonly number[], ends: readonly boolean[]): number {
  const at = (end: boolean) => mean(residuals.filter((_, i) => ends[i] === end));
  return at(true) - at(false);
}

/**
 * Whether the place in the order of serving changed the scores: first and last against those between. Each sample's
 * mean is taken off, so that a good sample served last isn't taken for a good place.
 *
 * @param served one row a scored cup
 * @returns null with fewer than three places, where a place has no score, or where so few scored that no difference
 *   could be told from chance
 * @example positionEffect(rows)?.difference // −0.4: ends were scored lower
 */
export function positionEffect(served: readonly Served[]): PositionEffect | null {
  if (served.some((s) => s.places < 3)) return null;
  const ends = served.map((s) => s.place === 0 || s.place === s.places - 1);
  if (!ends.includes(true) || !ends.includes(false)) return null;
  const means = new Map<number, number>();
  for (const s of new Set(served.map((x) => x.sample))) {
    means.set(s, mean(served.filter((x) => x.sample === s).map((x) => x.value)));
  }
  const residuals = served.map((s) => s.value - means.get(s.sample)!);
  const difference = contrastOf(residuals, ends);
  const groups = [...new Set(served.map((s) => s.taster))].map((taster) =>
    served.flatMap((s, i) => (s.taster === taster ? [i] : [])),
  );
  const ways = groups.reduce((n, g) => n * choose(g.length, g.filter((i) => ends[i]).length), 1);
  if (ways < FEWEST_WAYS) return null;
  const chance = seededRandom(1);
  let asFar = 0;
  for (let d = 0; d < DRAWS; d++) {
    const shuffled = [...residuals];
    for (const group of groups) {
      const own = chance.shuffle(group.map((i) => residuals[i]!));
      group.forEach((i, k) => (shuffled[i] = own[k]!));
    }
    if (Math.abs(contrastOf(shuffled, ends)) >= Math.abs(difference) - 1e-9) asFar += 1;
  }
  return { difference, p: (asFar + 1) / (DRAWS + 1) };
}
