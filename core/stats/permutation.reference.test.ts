// References: R's combn through webR enumerates every arrangement; PlantGrowth and InsectSprays are R's own data.
import { describe, expect, it } from 'vitest';
import { startR } from '../testing/r';
import { permutationTest } from './permutation';

const r = await startR();

/** Every swap of labels, counted in R. */
const inR = (a: string, b: string) =>
  r.numbers(`local({
    a <- ${a}; b <- ${b}; v <- c(a, b); m <- length(a); seen <- abs(mean(a) - mean(b)) - 1e-9 * diff(range(v))
    ways <- combn(length(v), m)
    sums <- colSums(matrix(v[ways], m)); all <- abs(sums / m - (sum(v) - sums) / (length(v) - m))
    c(mean(a) - mean(b), ncol(ways), mean(all >= seen))
  })`);

const plantGrowth = (group: string) => `PlantGrowth$weight[PlantGrowth$group == "${group}"]`;
const sprays = (spray: string) => `InsectSprays$count[InsectSprays$spray == "${spray}"][1:9]`;

describe('labels swapped in every possible way', () => {
  it.each([
    ['PlantGrowth, trt2 against ctrl', plantGrowth('trt2'), plantGrowth('ctrl')],
    [
      'PlantGrowth, seven of trt1 against seven of ctrl',
      `${plantGrowth('trt1')}[1:7]`,
      `${plantGrowth('ctrl')}[1:7]`,
    ],
    ['InsectSprays with many ties, C against E', sprays('C'), sprays('E')],
    ['unequal numbers', 'c(3, 4, 5.5, 6)', 'c(0, 1, 2)'],
  ])('%s', async (_, a, b) => {
    const [difference, ways, p] = await inR(a, b);
    const [x, y] = [await r.numbers(a), await r.numbers(b)];
    const own = permutationTest([{ a: x, b: y }])!;
    expect(own.difference).toBeCloseTo(difference!, 12);
    expect(own.arrangements).toBe(ways);
    expect(own.exact).toBe(true);
    expect(own.p).toBeCloseTo(p!, 12);
  });

  it('inside blocks: every choice in each, independently', async () => {
    const own = permutationTest([
      { a: [5, 7], b: [4, 6, 3] },
      { a: [9], b: [8, 8.5] },
    ])!;
    const [ways, p] = await r.numbers(`local({
      one <- c(5, 7, 4, 6, 3); two <- c(9, 8, 8.5); n <- 0; hit <- 0
      seen <- abs(mean(c(5, 7, 9)) - mean(c(4, 6, 3, 8, 8.5))) - 1e-9 * 6
      for (i in combn(5, 2, simplify = FALSE)) for (j in 1:3) {
        d <- abs(mean(c(one[i], two[j])) - mean(c(one[-i], two[-j])))
        n <- n + 1; hit <- hit + (d >= seen)
      }
      c(n, hit / n)
    })`);
    expect(own.arrangements).toBe(ways);
    expect(own.p).toBeCloseTo(p!, 12);
  });
});

describe('the interval', () => {
  const a = [12, 14, 15, 17, 18];
  const b = [8, 9, 11, 12, 13];
  it('holds the shifts that aren’t refuted, and ends where they begin to be', () => {
    const own = permutationTest([{ a, b }])!;
    const { low, high } = own.interval(0.05)!;
    const pAt = (shift: number) => permutationTest([{ a: a.map((x) => x - shift), b }])!.p;
    expect(low).toBeLessThan(own.difference);
    expect(high).toBeGreaterThan(own.difference);
    for (const inside of [low + 1e-6, own.difference, high - 1e-6]) expect(pAt(inside)).toBeGreaterThan(0.05);
    for (const outside of [low - 1e-6, high + 1e-6]) expect(pAt(outside)).toBeLessThanOrEqual(0.05);
  });
  it('is none where even the clearest outcome is likelier than the level', () => {
    // 3 and 3: the least p there is is 2 of 20
    expect(permutationTest([{ a: [10, 11, 12], b: [1, 2, 3] }])!.p).toBeCloseTo(0.1, 12);
    expect(permutationTest([{ a: [10, 11, 12], b: [1, 2, 3] }])!.interval(0.05)).toBeNull();
  });
});

it('beyond two million arrangements ways are drawn, the same for the same seed', async () => {
  const a = Array.from({ length: 14 }, (_, i) => i);
  const b = Array.from({ length: 14 }, (_, i) => i + 1.5);
  const [one, two] = [permutationTest([{ a, b }], 7)!, permutationTest([{ a, b }], 7)!];
  expect(one).toMatchObject({ exact: false, arrangements: 100_000 });
  expect(two.p).toBe(one.p);
  // The normal approximation of the same swap, worked out in R.
  const [p] = await r.numbers(`local({
    a <- 0:13; b <- 0:13 + 1.5; v <- c(a, b); 2 * pnorm(-1.5 / sqrt(var(v) * 2 / 14))
  })`);
  expect(Math.abs(one.p - p!)).toBeLessThan(0.02);
});

it('a side without units has no test', () => {
  expect(permutationTest([{ a: [], b: [1] }])).toBeNull();
});
