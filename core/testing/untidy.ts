import type { Entry, EntryBody } from '../log/entry';
import type { BlindKey, Trial } from '../log/trial';
import type { AreaId, EntryId, ProductId, RoundId, TraitId, TreatmentId, UnitId } from '../model/ids';
import type { Factor, Plan, Trait, TraitKind, Treatment, Unit } from '../model/plan';
import type { Product } from '../model/product';
import { type Random, seededRandom } from '../stats/random';
import { plan as plainPlan, product, trait, trialOf, use } from './trial';

/** A whole trial as they are, with what its maker knows of it. */
export interface Untidy {
  seed: number;
  trial: Trial;
  /** YYYY-MM-DD on which it is looked at */
  today: string;
  /** what went wrong, in the maker's words */
  damage: string[];
  /** days on which each contender's products were given by the log, of those planned; whole: a batch for each day */
  logged: ReadonlyMap<string, { days: number; planned: number }>;
}

const START = Date.UTC(2026, 2, 1);
const DAY = 86_400_000;
const pick = <T>(r: Random, of: readonly T[]): T => of[r.int(0, of.length - 1)]!;
const chance = (r: Random, p: number) => r.uniform() < p;

/** How contenders are laid out and what they are. */
type Shape = 'plain' | 'equals' | 'factorial' | 'factorialUntreated' | 'species' | 'systems' | 'crops';
const shapes: readonly Shape[] = ['plain', 'plain', 'plain', 'equals', 'factorial', 'factorialUntreated', 'species', 'systems', 'crops']; // prettier-ignore
const kinds: readonly TraitKind[] = ['weighing', 'weighing', 'number', 'number', 'count', 'ratio', 'yesno', 'score', 'time']; // prettier-ignore

function traitOf(r: Random, id: string, kind: TraitKind): Trait {
  const base = trait({ id: id as TraitId, name: `${kind} ${id}`, kind, summary: 'last', decimals: 1 });
  switch (kind) {
    case 'weighing':
      return { ...base, unit: 'g', summary: pick(r, ['last', 'sum']) };
    case 'number':
      return {
        ...base,
        unit: 'cm',
        samplesPerUnit: pick(r, [1, 1, 3]),
        direction: pick(r, ['higher', 'higher', 'lower', 'band']),
        bandLow: 48,
        bandHigh: 54,
      };
    case 'count':
      return { ...base, unit: 'fruit', decimals: 0, direction: pick(r, ['higher', 'lower']) };
    case 'ratio':
      return { ...base, unit: '%', decimals: 0, outOf: 10 };
    case 'score':
      return { ...base, unit: '', decimals: 0, scale: [1, 2, 3, 4, 5].map((value) => ({ value, text: '' })) };
    case 'time':
      return { ...base, unit: 'd', decimals: 0, direction: 'lower' };
    default:
      return { ...base, unit: '', decimals: 0 };
  }
}

/** A value as it would be typed. @param level about 50 for a plain contender, @param noise in the same measure */
function valueOf(r: Random, t: Trait, level: number, noise: number): number {
  const x = Math.max(0, level + noise * r.normal());
  switch (t.kind) {
    case 'count':
      return Math.max(0, Math.round(x / 3));
    case 'ratio':
      return Math.min(10, Math.max(0, Math.round(x / 8)));
    case 'yesno':
      return x > 52 ? 1 : 0;
    case 'score':
      return Math.min(5, Math.max(1, Math.round((x - 30) / 10)));
    case 'time':
      return Math.max(1, Math.round(x / 8));
    default:
      return Math.round(x * 10) / 10;
  }
}

function contenders(
  r: Random,
  shape: Shape,
): { treatments: Treatment[]; factors: Factor[]; products: Product[] } {
  const priced = (id: string) =>
    product({
      id: id as ProductId,
      name: `Product ${id}`,
      packs: chance(r, 0.12)
        ? []
        : [{ ...product().packs[0]!, priceMinor: chance(r, 0.12) ? 0 : r.int(200, 5000) }],
    });
  const blank = plainPlan({ treatments: ['x'] }).treatments[0]!;
  const times = pick(r, [1, 3, 5]);
  const of = (
    id: string,
    role: Treatment['role'],
    products: string[],
    levels: Record<string, string> = {},
  ) => ({
    ...blank,
    ...{ id: id as TreatmentId, name: `Arm ${id}`, role, levels },
    products: products.map((p) =>
      use({ productId: p as ProductId, amount: 5, solutionLPerUnit: 1, timesPerUnit: times }),
    ),
  });
  if (shape === 'factorial' || shape === 'factorialUntreated' || shape === 'species') {
    const second = shape === 'species' ? ['sage', 'rue'] : ['none', 'plus'];
    const factors = [
      { name: 'Feed', levels: ['water', 'feed'] },
      { name: shape === 'species' ? 'Species' : 'Additive', levels: second },
    ];
    const treatments = factors[0]!.levels.flatMap((f) =>
      second.map((s) => {
        const given = [...(f === 'feed' ? ['a'] : []), ...(s === 'plus' ? ['b'] : [])];
        return of(`${f}-${s}`, given.length === 0 ? 'untreated' : 'test', given, {
          Feed: f,
          [factors[1]!.name]: s,
        });
      }),
    );
    const bare = shape === 'factorialUntreated' ? [of('bare', 'untreated', [])] : [];
    return { treatments: [...bare, ...treatments], factors, products: [priced('a'), priced('b')] };
  }
  const k = r.int(2, 5);
  const ids = Array.from({ length: k }, (_, i) => String.fromCharCode(97 + i));
  const equals = shape === 'equals' || shape === 'systems';
  return {
    treatments: ids.map((id, i) =>
      of(id, !equals && i === 0 ? 'untreated' : 'test', !equals && i === 0 ? [] : [id]),
    ),
    factors: [],
    products: ids.map(priced),
  };
}

function unitsOf(
  r: Random,
  treatments: readonly Treatment[],
  replicates: number,
  shape: Shape,
  design: string,
) {
  const k = treatments.length;
  const tents = shape === 'systems';
  const perTent = pick(r, [2, 3]);
  const area = (id: string, kind: Plan['areas'][number]['kind'], rows: number, columns: number) => ({
    ...{ id: id as AreaId, name: id, kind, rows, columns, widthCm: null, depthCm: null, reserved: [] },
  });
  const units: Unit[] = [];
  for (let row = 0; row < replicates; row++) {
    const order = design === 'interleave' ? treatments : r.shuffle(treatments);
    order.forEach((t, column) => {
      const many = tents ? perTent : 1;
      for (let m = 0; m < many; m++) {
        const n = units.length + 1;
        units.push({
          id: `u${n}` as UnitId,
          code: `TST-${String(n).padStart(2, '0')}`,
          treatmentId: t.id,
          block: design === 'rcbd' ? row + 1 : null,
          columnBlock: null,
          setting: null,
          startSize: null,
          position: tents
            ? { areaId: `tent ${t.id} ${row}` as AreaId, row: 0, column: m }
            : { areaId: 'shelf' as AreaId, row, column },
        });
      }
    });
  }
  const areas = tents
    ? treatments.flatMap((t) =>
        Array.from({ length: replicates }, (_, i) => area(`tent ${t.id} ${i}`, 'tent', 1, perTent)),
      )
    : [area('shelf', 'shelf', replicates, k)];
  return { units, areas };
}

/**
 * Makes a trial with its damage from a seed: the same seed gives the same trial.
 * @example untidyTrial(7).damage // ['the control died', 'one batch of five is logged']
 */
export function untidyTrial(seed: number): Untidy {
  const r = seededRandom(seed);
  const shape = pick(r, shapes);
  const { treatments, factors, products } = contenders(r, shape);
  const replicates = pick(r, [1, 2, 2, 3, 3, 4, 4, 5, 6]);
  const design = pick(r, ['crd', 'rcbd', 'rcbd', 'interleave'] as const);
  const main = traitOf(r, 'main', pick(r, kinds));
  const other = traitOf(r, 'other', pick(r, kinds));
  const days = pick(r, [[10], [4, 10], [3, 7, 12]]);
  const { units, areas } = unitsOf(r, treatments, replicates, shape, design);
  const blinding = chance(r, 0.3) ? ('scorer' as const) : ('open' as const);
  const plan: Plan = {
    ...plainPlan({ treatments: ['x'] }),
    ...{ treatments, factors, products, units, areas },
    ...(shape === 'equals' || shape === 'systems' ? { peers: true as const } : {}),
    wholeSystem: shape === 'systems',
    cropsWithin: shape === 'crops' ? ['pea', 'dill'] : [],
    blinding,
    traits: [main, other],
    primaryTraitId: main.id,
    smallestDifference: pick(r, [null, { kind: 'percent', value: 10 }, { kind: 'absolute', value: 3 }]),
    ...(chance(r, 0.15) && { asks: 'asGood' as const }),
    rounds: days.map((day, i) => ({
      ...{ id: `r${i}` as RoundId, name: `Round ${i + 1}`, day },
      traitIds: chance(r, 0.8) || i === days.length - 1 ? [main.id, other.id] : [main.id],
    })),
    design: { kind: design, replicates, seed: 1, settings: [], balance: null },
  };
  const damage: string[] = [];
  const lines: { body: EntryBody; day: number; late?: number }[] = [];
  const dead = new Map<string, number>();
  const kill = (which: readonly Unit[], day: number, what: string) => {
    which.forEach((u) => dead.set(u.id, day));
    damage.push(what);
  };
  const ofArm = (id: string) => units.filter((u) => u.treatmentId === id);
  const control = treatments.find((t) => t.role === 'untreated');
  const last = days.at(-1)!;
  if (chance(r, 0.12)) kill(ofArm(treatments[0]!.id), pick(r, [1, last - 1]), 'the first contender died');
  if (control && chance(r, 0.12)) kill(ofArm(control.id), pick(r, [1, last - 1]), 'the control died');
  if (chance(r, 0.1)) kill(ofArm(treatments.at(-1)!.id), 1, 'all of one contender died');
  if (chance(r, 0.25)) kill([pick(r, units)], r.int(1, last), 'one unit died');
  const skipped = days.length > 1 && chance(r, 0.15) ? r.int(0, days.length - 1) : -1;
  if (skipped >= 0) damage.push('a round nobody made');
  const half = chance(r, 0.15);
  if (half) damage.push('the last round half made');
  const holes = chance(r, 0.25);
  if (holes) damage.push('samples missing');
  const flat = chance(r, 0.06);
  if (flat) damage.push('no spread');
  const zero = chance(r, 0.04);
  if (zero) damage.push('all zero');
  const silent = chance(r, 0.06);
  if (silent) damage.push('the deciding trait without a value');
  const noise = flat ? 0 : pick(r, [1, 3, 8]);
  const effect = new Map(treatments.map((t) => [t.id as string, pick(r, [0, 0, 3, 10, 20, -10])]));
  plan.rounds.forEach((round, at) => {
    if (at === skipped) return;
    const upTo = half && at === plan.rounds.length - 1 ? Math.floor(units.length / 2) : units.length;
    units.slice(0, upTo).forEach((u) => {
      if ((dead.get(u.id) ?? Infinity) <= round.day) return;
      for (const t of plan.traits.filter((x) => round.traitIds.includes(x.id))) {
        if (silent && t === main) continue;
        const crops = Math.max(1, plan.cropsWithin.length);
        const n = crops * t.samplesPerUnit;
        for (let s = 1; s <= n; s++) {
          if (holes && chance(r, 0.15)) continue;
          const level = zero ? 0 : 50 + effect.get(u.treatmentId)! + 2 * at;
          const value = valueOf(r, t, level, zero ? 0 : noise);
          const place = { unitId: u.id, traitId: t.id, roundId: round.id, sample: n === 1 ? null : s };
          const late = chance(r, 0.1) ? r.int(1, 5) : 0;
          const notYet = t.kind === 'time' && value > round.day;
          const body: EntryBody =
            t.kind === 'weighing'
              ? {
                  ...{ kind: 'weighing', ...place, grossG: value + 10, tareG: 10, container: 'Bowl' },
                  ...{ instrument: 'scale', stepG: 0.1, steady: true },
                }
              : {
                  ...{ kind: 'measurement', ...place },
                  value: t.kind === 'time' ? Math.min(value, round.day) : value,
                  ...(notYet && { notYet }),
                };
          lines.push({ body, day: round.day, late });
          if (chance(r, 0.02)) {
            // Typed twice: the second one stands.
            lines.push({ body, day: round.day, late: late + 1 });
          }
        }
      }
    });
  });
  for (const [id, day] of dead)
    lines.push({ body: { kind: 'death', unitId: id as UnitId, sample: null, cause: 'dried out' }, day });
  if (units.length > 3 && chance(r, 0.06)) {
    damage.push('labels lost');
    lines.push({
      body: { kind: 'mixedUp', unitIds: units.slice(0, 2).map((u) => u.id), reason: 'rain' },
      day: 1,
    });
  }
  const logged = new Map<string, { days: number; planned: number }>();
  const howMuch = pick(r, ['none', 'all', 'all', 'one', 'some'] as const);
  if (howMuch === 'one') damage.push('one batch is logged');
  for (const t of treatments) {
    const planned = t.products[0]?.timesPerUnit ?? 0;
    const mixed = howMuch === 'all' ? planned : howMuch === 'one' ? Math.min(1, planned) : howMuch === 'some' && chance(r, 0.5) ? planned : 0; // prettier-ignore
    logged.set(t.id, { days: mixed, planned });
    for (let d = 0; d < mixed; d++)
      lines.push({
        body: {
          ...{ kind: 'mix', treatmentId: t.id, batch: `${t.id}-${d}`, volumeL: ofArm(t.id).length * 1.1 },
          amounts: t.products.map((u) => ({
            ...{ productId: u.productId, amount: ofArm(t.id).length * 5 * 1.1, unit: 'mL' as const },
          })),
        },
        day: d,
      });
  }
  const opened = blinding !== 'open' && chance(r, 0.8);
  if (opened) lines.push({ body: { kind: 'reveal', reason: '' }, day: last + 1 });
  const key: BlindKey | null = blinding === 'open' ? null : { order: r.shuffle(treatments.map((t) => t.id)) };
  const log = lines.map(({ body, day, late = 0 }, i): Entry => {
    const at = new Date(START + day * DAY + 36_000_000 + i * 1000).toISOString();
    const recordedAt = new Date(START + (day + late) * DAY + 36_000_000 + i * 1000).toISOString();
    const stamp = { id: `e${String(i).padStart(5, '0')}` as EntryId, at, recordedAt, offsetMin: 0 };
    return { ...body, ...stamp, by: 'U', device: 'untidy', counter: i + 1 };
  });
  const headings = chance(r, 0.5)
    ? [
        { id: 'y', name: 'Main', weight: 50, from: { kind: 'trait' as const, traitId: main.id } },
        { id: 'e', name: 'Even', weight: 20, from: { kind: 'evenness' as const, traitId: main.id } },
        { id: 'c', name: 'Cost', weight: 30, from: { kind: 'cost' as const } },
        { id: 'x', name: 'Empty', weight: 20, from: { kind: 'trait' as const, traitId: 'nowhere' } },
      ]
    : [];
  const made = trialOf(plan, log, { key });
  const today = new Date(START + pick(r, [last - 1, last + 1, last + 3, last + 60]) * DAY).toISOString();
  return {
    seed,
    trial: { ...made, review: { ...made.review, headings } },
    today: today.slice(0, 10),
    damage: [shape, design, `${replicates} each`, main.kind, ...damage],
    logged,
  };
}
