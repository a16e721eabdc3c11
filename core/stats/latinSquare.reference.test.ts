// Reference: R's lm, anova and TukeyHSD through webR, on R's own Latin square (OrchardSprays, 8 × 8) and on
// several small squares with rows and columns of their own.
import { beforeAll, describe, expect, it } from 'vitest';
import { latinSquares } from '../design/latinSquare';
import { seededRandom } from '../stats/random';
import { type R, startR } from '../testing/r';
import { compareTreatments } from './compareTreatments';

let r: R;
beforeAll(async () => {
  r = await startR();
});

describe('OrchardSprays', () => {
  const fit = 'lm(decrease ~ factor(rowpos) + factor(colpos) + treatment, OrchardSprays)';
  const compared = async () => {
    const [values, rows, columns, arms] = await Promise.all([
      r.numbers('OrchardSprays$decrease'),
      r.numbers('OrchardSprays$rowpos'),
      r.numbers('OrchardSprays$colpos'),
      r.texts('OrchardSprays$treatment'),
    ]);
    const found = compareTreatments({
      control: 'A',
      rows: values.map((value, i) => ({
        value,
        treatment: arms[i]!,
        block: `r${rows[i]}`,
        column: `c${columns[i]}`,
      })),
    });
    if (!found.ok) throw new Error(found.error.tag);
    return found.value;
  };
  it('gives R’s F, p, residual mean square and degrees of freedom', async () => {
    const { anova, columns, blocks } = await compared();
    const [f, p, ms, df] = await r.numbers(
      `a <- anova(${fit}); c(a["treatment", "F value"], a["treatment", "Pr(>F)"], a["Residuals", "Mean Sq"], a["Residuals", "Df"])`,
    );
    expect([blocks, columns]).toEqual([8, 8]);
    expect(anova!.f).toBeCloseTo(f!, 8);
    expect(anova!.p! / p!).toBeCloseTo(1, 6);
    expect(anova!.residualMeanSquare).toBeCloseTo(ms!, 8);
    expect(anova!.dfResidual).toBe(df);
  });
  it('gives R’s Tukey differences, intervals and p', async () => {
    const { pairs } = await compared();
    const table = await r.numbers(
      `as.vector(TukeyHSD(aov(decrease ~ factor(rowpos) + factor(colpos) + treatment, OrchardSprays), "treatment")$treatment)`,
    );
    const names = await r.texts(
      `rownames(TukeyHSD(aov(decrease ~ factor(rowpos) + factor(colpos) + treatment, OrchardSprays), "treatment")$treatment)`,
    );
    const n = names.length;
    names.forEach((name, i) => {
      const [b, a] = name.split('-') as [string, string];
      const same = pairs.find((x) => x.a === b && x.b === a);
      const pair = same ?? pairs.find((x) => x.a === a && x.b === b)!;
      const [low, high] = same ? [pair.low!, pair.high!] : [-pair.high!, -pair.low!];
      expect(same ? pair.difference : -pair.difference).toBeCloseTo(table[i]!, 8);
      expect(low).toBeCloseTo(table[n + i]!, 5);
      expect(high).toBeCloseTo(table[2 * n + i]!, 5);
      expect(pair.p!).toBeCloseTo(table[3 * n + i]!, 6);
    });
  });
});

describe.each([
  [3, 2, 1],
  [4, 1, 2],
  [3, 4, 3],
  [5, 2, 4],
])('squares of %d, %d of them', (k, squares, seed) => {
  const random = seededRandom(seed);
  const cells = Array.from({ length: k * k * squares }, (_, i) => ({
    area: '',
    row: Math.floor(i / k),
    column: i % k,
  }));
  const placed = latinSquares({
    treatments: Array.from({ length: k }, (_, i) => `t${i}`),
    replicates: k * squares,
    cells,
    seed,
  });
  if (!placed.ok) throw new Error(placed.error.tag);
  const rows = placed.value.map((c) => ({
    treatment: c.treatment,
    block: String(c.block),
    column: String(c.columnBlock),
    value: Number((20 + 3 * c.row + 2 * c.column + 4 * Number(c.treatment[1]) + random.normal()).toFixed(3)),
  }));
  const quoted = (pick: (x: (typeof rows)[number]) => string) => rows.map((x) => `"${pick(x)}"`).join(',');
  const frame = `d <- data.frame(y = c(${rows.map((x) => x.value).join(',')}), t = c(${quoted((x) => x.treatment)}),
    row = factor(c(${quoted((x) => x.block)})), col = factor(c(${quoted((x) => x.column)})))`;

  it('are analysed as R does, the squares’ own differences counted once', async () => {
    const found = compareTreatments({ rows, control: 't0' });
    if (!found.ok) throw new Error(found.error.tag);
    const [f, ms, df] = await r.numbers(
      `${frame}; a <- anova(lm(y ~ row + col + t, d)); c(a["t", "F value"], a["Residuals", "Mean Sq"], a["Residuals", "Df"])`,
    );
    expect(found.value.anova!.dfResidual).toBe(df);
    expect(found.value.anova!.residualMeanSquare).toBeCloseTo(ms!, 8);
    expect(found.value.anova!.f! / f!).toBeCloseTo(1, 8);
  });
  it('keep R’s treatment differences when units are lost', async () => {
    const kept = rows.filter((_, i) => i !== 1 && i !== rows.length - 2);
    const found = compareTreatments({ rows: kept, control: 't0' });
    if (!found.ok) throw new Error(found.error.tag);
    const effects = await r.numbers(
      `${frame}; m <- lm(y ~ row + col + t, d[-c(2, ${rows.length - 1}), ]); coef(m)[grepl("^t", names(coef(m)))]`,
    );
    for (const v of found.value.versusControl) {
      expect(v.difference).toBeCloseTo(effects[Number(v.name[1]) - 1]!, 7);
    }
  });
});
