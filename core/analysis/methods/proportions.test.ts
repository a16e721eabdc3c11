import tCdf from '@stdlib/stats-base-dists-t-cdf';
import { describe, expect, it } from 'vitest';
import type { TraitId } from '../../model/ids';
import { seededRandom } from '../../stats/random';
import { newcombe, wilson } from '../../stats/proportion';
import { entry, plan, trait, unitId } from '../../testing/trial';
import { deriveState } from '../../log/state';
import { findingOf } from '../../account/findingInput';
import { headline } from '../../say/words';
import type { AnalysisRow } from '../analysis';
import { linearModel } from './linearModel';
import { proportions } from './proportions';

const rooted = trait({
  id: 'rooted' as TraitId,
  name: 'Rooted',
  kind: 'ratio',
  unit: '%',
  outOf: 5,
  decimals: 0,
});
const row = (treatment: string, k: number, n = 5, block: string | null = null, unit = ''): AnalysisRow => ({
  ...{ unit: unit || `${treatment}${Math.random()}`, treatment, block, column: null, divisor: 1 },
  visits: [
    { roundId: null, day: 60, samples: [{ sample: null, crop: 0, observed: { type: 'kOfN', k, n } }] },
  ],
});
const rows = (counts: Record<string, number[]>, blocked = false) =>
  Object.entries(counts).flatMap(([t, ks]) => ks.map((k, i) => row(t, k, 5, blocked ? String(i) : null)));
const analysed = (all: AnalysisRow[], over: object = {}) => {
  const order = [...new Set(all.map((r) => r.treatment))];
  const made = proportions.analyse({
    trait: rooted,
    rows: all,
    control: 'Water',
    order,
    alpha: 0.05,
    ...over,
  });
  if (!made.ok) throw new Error(made.error.tag);
  return made.value;
};

describe('k of n, by pots', () => {
  const clear = rows({ Water: [1, 0, 1, 2, 0, 1], A: [4, 5, 4, 3, 5, 4] });
  it('pools the counts, says them, and keeps every limit between 0 and 100 %', () => {
    const a = analysed(clear);
    expect(a.summaries.map((s) => [s.name, s.counted, s.n])).toEqual([
      ['Water', '5/30', 6],
      ['A', '25/30', 6],
    ]);
    expect(a.summaries[1]!.estimate).toBeCloseTo(83.333, 3);
    for (const s of analysed(rows({ Water: [0, 0, 0, 0, 0], A: [5, 5, 5, 5, 5] })).summaries) {
      expect(s.low).toBeGreaterThanOrEqual(0);
      expect(s.high).toBeLessThanOrEqual(100);
    }
  });
  it('pots that scatter like single cuttings: Newcombe’s interval and the exact p of swapping pots', () => {
    const [c] = analysed(clear).versusControl;
    // χ²/df is below 1 here: nothing is made wider.
    const plain = newcombe(wilson(25, 30, 0.05), wilson(5, 30, 0.05));
    expect(c!.low).toBeCloseTo(100 * plain.low!, 9);
    expect(c!.high).toBeCloseTo(100 * plain.high!, 9);
    // All of one are above all of the other: two of 924 arrangements.
    expect(c!.p).toBeCloseTo(2 / 924, 12);
  });
  it('pots that scatter more make the interval wider', () => {
    const even = analysed(rows({ Water: [1, 1, 1, 1, 1, 1], A: [3, 3, 3, 3, 3, 3] })).versusControl[0]!;
    const uneven = analysed(rows({ Water: [0, 0, 0, 0, 1, 5], A: [5, 5, 5, 3, 0, 0] })).versusControl[0]!;
    expect(uneven.estimate).toBeCloseTo(even.estimate, 9);
    expect(uneven.high! - uneven.low!).toBeGreaterThan(1.5 * (even.high! - even.low!));
    expect(uneven.p).toBeGreaterThan(0.05);
  });
  it('three pots a side lean on how pots scatter; p and interval say the same', () => {
    // Fisher on 12 of 15 against 3 of 15 would be sure; three pots a side can’t be swapped to below 2 of 20.
    const few = analysed(rows({ Water: [1, 1, 1], A: [4, 4, 4] }));
    // By hand: χ² of 12 and 3 of 15, n − 1: 29·(12·12 − 3·3)²/(15·15·15·15) = 10.44; pots scatter less than single ones.
    expect(few.versusControl[0]!.p).toBeCloseTo(2 * tCdf(-Math.sqrt((29 * 135 ** 2) / 15 ** 4), 4), 10);
    expect(few.versusControl[0]!.low).toBeGreaterThan(0);
    const some = analysed(rows({ Water: [0, 1, 1, 4], A: [4, 4, 5, 3] }));
    const [c] = some.versusControl;
    expect(c!.p).toBeGreaterThan(0.05);
    expect(c!.low).toBeLessThanOrEqual(0);
  });
  it('one pot of each: numbers alone', () => {
    const a = analysed(rows({ Water: [1], A: [5] }));
    expect(a.spread).toBe('oneEach');
    expect(a.pairs.every((c) => c.p === null)).toBe(true);
  });
  it('in blocks pots are swapped inside them alone, where that is fine enough', () => {
    const [low, high] = [
      [0, 1, 2, 0, 1, 1],
      [3, 4, 5, 3, 4, 4],
    ];
    const blocked = (times: number) =>
      analysed(rows({ Water: Array(times).fill(low).flat(), A: Array(times).fill(high).flat() }, true));
    expect(blocked(2).versusControl[0]!.p).toBeCloseTo(2 / 2 ** 12, 12);
    // Six blocks give 2 of 64 at best: too coarse a step.
    expect(blocked(1).smallPrint).toContain('too few units to be swapped');
  });
  it('pairs with the control are its contrasts, read either way; every comparison counts', () => {
    const a = analysed(rows({ Water: [1, 0, 1, 2, 0, 1], A: [4, 5, 4, 3, 5, 4], B: [2, 2, 3, 1, 2, 2] }));
    expect(a.pairs).toHaveLength(3);
    expect(a.pairs[0]!.estimate).toBeCloseTo(-a.versusControl[0]!.estimate, 12);
    // All of A above all of Water: 2 of 924; closed testing takes the larger of that and of all three together.
    expect(a.versusControl[0]!.p).toBeCloseTo(2 / 924, 12);
  });
});

it('two treatments that are the same are called different in no more than the level', () => {
  const random = seededRandom(5);
  const trials = 300;
  for (const scatter of [0, 0.3]) {
    let wrong = 0;
    for (let t = 0; t < trials; t++) {
      const pot = () => {
        const p = Math.min(1, Math.max(0, 0.5 + scatter * random.normal()));
        return Array.from({ length: 5 }, () => random.uniform() < p).filter(Boolean).length;
      };
      const [c] = analysed(
        rows({ Water: Array.from({ length: 6 }, pot), A: Array.from({ length: 6 }, pot) }),
      ).versusControl;
      if (c!.low !== null && (c!.low > 0 || c!.high! < 0)) wrong += 1;
    }
    // Four standard errors above 5 %.
    expect(wrong / trials).toBeLessThan(0.05 + 4 * Math.sqrt((0.05 * 0.95) / trials));
  }
});

describe('few blocks of one pot each', () => {
  const four = {
    Water: [1, 0, 1, 2],
    A: [5, 4, 5, 5],
    B: [1, 2, 1, 1],
    C: [1, 0, 1, 2],
  };
  // Swapping inside four blocks gives 2 of 16 at best. By hand: 19 and 4 of 20; in each block the excess over half is
  // 2, 2, 2 and 1.5, its variance 25·k·(10 − k)/(100·9); the scatter is below that of single cuttings. A, near all,
  // shows nothing of the scatter: of the nine degrees of freedom of the others blocks take 3.
  it('lean on the scatter of all pots, and say so', () => {
    const made = analysed(rows(four, true));
    const variance = [6, 4, 6, 7].reduce((v, k) => v + (25 * k * (10 - k)) / 900, 0);
    const t = 7.5 / Math.sqrt(variance);
    expect(t).toBeCloseTo(4.6663, 3);
    // A against Water alone; sets with the others may ask for more.
    expect(made.versusControl[0]!.p).toBeGreaterThanOrEqual(2 * tCdf(-t, 6));
    expect(made.versusControl[0]!.p).toBeLessThan(0.01);
    expect(made.versusControl[0]!.low).toBeGreaterThan(0);
    expect(made.versusControl[1]!.low).toBeLessThanOrEqual(0);
    expect(made.assumptions.map((x) => x.what)).toContain('contenders scatter alike');
    expect(made.smallPrint).toContain('against F with 6 degrees of freedom');
  });
  it('of two contenders alone too, with what freedom there is', () => {
    const { Water, A } = four;
    const made = analysed(rows({ Water, A }, true));
    expect(made.spread).toBe('shown');
    expect(made.smallPrint).toContain('against F with 3 degrees of freedom');
  });
  it.each([
    [6, 3, true],
    [6, 4, true],
    [6, 2, false],
    [4, 3, false],
    [2, 5, true],
  ])(
    '%i contenders, %i pots each, in blocks %s: no false winners, whatever pots share',
    (many, each, blocked) => {
      const trials = 300;
      const names = ['Water', ...'ABCDE'.slice(0, many - 1)];
      for (const scatter of [0, 0.3, 1]) {
        const random = seededRandom(11 + many + each);
        let wrong = 0;
        for (let t = 0; t < trials; t++) {
          // Beta's extremes: pots that are all or nothing; else a share that varies from pot to pot.
          const pot = () => {
            const p =
              scatter === 1
                ? Number(random.uniform() < 0.5)
                : Math.min(1, Math.max(0, 0.5 + scatter * random.normal()));
            return Array.from({ length: 5 }, () => random.uniform() < p).filter(Boolean).length;
          };
          const counts = Object.fromEntries(names.map((n) => [n, Array.from({ length: each }, pot)]));
          const { versusControl } = analysed(rows(counts, blocked));
          if (versusControl.some((c) => c.low !== null && (c.low > 0 || c.high! < 0))) wrong += 1;
        }
        expect(wrong / trials).toBeLessThan(0.05 + 4 * Math.sqrt((0.05 * 0.95) / trials));
      }
    },
  );
});

describe('in a finding', () => {
  const p = { ...plan({ replicates: 6, traits: [rooted] }), primaryTraitId: rooted.id };
  const log = (counts: Record<string, number[]>, borderline: Record<string, number[]> = {}) =>
    Object.entries(counts).flatMap(([t, ks]) =>
      ks.map((value, i) =>
        entry({
          ...{
            kind: 'measurement',
            unitId: unitId(t, i),
            traitId: rooted.id,
            roundId: 'r2',
            sample: null,
            value,
          },
          ...(borderline[t] && { borderline: borderline[t][i] }),
        }),
      ),
    );
  const finding = (lines: ReturnType<typeof log>, options = {}) => {
    const made = findingOf(deriveState(p, lines), rooted, options);
    if (!made.ok) throw new Error(made.error.tag);
    return made.value;
  };
  const name = (id: string) => id;
  it('is the usual way for k of n; the linear model can still be asked for', () => {
    const lines = log({ Water: [1, 0, 1, 2, 0, 1], A: [4, 5, 4, 3, 5, 4] });
    expect(finding(lines).analysis.method).toBe('proportions');
    expect(headline(finding(lines), name).text).toMatch(/A beat Water\.$/);
    expect(finding(lines, { method: linearModel.id }).analysis.method).toBe('linear');
  });
  it('borderline cases counted or not can be two findings', () => {
    const lines = log({ Water: [1, 0, 1, 2, 0, 1], A: [1, 1, 1, 0, 1, 1] }, { A: [3, 4, 3, 4, 4, 3] });
    expect(headline(finding(lines), name).text).not.toMatch(/beat/);
    const counted = finding(lines, { withBorderline: true });
    expect(counted.analysis.summaries[1]!.counted).toBe('26/30');
    expect(headline(counted, name).text).toMatch(/A beat Water/);
  });
});
