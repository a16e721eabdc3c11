import type { TraitId } from '../model/ids';
import type { Trait } from '../model/plan';
import type { MadeUp } from '../truth/madeUp';
import { tryOut } from '../truth/tried';
import { trait } from './trial';

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

export interface TruthRow {
  name: string;
  beat: number;
  pair: number;
  winner: number;
  untested: number;
  power: number;
  tenfold: number;
  value: number | null;
  card: number | null;
}

export function* truthRows({
  runs,
  seed,
  only,
}: {
  runs: number;
  seed: number;
  only: string;
}): Generator<TruthRow> {
  for (const kind of kindsOfTruth)
    for (const design of ['random', 'blocks', 'latin'] as const)
      for (const contenders of [2, 3, 4, 6])
        for (const n of [3, 4, 6]) {
          if (design === 'latin' && n !== contenders) continue;
          const name = `${kind.name}, ${contenders} contenders, ${n} each, ${design}`;
          if (only && !name.includes(only)) continue;
          yield truthRow(name, kind, { design, contenders, n, runs, seed });
        }
}

function truthRow(
  name: string,
  kind: KindOfTruth,
  {
    design,
    contenders,
    n,
    runs,
    seed,
  }: { design: MadeUp['design']; contenders: number; n: number; runs: number; seed: number },
): TruthRow {
  const k = contenders + 1;
  const base: MadeUp = {
    trait: kind.trait,
    design: design === 'latin' ? 'latin' : design,
    units: Array.from({ length: design === 'latin' ? contenders : k }, () => n),
    levels: Array.from({ length: design === 'latin' ? contenders : k }, () => kind.level),
    scatter: kind.scatter,
    ...(kind.until !== undefined && { until: kind.until }),
  };
  const withLevels = (level: (i: number) => number): MadeUp => ({
    ...base,
    levels: base.levels.map((_, i) => level(i)),
  });
  const at = (m: MadeUp, share = 1) => tryOut(m, { runs: Math.round(runs * share), seed });
  const nothing = at(base);
  const oneFar = at(
    withLevels((i) => (i === 1 ? kind.tenfold : kind.level)),
    0.5,
  );
  const all = at(
    withLevels((i) => (i === 0 ? kind.level : kind.tenfold)),
    0.5,
  );
  const one = at(
    withLevels((i) => (i === 1 ? kind.matters : kind.level)),
    0.5,
  );
  const worst = (of: 'beat' | 'pair' | 'winner') => Math.max(nothing[of], oneFar[of], all[of], one[of]);
  return {
    name,
    beat: worst('beat'),
    pair: worst('pair'),
    winner: worst('winner'),
    untested: nothing.untested,
    power: one.found,
    tenfold: oneFar.found,
    value: null,
    card: null,
  };
}
