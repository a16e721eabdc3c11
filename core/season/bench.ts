import { type Random, seededRandom } from '../stats/random';
import { type Knowledge, afterTrial, bestOf, nothingKnown } from './knowledge';
import { type Slot, type Wishes, bestArms } from './propose';

/** A simulated bench: what products truly do, and what there is to find it out with. */
interface Bench {
  truth: number[];
  names: string[];
  slots: Slot[];
  wishes: Wishes;
  prior: number;
  /** trials that were run before, by chance beside the control */
  earlier: number;
}

const CONTROL = 'nothing added';

function benchOf(random: Random): Bench {
  const products = random.int(4, 8);
  const names = [CONTROL, ...Array.from({ length: products }, (_, i) => `P${i + 1}`)];
  const prior = 0.06 + 0.1 * random.uniform();
  const places = random.int(12, 30);
  return {
    ...{ names, prior, earlier: random.int(0, 2) },
    truth: names.map((_, i) => (i === 0 ? -0.1 : 0) + prior * random.normal()),
    slots: Array.from({ length: random.int(2, 4) }, (_, i) => ({
      ...{ area: 'shelf', places, startDate: `2026-0${1 + i}-01`, endDate: `2026-0${2 + i}-01` },
    })),
    wishes: {
      goal: { kind: 'best' },
      among: names.slice(1),
      reference: CONTROL,
      cv: 0.08 + 0.14 * random.uniform(),
      tau2: (0.02 + 0.05 * random.uniform()) ** 2,
      leastEach: 3,
      mostArms: 9,
    },
  };
}

/** Runs a trial on what is true: products differ from trial to trial, units within it. */
function run(b: Bench, k: Knowledge, arms: readonly number[], slot: Slot, random: Random): Knowledge {
  const variance = b.wishes.tau2 / 2 + b.wishes.cv ** 2 / Math.floor(slot.places / arms.length);
  return afterTrial(k, {
    arms,
    variances: arms.map(() => variance),
    values: arms.map((i) => b.truth[i]! + Math.sqrt(variance) * random.normal()),
  });
}

type Rule = (b: Bench, k: Knowledge, slot: Slot, nth: number) => number[];
const most = (b: Bench, slot: Slot) =>
  Math.min(b.wishes.mostArms, Math.floor(slot.places / b.wishes.leastEach));
const ranked = (k: Knowledge) =>
  k.names
    .map((_, i) => i)
    .slice(1)
    .sort((x, y) => k.mean[y]! - k.mean[x]!);

const rules: Record<'palazzo' | 'control' | 'favourites', Rule> = {
  palazzo: (b, k, slot, nth) => bestArms(k, slot, b.wishes, nth + 1),
  /** everything against the control, in turn where not all fit */
  control: (b, k, slot, nth) => {
    const room = most(b, slot) - 1;
    const all = k.names.length - 1;
    return [0, ...Array.from({ length: Math.min(room, all) }, (_, i) => 1 + ((nth * room + i) % all))];
  },
  /** the control and the two that stand best */
  favourites: (_, k) => [0, ...ranked(k).slice(0, 2)],
};

/** How far below the best product the one stands that is recommended after the season, per cent, a mean over benches. */
export interface Regret {
  palazzo: number;
  control: number;
  favourites: number;
}

/** Each bench is lived through so often, so that luck says less than the rule. */
const AGAIN = 4;

/** @param benches how many @param seed the same seed makes the same benches and the same chance for every rule */
export function seasonRegret(benches: number, seed: number): Regret {
  const regret: Regret = { palazzo: 0, control: 0, favourites: 0 };
  const chance = seededRandom(seed);
  for (let n = 0; n < benches; n++) {
    const own = chance.int(0, 2 ** 31 - 1);
    const b = benchOf(seededRandom(own));
    const products = b.names.map((_, i) => i).slice(1);
    let start = nothingKnown(b.names, { prior: b.prior });
    const before = seededRandom(own + 1);
    for (let e = 0; e < b.earlier; e++)
      start = run(b, start, [0, ...before.shuffle(products).slice(0, 2)], b.slots[0]!, before);
    for (const [name, rule] of Object.entries(rules) as [keyof Regret, Rule][])
      for (let again = 0; again < AGAIN; again++) {
        const random = seededRandom(own + 2 + again);
        const known = b.slots.reduce((k, slot, nth) => run(b, k, rule(b, k, slot, nth), slot, random), start);
        const best = Math.max(...products.map((i) => b.truth[i]!));
        regret[name] +=
          (100 * (1 - Math.exp(b.truth[bestOf(known.mean, products)]! - best))) / (benches * AGAIN);
      }
  }
  return regret;
}

/** @example saySeason(200, { palazzo: 0.8, control: 1.2, favourites: 1.9 }) // 'season: benches 200, regret palazzo 0.8, control 1.2, favourites 1.9' */
export const saySeason = (benches: number, r: Regret): string =>
  `season: benches ${benches}, regret palazzo ${r.palazzo.toFixed(1)}, control ${r.control.toFixed(1)}, favourites ${r.favourites.toFixed(1)}`;
