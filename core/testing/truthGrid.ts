import type { Finding } from '../account/finding';
import type { FindingRow } from '../analysis/rows';
import type { ProductId, TraitId } from '../model/ids';
import type { Plan, Trait } from '../model/plan';
import { sayAlone, sayCard } from '../say/cardWords';
import type { MadeUp } from '../truth/madeUp';
import { tryOut } from '../truth/tried';
import { makeCard, proposedHeadings } from '../scorecard/card';
import { type Verdict, makeVerdict } from '../verdict/verdict';
import { plan as plainPlan, sold, trait, use } from './trial';
import { usually } from './usualMethods';

/** A kind of value with a plain level of it, a difference that matters, one ten times the spread, and far away. */
export interface KindOfTruth {
  name: string;
  trait: Trait;
  level: number;
  scatter: number;
  matters: number;
  tenfold: number;
  until?: number;
}

const scale = [1, 2, 3, 4, 5].map((value) => ({ value, text: '' }));
const of = (over: Partial<Trait>) =>
  trait({ id: 'primary' as TraitId, name: 'Primary', summary: 'last', ...over });

export const kindsOfTruth: readonly KindOfTruth[] = [
  { name: 'weight', trait: of({ kind: 'number' }), level: 50, scatter: 5, matters: 60, tenfold: 100 },
  {
    name: 'count of 20',
    trait: of({ kind: 'count', unit: 'fruit', decimals: 0 }),
    level: 20,
    scatter: 0.2,
    matters: 35,
    tenfold: 150,
  },
  {
    name: 'count of 2',
    trait: of({ kind: 'count', unit: 'fruit', decimals: 0 }),
    level: 2,
    scatter: 0.2,
    matters: 6,
    tenfold: 20,
  },
  {
    name: 'pests of 12',
    trait: of({ kind: 'count', unit: 'pests', decimals: 0, direction: 'lower' }),
    level: 12,
    scatter: 0.3,
    matters: 4,
    tenfold: 0,
  },
  {
    name: 'k of 10',
    trait: of({ kind: 'ratio', unit: '%', decimals: 0, outOf: 10 }),
    level: 0.4,
    scatter: 0.2,
    matters: 0.8,
    tenfold: 1,
  },
  {
    name: 'k of 10, scattered',
    trait: of({ kind: 'ratio', unit: '%', decimals: 0, outOf: 10 }),
    level: 0.6,
    scatter: 0.8,
    matters: 0.95,
    tenfold: 1,
  },
  {
    name: 'score',
    trait: of({ kind: 'score', unit: '', decimals: 0, scale }),
    level: 2.5,
    scatter: 0.8,
    matters: 4,
    tenfold: 8,
  },
  {
    name: 'rank',
    trait: of({ kind: 'rank', unit: '', decimals: 0, direction: 'lower' }),
    level: 50,
    scatter: 5,
    matters: 60,
    tenfold: 100,
  },
  {
    name: 'days',
    trait: of({ kind: 'time', unit: 'd', decimals: 0, direction: 'lower' }),
    level: 20,
    scatter: 2,
    matters: 16,
    tenfold: 5,
  },
  {
    name: 'days, some not yet',
    trait: of({ kind: 'time', unit: 'd', decimals: 0, direction: 'lower' }),
    level: 20,
    scatter: 2,
    matters: 16,
    tenfold: 5,
    until: 21,
  },
];

/** A plan whose findings are tried out. */
export interface TruthPlan {
  kind: KindOfTruth;
  design: MadeUp['design'];
  /** units of each, the control first */
  units: readonly number[];
  scatters?: readonly number[];
  lost?: number;
  peers?: boolean;
}

/** What one plan's findings said, shares of runs; null where it wasn't asked. */
export interface TruthRow {
  name: string;
  /** what false shares are held to */
  hold: number;
  runs: number;
  beat: number;
  pair: number;
  winner: number;
  value: number | null;
  card: number | null;
  untested: number;
  /** one contender by the difference that matters; by ten times the spread */
  power: number;
  tenfold: number;
  /** the same data by what R would be asked for first */
  usualBeat: number | null;
  usualPower: number | null;
}

const designNames: Record<MadeUp['design'], string> = {
  ...{
    random: 'random',
    blocks: 'blocks',
    latin: 'Latin square',
    split: 'split plots',
    crops: 'three crops a unit',
  },
};

export function nameOfPlan({ kind, design, units, scatters, lost, peers }: TruthPlan): string {
  const [first, ...rest] = units;
  const each = rest.every((n) => n === first) ? `${first} each` : `${first} of the control, ${rest[0]} each`;
  const uneven = scatters
    ? scatters[0] === 1
      ? `, one contender ${scatters[1]}× as variable`
      : `, the control ${scatters[0]}× as variable`
    : '';
  return `${kind.name} · ${units.length}${peers ? ' equals' : ''} × ${each} · ${designNames[design]}${uneven}${lost ? ', half lost' : ''}`;
}

const same = (arms: number, n: number) => Array.from({ length: arms }, () => n);

/** Plans of all kinds of value, as people make them. @param small a few of each alone */
export function truthPlans(small = false): TruthPlan[] {
  const of = (design: MadeUp['design'], ...sizes: (readonly [number, number])[]) =>
    sizes.map(([arms, n]) => ({ design, units: same(arms, n) }));
  const every = small
    ? [...of('random', [3, 4]), ...of('blocks', [3, 4])]
    : [
        ...of('random', [2, 4], [3, 3], [4, 4], [4, 6], [6, 4]),
        ...of('blocks', [2, 6], [3, 4], [4, 4], [8, 4]),
        ...of('latin', [4, 4]),
        { design: 'random' as const, units: [3, 6, 6, 6] },
        { design: 'random' as const, units: same(4, 4), peers: true },
        { design: 'blocks' as const, units: same(3, 6), lost: 0.3 },
      ];
  const [weight] = kindsOfTruth;
  const uneven: TruthPlan[] = [
    { kind: weight!, design: 'random', units: same(4, 4), scatters: [3, 1, 1, 1] },
    ...(small
      ? []
      : ([
          { kind: weight!, design: 'random', units: same(2, 4), scatters: [3, 1] },
          { kind: weight!, design: 'random', units: same(4, 3), scatters: [3, 1, 1, 1] },
          { kind: weight!, design: 'random', units: [3, 6, 6, 6], scatters: [3, 1, 1, 1] },
          { kind: weight!, design: 'random', units: same(4, 8), scatters: [4, 1, 1, 1] },
          { kind: weight!, design: 'random', units: same(4, 4), scatters: [1, 3, 1, 1] },
          { kind: weight!, design: 'random', units: same(4, 8), scatters: [1, 3, 1, 1] },
          { kind: weight!, design: 'blocks', units: same(4, 4), scatters: [3, 1, 1, 1] },
          { kind: weight!, design: 'blocks', units: same(4, 4), scatters: [1, 3, 1, 1] },
          { kind: weight!, design: 'split', units: same(3, 4) },
          { kind: weight!, design: 'crops', units: same(4, 4) },
          { kind: weight!, design: 'random', units: same(4, 6), lost: 0.5 },
          { kind: weight!, design: 'random', units: same(2, 2) },
        ] as TruthPlan[])),
  ];
  return [...kindsOfTruth.flatMap((kind) => every.map((p) => ({ ...p, kind }))), ...uneven];
}

/** Cards are drawn anew so many times each: a share of the runs is enough. */
const CARDS = 0.1;

/** Works one row out: nothing differs, one does by what matters, one by far, all do. */
export function truthRow(p: TruthPlan, { runs, seed }: { runs: number; seed: number }): TruthRow {
  const { kind, design, units, scatters, lost, peers } = p;
  const made = (level: (i: number) => number): MadeUp => ({
    ...{ trait: kind.trait, design, units, scatter: kind.scatter, levels: units.map((_, i) => level(i)) },
    ...(scatters && { scatters }),
    ...(lost !== undefined && { lost }),
    ...(peers && { peers }),
    ...(kind.until !== undefined && { until: kind.until }),
  });
  const order = units.map((_, i) => `t${i}`);
  const asked = { value: 0, card: 0, cards: 0, usualBeat: 0, usualPower: 0 };
  const told = (rows: FindingRow[], of: (id: string) => boolean) =>
    [...usually(rows, kind.trait, order)].some(([id, x]) => x !== null && x <= 0.05 && of(id));
  const half = Math.round(runs / 2);
  const plan = pricedPlan(order, kind.trait);
  const nothing = tryOut(
    made(() => kind.level),
    {
      ...{ runs, seed },
      each: (finding, rows) => {
        if (peers) return;
        if (told(rows, () => true)) asked.usualBeat += 1 / runs;
        const verdict = makeVerdict(plan, finding, (id) => id);
        const best = verdict.bestValue.treatmentId;
        if (best !== null && best !== order[0]) asked.value += 1 / runs;
        if (asked.cards >= CARDS * runs) return;
        asked.cards += 1;
        if (cardNames(plan, finding, verdict)) asked.card += 1;
      },
    },
  );
  const one = tryOut(
    made((i) => (i === 1 ? kind.matters : kind.level)),
    {
      ...{ runs: half, seed: seed + 1 },
      each: (_, rows) => {
        if (!peers && told(rows, (id) => id === 't1')) asked.usualPower += 1 / half;
      },
    },
  );
  const far = tryOut(
    made((i) => (i === 1 ? kind.tenfold : kind.level)),
    { runs: half, seed: seed + 2 },
  );
  const all = tryOut(
    made((i) => (i === 0 ? kind.level : kind.matters)),
    { runs: half, seed: seed + 3 },
  );
  const worst = (of: 'beat' | 'pair' | 'winner') => Math.max(...[nothing, one, far, all].map((s) => s[of]));
  return {
    ...{ name: nameOfPlan(p), hold: scatters ? 0.06 : 0.05, runs },
    ...{ beat: worst('beat'), pair: worst('pair'), winner: worst('winner') },
    value: peers ? null : asked.value,
    card: asked.cards === 0 ? null : asked.card / asked.cards,
    ...{ untested: nothing.untested, power: one.found, tenfold: far.found },
    usualBeat: peers ? null : asked.usualBeat,
    usualPower: peers ? null : asked.usualPower,
  };
}

/** The same contenders with a price each, for what is said of value. */
function pricedPlan(order: readonly string[], primary: Trait): Plan {
  const base = plainPlan({ treatments: [...order], traits: [primary] });
  return {
    ...base,
    smallestDifference: null,
    products: order.slice(1).map((id, i) => sold(id, 1000 + 300 * i)),
    treatments: base.treatments.map((t, i) => ({
      ...t,
      products: i === 0 ? [] : [use({ productId: t.id as unknown as ProductId })],
    })),
  };
}

/** Whether a card, or who counts one heading alone, takes somebody without a reservation. */
function cardNames(plan: Plan, finding: Finding, { lines }: Verdict): boolean {
  const headings = proposedHeadings(plan, finding).filter((h) => h.from.kind !== 'cost');
  const card = makeCard({ plan, headings, findings: [finding], lines, nameOf: (id) => id });
  const sentences = [sayCard(card, (id) => id), ...sayAlone(card, (id) => id)];
  return sentences.some(
    (s) => / takes /.test(s) || (/ comes first(,| in)/.test(s) && !/aren’t far|little separates/.test(s)),
  );
}

/** The worst of each, per cent, in one line. */
export function worstLine(rows: readonly TruthRow[]): string {
  const plain = rows.filter((r) => r.hold === 0.05);
  const most = (of: 'beat' | 'pair' | 'winner' | 'value' | 'card') =>
    (100 * Math.max(0, ...plain.map((r) => r[of] ?? 0))).toFixed(1);
  return `truth: false beat ${most('beat')}, false pair ${most('pair')}, false winner ${most('winner')}, false best value ${most('value')}, false card ${most('card')}, never able ${rows.filter(neverAble).length}`;
}

/** Whether a plan hardly ever finds a difference of ten times the spread. */
export const neverAble = (r: TruthRow): boolean => r.tenfold < 0.1;
