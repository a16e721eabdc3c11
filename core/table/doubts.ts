import { formatSignificant } from '../quantity/format';
import type { Understood } from './understood';

/** A figure that lies so far from all others of its column that a slip of the pen is likelier. */
export interface Doubt {
  row: number;
  /** what is asked, a sentence */
  text: string;
}

/** So many times farther from the middle than the farthest of the others: a decimal place lost, a unit mixed up. */
const TIMES = 4;
const FEWEST = 5;

const median = (xs: readonly number[]) => {
  const sorted = [...xs].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
};

/**
 * Rows whose figure is asked about. Nothing is left out for it: whoever has the table knows.
 * @example doubtsOf(understood)[0]?.text // 'row 9: 458 g, where the others lie between 38 and 49. A slip?'
 */
export function doubtsOf({ traits, readings }: Pick<Understood, 'traits' | 'readings'>): Doubt[] {
  return traits.flatMap((trait, t) => {
    if (trait.kind !== 'number') return [];
    const own = readings.flatMap((r) =>
      r.trait === t && r.value !== null ? [{ row: r.row, value: r.value }] : [],
    );
    if (own.length < FEWEST) return [];
    const middle = median(own.map((o) => o.value));
    return own.flatMap(({ row, value }): Doubt[] => {
      const others = own.filter((o) => o.row !== row).map((o) => o.value);
      const [low, high] = [Math.min(...others), Math.max(...others)];
      const far = Math.max(middle - low, high - middle);
      if (far <= 0 || Math.abs(value - middle) <= TIMES * far) return [];
      const say = (x: number) => formatSignificant(x, 3);
      const unit = trait.unit ? ` ${trait.unit}` : '';
      return [
        {
          row,
          text: `row ${row}: ${say(value)}${unit}, where the others lie between ${say(low)} and ${say(high)}. A slip?`,
        },
      ];
    });
  });
}
