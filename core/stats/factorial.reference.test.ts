// References: R's lm and aov through webR; warpbreaks, npk and ToothGrowth are R's own data. Type II sums of squares are
// differences of deviances of nested models, as car's Anova takes them.
import { describe, expect, it } from 'vitest';
import { startR } from '../testing/r';
import { type FactorialRow, factorial } from './factorial';

const r = await startR();

const close = (own: number | null, reference: number, digits = 8) =>
  expect(Math.abs(own! - reference)).toBeLessThan(10 ** -digits * Math.max(1, Math.abs(reference)));
const terms = (names: string[], rows: FactorialRow[], main: number | null = null) => {
  const found = factorial(names, rows, main);
  if (!found.ok) throw new Error(found.error.tag);
  return found.value;
};
/** Rows of a data frame in R called d, with columns for factors, y and, where they are wanted, block and plot. */
async function rowsOf(
  setUp: string,
  factors: string[],
  places: ('block' | 'plot')[] = [],
): Promise<FactorialRow[]> {
  await r.numbers(`${setUp}; 0`);
  const columns = await Promise.all([...factors, ...places].map((f) => r.texts(`d$${f}`)));
  const values = await r.numbers('d$y');
  return values.map((value, i) => ({
    levels: factors.map((_, f) => columns[f]![i]!),
    ...Object.fromEntries(places.map((p, k) => [p, columns[factors.length + k]![i]!])),
    value,
  }));
}
/** F and p of a term by deviances: what stands before it, and the whole model. */
const ofR = (before: string, after: string, full: string) =>
  r.numbers(`local({
    b <- lm(y ~ ${before}, d); a <- lm(y ~ ${after}, d); m <- lm(y ~ ${full}, d)
    f <- ((deviance(b) - deviance(a)) / (df.residual(b) - df.residual(a))) / (deviance(m) / df.residual(m))
    c(f, df.residual(b) - df.residual(a), df.residual(m),
      pf(f, df.residual(b) - df.residual(a), df.residual(m), lower.tail = FALSE)) })`);

describe('type II tests', () => {
  it('warpbreaks, balanced, and with rows missing', async () => {
    for (const rows of ['warpbreaks', 'warpbreaks[-c(1, 5, 20, 33, 34, 50), ]']) {
      const data = await rowsOf(`d <- ${rows}; d$y <- d$breaks`, ['wool', 'tension']);
      const found = terms(['wool', 'tension'], data);
      const expected = [
        await ofR('tension', 'tension + wool', 'wool * tension'),
        await ofR('wool', 'wool + tension', 'wool * tension'),
        await ofR('wool + tension', 'wool * tension', 'wool * tension'),
      ];
      expect(found.map((t) => t.term)).toEqual(['wool', 'tension', 'wool:tension']);
      found.forEach((t, i) => {
        const [f, df1, df2, p] = expected[i]!;
        close(t.f, f!);
        expect([t.df1, t.df2]).toEqual([df1, df2]);
        close(t.p, p!);
      });
    }
  });

  it('three factors in blocks: npk, its confounded interaction left without a degree of freedom', async () => {
    const data = await rowsOf('d <- npk; d$y <- d$yield', ['N', 'P', 'K'], ['block']);
    const found = terms(['N', 'P', 'K'], data);
    expect(found.map((t) => t.term)).toEqual(['N', 'P', 'K', 'N:P', 'N:K', 'P:K', 'N:P:K']);
    const all = 'block + N * P * K';
    const [f, df1, df2, p] = await ofR('block + P * K', 'block + N + P * K', all);
    close(found[0]!.f, f!);
    expect([found[0]!.df1, found[0]!.df2]).toEqual([df1, df2]);
    close(found[0]!.p, p!);
    // N:P:K is confounded with blocks in npk (Venables and Ripley).
    expect(found[6]).toMatchObject({ df1: 0, f: null, p: null });
  });

  it('three factors, unbalanced', async () => {
    const data = await rowsOf(
      'd <- data.frame(A = rep(c("a", "b"), each = 24), B = rep(c("x", "y", "z"), 16), C = rep(c("u", "v"), each = 3, times = 8)); set.seed(7); d$y <- round(rnorm(48, 20, 3) + 2 * (d$A == "b"), 2); d <- d[-c(2, 3, 17, 30, 31, 48), ]',
      ['A', 'B', 'C'],
    );
    const found = terms(['A', 'B', 'C'], data);
    const expected = [
      await ofR('B * C', 'A + B * C', 'A * B * C'),
      await ofR('A * C', 'B + A * C', 'A * B * C'),
      await ofR('A * B', 'C + A * B', 'A * B * C'),
      await ofR('A * C + B * C', 'A * B + A * C + B * C', 'A * B * C'),
      await ofR('A * B + B * C', 'A * B + A * C + B * C', 'A * B * C'),
      await ofR('A * B + A * C', 'A * B + A * C + B * C', 'A * B * C'),
      await ofR('A * B + A * C + B * C', 'A * B * C', 'A * B * C'),
    ];
    found.forEach((t, i) => {
      close(t.f, expected[i]![0]!);
      close(t.p, expected[i]![3]!);
    });
  });
});

describe('whole plots', () => {
  const design =
    'set.seed(11); d <- expand.grid(B = c("p", "q", "r"), A = c("a", "b"), block = c("1", "2", "3", "4")); d$plot <- d$A; e <- rnorm(8, 0, 4); d$y <- round(50 + 5 * (d$A == "b") + 3 * (d$B == "q") + e[as.integer(interaction(d$A, d$block))] + rnorm(24), 2)';
  it('the main factor against plots, the rest within them: aov with Error(block/plot)', async () => {
    const data = await rowsOf(design, ['A', 'B'], ['block', 'plot']);
    const found = terms(['A', 'B'], data, 0);
    const of = (stratum: string, row: number) =>
      r.numbers(
        `local({ t <- summary(aov(y ~ A * B + Error(block/plot), d))[["${stratum}"]][[1]]; c(t[${row}, "F value"], t[${row}, "Df"], t[nrow(t), "Df"], t[${row}, "Pr(>F)"]) })`,
      );
    const expected = [
      await of('Error: block:plot', 1),
      await of('Error: Within', 1),
      await of('Error: Within', 2),
    ];
    found.forEach((t, i) => {
      const [f, df1, df2, p] = expected[i]!;
      close(t.f, f!);
      expect([t.df1, t.df2]).toEqual([df1, df2]);
      close(t.p, p!);
    });
  });
  it('without blocks plots of the same level are the error', async () => {
    const data = await rowsOf(`${design}; d$plot <- paste(d$A, d$block)`, ['A', 'B'], ['plot']);
    const [a] = terms(['A', 'B'], data, 0);
    const [f, df2] = await r.numbers(
      'local({ m <- aggregate(y ~ plot + A, d, mean); t <- anova(lm(y ~ A, m)); c(t[1, "F value"], t[2, "Df"]) })',
    );
    close(a!.f, f!);
    expect(a!.df2).toBe(df2);
  });
  it('what can’t be is said', () => {
    const row = (a: string, b: string, plot: string, value: number): FactorialRow => ({
      levels: [a, b],
      plot,
      value,
    });
    const whole = ['1', '2'].flatMap((n) =>
      ['a', 'b'].flatMap((a) =>
        ['x', 'y'].map((b, i) => row(a, b, `${a}${n}`, Number(n) + i + (a === 'b' ? 3 : 0))),
      ),
    );
    const tag = (rows: FactorialRow[], main: number | null = 0) => {
      const found = factorial(['A', 'B'], rows, main);
      return found.ok ? 'ok' : found.error.tag;
    };
    expect(tag(whole)).toBe('ok');
    expect(tag(whole.slice(1))).toBe('unevenPlots');
    expect(tag([...whole, row('b', 'x', 'a1', 1)])).toBe('plotTwoLevels');
    expect(tag(whole.filter((r) => r.plot!.endsWith('1')))).toBe('noResidual');
    expect(
      tag(
        whole.filter((r) => r.levels.join() !== 'a,x'),
        null,
      ),
    ).toBe('emptyCell');
    expect(
      tag(
        whole.filter((r) => r.levels[0] === 'a'),
        null,
      ),
    ).toBe('oneLevel');
    // Two blocks of one plot each: nothing is left to test the plots against.
    const blocked = ['1', '2'].flatMap((block) =>
      ['a', 'b'].flatMap((a) =>
        ['x', 'y'].flatMap((b) =>
          [1, 2].map((v) => ({ ...row(a, b, a, v * (a === 'b' ? 2 : 1) + Number(block)), block })),
        ),
      ),
    );
    expect(tag(blocked)).toBe('ok');
    expect(tag(blocked.filter((r) => r.block === '1'))).toBe('noPlotResidual');
  });
});
