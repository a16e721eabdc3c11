// Reference: R (through webR) on R's own data sets; NIST StRD one-way analysis of variance.
import { beforeAll, describe, expect, it } from 'vitest';
import { type R, startR } from '../testing/r';
import type { Comparison, ComparisonRow } from './comparison';
import { compareTreatments } from './compareTreatments';

let r: R;
beforeAll(async () => {
  r = await startR();
});

async function rows(data: string, response: string, treatment: string, block?: string) {
  const values = await r.numbers(`${data}$${response}`);
  const treatments = await r.texts(`${data}$${treatment}`);
  const blocks = block ? await r.texts(`${data}$${block}`) : null;
  return values.map((value, i): ComparisonRow => ({
    value,
    treatment: treatments[i]!,
    ...(blocks && { block: blocks[i]! }),
  }));
}

function compared(input: Parameters<typeof compareTreatments>[0]): Comparison {
  const result = compareTreatments(input);
  if (!result.ok) throw new Error(result.error.tag);
  return result.value;
}

/** [F, p, residual mean square, dfs] of the treatment line of R's sequential table, blocks first. */
const rAnova = (data: string, response: string, treatment: string, block = '') =>
  r.numbers(
    `a <- anova(lm(${response} ~ ${block ? `factor(${block}) + ` : ''}factor(${treatment}), ${data}));
     i <- nrow(a) - 1; c(a[i, "F value"], a[i, "Pr(>F)"], a[i + 1, "Mean Sq"], a[i, "Df"], a[i + 1, "Df"])`,
  );

describe.each([
  ['PlantGrowth', 'weight', 'group', undefined, 'ctrl'],
  ['chickwts', 'weight', 'feed', undefined, 'casein'],
  ['warpbreaks', 'breaks', 'tension', 'wool', 'L'],
  ['OrchardSprays', 'decrease', 'treatment', 'rowpos', 'A'],
  ['npk', 'yield', 'N', 'block', '0'],
  ['InsectSprays', 'count', 'spray', undefined, 'C'],
  // unbalanced with missing cells
  [
    'subset(OrchardSprays, !(rowpos == 1 & treatment %in% c("B", "C")))',
    'decrease',
    'treatment',
    'rowpos',
    'A',
  ],
])('R data set %s', (data, response, treatment, block, control) => {
  it('gives R’s F, p and residual', async () => {
    const c = compared({ rows: await rows(data, response, treatment, block), control });
    const [f, p, ms, df1, df2] = await rAnova(data, response, treatment, block);
    expect(c.anova!.f).toBeCloseTo(f!, 9);
    expect(c.anova!.p! / p!).toBeCloseTo(1, 9);
    expect(c.anova!.residualMeanSquare / ms!).toBeCloseTo(1, 10);
    expect([c.anova!.dfTreatment, c.anova!.dfResidual]).toEqual([df1, df2]);
  });

  it('gives R’s adjusted differences and their standard errors, and Tukey’s p and interval', async () => {
    const c = compared({ rows: await rows(data, response, treatment, block), control });
    const [first, second] = [c.pairs[0]!.a, c.pairs[0]!.b];
    const model = `lm(${response} ~ relevel(factor(${treatment}), "${second}")${block ? ` + factor(${block})` : ''}, ${data})`;
    const row = await r.numbers(
      `m <- ${model}; s <- summary(m)$coefficients; s[grep("${first}$", rownames(s))[1], 1:2]`,
    );
    const [estimate, se] = row as [number, number];
    expect(c.pairs[0]!.difference).toBeCloseTo(estimate, 8);
    const k = c.treatments.length;
    const [p, half] = await r.numbers(
      `c(ptukey(${Math.abs(estimate / se) * Math.SQRT2}, ${k}, ${c.anova!.dfResidual}, lower.tail = FALSE),
         qtukey(0.95, ${k}, ${c.anova!.dfResidual}) / sqrt(2) * ${se})`,
    );
    expect(c.pairs[0]!.p).toBeCloseTo(p!, 8);
    // R's qtukey stops at a relative change of 1e-4 (its own help page)
    expect((c.pairs[0]!.high! - c.pairs[0]!.low!) / 2 / half!).toBeCloseTo(1, 3);
  });
});

it('gives TukeyHSD of PlantGrowth whole', async () => {
  const c = compared({ rows: await rows('PlantGrowth', 'weight', 'group'), control: 'ctrl' });
  const t = await r.numbers('t(TukeyHSD(aov(weight ~ group, PlantGrowth))$group)'); // trt1-ctrl, trt2-ctrl, trt2-trt1
  c.pairs.forEach((pair, i) => {
    expect(-pair.difference).toBeCloseTo(t[4 * i]!, 9);
    expect(-pair.high!).toBeCloseTo(t[4 * i + 1]!, 3);
    expect(-pair.low!).toBeCloseTo(t[4 * i + 2]!, 3);
    expect(pair.p!).toBeCloseTo(t[4 * i + 3]!, 8);
  });
  expect(c.letters).toEqual({ ctrl: 'ab', trt1: 'b', trt2: 'a' });
});

describe('NIST StRD one-way analysis of variance', () => {
  const oneWay = (groups: number[][]) =>
    compared({
      control: '0',
      rows: groups.flatMap((g, i) => g.map((value) => ({ treatment: String(i), value }))),
    }).anova!;

  it('SiRstv: F 1.18046237440255', () => {
    const anova = oneWay([
      [196.3052, 196.124, 196.189, 196.2569, 196.3403],
      [196.3042, 196.3825, 196.1669, 196.3257, 196.0422],
      [196.1303, 196.2005, 196.2889, 196.0343, 196.1811],
      [196.2795, 196.1748, 196.1494, 196.1485, 195.9885],
      [196.2119, 196.1051, 196.185, 196.0052, 196.209],
    ]);
    expect(anova.f).toBeCloseTo(1.18046237440255, 12);
  });

  /** nine treatments of 21 values: a middle one, then ten pairs a tenth below and above it */
  const smLs = (offset: number, replicates: number) =>
    [0.4, 0.3, 0.5, 0.3, 0.5, 0.3, 0.5, 0.3, 0.5].map((middle) => {
      const at = (tenths: number) => Number(`${offset}.${Math.round(middle * 10) + tenths}`);
      return [at(0), ...Array.from({ length: (replicates - 1) / 2 }, () => [at(-1), at(1)]).flat()];
    });

  it.each([
    ['SmLs01', 1, 21, 21],
    ['SmLs02', 1, 201, 201],
    ['SmLs04', 1_000_000, 21, 21],
    ['SmLs07', 1_000_000_000_000, 21, 21],
    ['SmLs08', 1_000_000_000_000, 201, 201],
  ])('%s: F to 9 digits', (_, offset, replicates, f) => {
    const anova = oneWay(smLs(offset, replicates));
    expect(anova.f! / f).toBeCloseTo(1, 9);
    expect(anova.residualMeanSquare).toBeCloseTo(0.01, 10);
  });
});

it('keeps the last digit at an offset of a thousand million', () => {
  const at = (offset: number) =>
    compared({
      control: 'a',
      rows: [
        [1, 2, 4],
        [3, 3, 5],
      ].flatMap((v, i) => v.map((x) => ({ treatment: 'ab'[i]!, value: Number(`${offset + x}.1`) }))),
    });
  expect(at(1_000_000_000).anova!.f).toBeCloseTo(at(0).anova!.f!, 10);
  expect(at(1_000_000_000).pairs[0]!.p).toBeCloseTo(at(0).pairs[0]!.p!, 10);
});
