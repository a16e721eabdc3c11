import type { FindingInput } from '../account/finding';
import type { FindingRow } from '../analysis/rows';
import { randomLatinSquare } from '../design/latinSquare';
import type { Plan, Trait } from '../model/plan';
import { type Observed, kindOf } from '../model/traitKinds';
import type { Random } from '../stats/random';

/** A trial of which the truth is known: its units are made from it by chance. */
export interface MadeUp {
  /** how it is taken and which way is better; k of n by its `outOf` */
  trait: Trait;
  design: 'random' | 'blocks' | 'latin' | 'split' | 'crops';
  /** units of each contender, the first the control; in blocks and squares as many of each */
  units: readonly number[];
  /** the truth of each: mean, mean count, share (0 … 1), place on the scale, day */
  levels: readonly number[];
  /** how units of one contender differ: standard deviation; of counts and k of n that of the log rate or log odds */
  scatter: number;
  /** what that is multiplied by, contender by contender; left out: alike */
  scatters?: readonly number[];
  /** equals, no control */
  peers?: boolean;
  /** the last day that is looked at, of days until */
  until?: number;
  /** share of units that are lost */
  lost?: number;
}

/** Ids of the contenders of a made-up trial. */
export const armsOf = ({ units }: Pick<MadeUp, 'units'>): string[] => units.map((_, i) => `t${i}`);

/** Blocks differ by so much of the scatter (a shelf's ends; practice). */
const BLOCKS_DIFFER = 1;
/** Crops within a unit, and how they differ as a share of the scatter. */
const CROPS = 3;

function poisson(mean: number, random: Random): number {
  if (mean > 60) return Math.max(0, Math.round(mean + Math.sqrt(mean) * random.normal()));
  let [k, p] = [0, random.uniform()];
  for (const end = Math.exp(-mean); p > end; k++) p *= random.uniform();
  return k;
}

interface Place {
  arm: number;
  block: number | null;
  column: number | null;
  /** what the place does, in scatters */
  effect: number;
}

function placesOf({ design, units }: MadeUp, random: Random): Place[] {
  const arms = units.length;
  const effects = (n: number, by = BLOCKS_DIFFER) => Array.from({ length: n }, () => by * random.normal());
  if (design === 'random' || design === 'crops')
    return units.flatMap((n, arm) =>
      Array.from({ length: n }, () => ({ arm, block: null, column: null, effect: 0 })),
    );
  if (design === 'latin') {
    const square = randomLatinSquare(arms, random);
    const [rows, columns] = [effects(arms), effects(arms)];
    return square.flatMap((line, row) =>
      line.map((arm, column) => ({ arm, block: row, column, effect: rows[row]! + columns[column]! })),
    );
  }
  const blocks = effects(units[0]!);
  return blocks.flatMap((of, block) => {
    const plots = design === 'split' ? effects(2, 0.7) : [0];
    return plots.flatMap((plot) => units.map((_, arm) => ({ arm, block, column: null, effect: of + plot })));
  });
}

const logistic = (x: number) => 1 / (1 + Math.exp(-x));
const logit = (p: number) => Math.log(p / (1 - p));

function observedAt(m: MadeUp, place: Place, random: Random): Observed {
  const level = m.levels[place.arm]!;
  const z = random.normal() * (m.scatters?.[place.arm] ?? 1) + place.effect;
  const { trait, scatter } = m;
  switch (kindOf(trait).observes) {
    case 'count':
      return {
        type: 'count',
        count: level === 0 ? 0 : poisson(level * Math.exp(scatter * z - scatter ** 2 / 2), random),
        exposure: 1,
      };
    case 'kOfN': {
      const n = trait.outOf ?? 10;
      const share = level <= 0 || level >= 1 ? level : logistic(logit(level) + scatter * z);
      return {
        type: 'kOfN',
        n,
        k: Array.from({ length: n }, random.uniform).filter((u) => u < share).length,
      };
    }
    case 'level': {
      const steps = trait.scale.map((s) => s.value);
      const x = Math.round(level + scatter * z);
      return { type: 'level', level: Math.min(Math.max(...steps), Math.max(Math.min(...steps), x)) };
    }
    case 'event': {
      const day = Math.max(1, Math.ceil(level + scatter * z));
      const until = m.until ?? Infinity;
      return { type: 'event', happened: day <= until, day: Math.min(day, until) };
    }
    default:
      return { type: 'continuous', value: Number((level + scatter * z).toFixed(trait.decimals + 1)) };
  }
}

/** Units as they might have come out; some of them lost. */
export function rowsOf(m: MadeUp, random: Random): FindingRow[] {
  const all = placesOf(m, random).filter(() => !(m.lost && random.uniform() < m.lost));
  const rank = kindOf(m.trait).observes === 'rank';
  const seen = all.map((p) =>
    Array.from({ length: m.design === 'crops' ? CROPS : 1 }, () => observedAt(m, p, random)),
  );
  // Ranks are an order by eye of what is there, the highest first.
  const values = seen.map(([o]) => (o?.type === 'continuous' ? o.value : 0));
  return all.map((p, i): FindingRow => ({
    unit: `u${i}`,
    code: `${i}`,
    treatment: `t${p.arm}`,
    block: p.block === null ? null : String(p.block),
    column: p.column === null ? null : String(p.column),
    divisor: 1,
    visits: [
      {
        roundId: null,
        day: 10,
        samples: seen[i]!.map((observed, crop) => ({
          sample: null,
          crop,
          observed: rank ? { type: 'rank', rank: 1 + values.filter((v) => v > values[i]!).length } : observed,
        })),
      },
    ],
  }));
}

/** What a finding of it is worked out from, as a trial's own would be. */
export function inputOf(
  m: MadeUp,
  rows: FindingRow[],
  smallestDifference: Plan['smallestDifference'] = null,
  alpha = 0.05,
): FindingInput {
  const order = armsOf(m);
  return {
    ...{ trait: m.trait, rows, order, alpha, smallestDifference, isPrimary: true, leftOut: [] },
    basis: { rounds: [], open: [], toCome: 0, missed: 0, over: true },
    ...{ unfinished: false, roundId: null, roundName: null, crop: null, method: null },
    control: m.peers ? null : order[0]!,
    peers: m.peers ?? false,
    against: m.peers ? [] : order.slice(1).map((id) => ({ id, control: order[0]! })),
  };
}
