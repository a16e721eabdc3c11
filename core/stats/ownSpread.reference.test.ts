// Reference: R's t.test (Welch, and paired) through webR, on R's own data sets (sleep, PlantGrowth).
import { expect, it } from 'vitest';
import { startR } from '../testing/r';
import { compareTreatments } from './compareTreatments';
import { steppedDown } from './ownSpread';

const r = await startR();

it('two treatments without blocks: Welch’s t, its freedom rounded down', async () => {
  const rows = [4.17, 5.58, 5.18, 6.11, 4.5].map((value) => ({ treatment: 'ctrl', value }));
  const others = [4.81, 4.17, 4.41, 3.59, 5.87, 3.83, 6.03].map((value) => ({ treatment: 'trt', value }));
  const made = compareTreatments({ rows: [...rows, ...others], control: 'ctrl', spreads: 'own' });
  if (!made.ok) throw new Error('not compared');
  const [t, df] = await r.numbers(
    `w <- t.test(c(${others.map((x) => x.value).join()}), c(${rows.map((x) => x.value).join()})); c(w$statistic, w$parameter)`,
  );
  const rounded = steppedDown(df!);
  const [p] = await r.numbers(`2 * pt(-abs(${t}), ${rounded})`);
  expect(made.value.versusControl[0]!.p).toBeCloseTo(p!, 8);
  expect(made.value.spreads).toBe('own');
});
it('two treatments in blocks: the paired t test', async () => {
  const [first, second] = [await r.numbers('sleep$extra[1:10]'), await r.numbers('sleep$extra[11:20]')];
  const rows = [first, second].flatMap((values, i) =>
    values.map((value, block) => ({ treatment: i === 0 ? 'one' : 'two', block: String(block), value })),
  );
  const made = compareTreatments({ rows, control: 'one', spreads: 'own' });
  if (!made.ok) throw new Error('not compared');
  const [low, high, p] = await r.numbers(
    'w <- t.test(sleep$extra[11:20], sleep$extra[1:10], paired = TRUE); c(w$conf.int, w$p.value)',
  );
  const [own] = made.value.versusControl;
  expect(own!.low).toBeCloseTo(low!, 8);
  expect(own!.high).toBeCloseTo(high!, 8);
  expect(own!.p).toBeCloseTo(p!, 8);
});
it('freedom is rounded down', () => {
  expect([12.9, 9.87, 3.2, 2.68, 0.4].map(steppedDown).map((x) => Number(x.toFixed(9)))).toEqual([
    12, 9.5, 3, 2.6, 1,
  ]);
});
it('fewer than three units of all, and spreads that can’t be told, are one spread', () => {
  const rows = ['a', 'b'].flatMap((treatment, i) => [1, 2].map((v) => ({ treatment, value: v + 5 * i })));
  const [own, one] = [
    compareTreatments({ rows, control: 'a', spreads: 'own' }),
    compareTreatments({ rows, control: 'a' }),
  ];
  if (!own.ok || !one.ok) throw new Error('not compared');
  expect(own.value.versusControl[0]!.p).toBeCloseTo(one.value.versusControl[0]!.p!, 9);
  // A control that shows no spread at all leaves the residual mean square.
  const flat = [
    ...[5, 5, 5].map((value) => ({ treatment: 'a', value })),
    ...[6, 7, 9].map((value) => ({ treatment: 'b', value })),
  ];
  const made = compareTreatments({ rows: flat, control: 'a', spreads: 'own' });
  expect(made.ok && made.value.spreads).toBe('one');
});
