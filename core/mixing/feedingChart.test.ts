import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chartOfUses } from './chartOfUses';
import { columnAfter, pasteIntoChart } from './chartPaste';
import {
  type ChartUse,
  type FeedingChart,
  describeChartError,
  placeOfChartError,
  usesOfChart,
} from './feedingChart';

const column = (fromDay: number, stage = '', strengthPercent = 100) => ({ fromDay, stage, strengthPercent });
/** Three weeks of a two-part feed with a bloom product in the last one, every other day. */
const chart: FeedingChart = {
  columns: [column(0, 'week 1', 50), column(7, 'week 2'), column(14, 'week 3')],
  rows: [
    { productId: 'a', cells: ['2 mL/L', '2 mL/L', '2 mL/L'] },
    { productId: 'b', cells: ['1 mL/L', '2 mL/L', '–'] },
    { productId: 'bloom', cells: ['', '', '½ tsp/gal'] },
  ],
  everyDays: 2,
  lastDay: 20,
};
const usesOf = (c: FeedingChart): ChartUse[] => {
  const r = usesOfChart(c);
  if (!r.ok) throw new Error(describeChartError(r.error));
  return r.value;
};
/** What is given when: day by day, whatever way it is written in. */
const given = (uses: readonly ChartUse[]) =>
  uses
    .flatMap((u) =>
      Array.from(
        { length: u.timesPerUnit },
        (_, i) => `${u.fromDay + i * u.everyDays} ${u.productId} ${u.amount} ${u.strengthPercent}`,
      ),
    )
    .sort();

describe('a feeding chart', () => {
  it('is one dose for each product and run of weeks alike', () => {
    expect(usesOf(chart)).toEqual([
      // days 0 2 4 6 at half strength, then 8 … 20: strength tells them apart
      {
        productId: 'a',
        amount: '2 mL/L',
        stage: 'week 1',
        fromDay: 0,
        everyDays: 2,
        timesPerUnit: 4,
        strengthPercent: 50,
      },
      {
        productId: 'a',
        amount: '2 mL/L',
        stage: 'week 2 to week 3',
        fromDay: 8,
        everyDays: 2,
        timesPerUnit: 7,
        strengthPercent: 100,
      },
      {
        productId: 'b',
        amount: '1 mL/L',
        stage: 'week 1',
        fromDay: 0,
        everyDays: 2,
        timesPerUnit: 4,
        strengthPercent: 50,
      },
      {
        productId: 'b',
        amount: '2 mL/L',
        stage: 'week 2',
        fromDay: 8,
        everyDays: 2,
        timesPerUnit: 3,
        strengthPercent: 100,
      },
      {
        productId: 'bloom',
        amount: '½ tsp/gal',
        stage: 'week 3',
        fromDay: 14,
        everyDays: 2,
        timesPerUnit: 4,
        strengthPercent: 100,
      },
    ]);
  });
  it('feeds on its rhythm from its first day, whatever day a week begins', () => {
    const weekly = usesOf({
      ...chart,
      everyDays: 7,
      columns: [column(3), column(10), column(17)],
      lastDay: 23,
    });
    expect([...new Set(given(weekly).map((g) => Number(g.split(' ')[0])))].sort((x, y) => x - y)).toEqual([
      3, 10, 17,
    ]);
  });
  it.each([
    [{ columns: [] }, /one week or stage/, { field: 'rate', row: 0, column: 0 }],
    [{ everyDays: 0 }, /Every how many days/, { field: 'everyDays' }],
    [{ everyDays: 1.5 }, /Every how many days/, { field: 'everyDays' }],
    [
      { columns: [column(0), column(7), column(7)] },
      /first day of column 3/,
      { field: 'fromDay', column: 2 },
    ],
    [
      { columns: [column(-1), column(7), column(14)] },
      /first day of column 1/,
      { field: 'fromDay', column: 0 },
    ],
    [{ lastDay: 13 }, /day 14 or later/, { field: 'lastDay' }],
    [
      { columns: [column(0), column(7, '', 0), column(14)] },
      /strength of column 2/,
      { field: 'strength', column: 1 },
    ],
    [{ rows: [{ productId: '', cells: ['1 g/L'] }] }, /product of line 1/, { field: 'product', row: 0 }],
    [{ rows: [chart.rows[0]!, chart.rows[0]!] }, /line 2 has a line already/, { field: 'product', row: 1 }],
    [{ rows: [{ productId: 'a', cells: ['', ' ', '-'] }] }, /no rate/, { field: 'rate', row: 0, column: 0 }],
    [{ everyDays: 14 }, /No feed falls into column 2/, { field: 'fromDay', column: 1 }],
  ])('%j says what is wrong, and where', (over, said, place) => {
    const r = usesOfChart({ ...chart, ...over });
    expect(!r.ok && describeChartError(r.error)).toMatch(said);
    expect(!r.ok && placeOfChartError(r.error)).toEqual(place);
  });
});

describe('a programme written as a chart again', () => {
  it('gives the same on the same days', () => {
    const again = chartOfUses(usesOf(chart))!;
    expect(again.everyDays).toBe(2);
    expect(given(usesOf(again))).toEqual(given(usesOf(chart)));
  });
  it('does so for any chart', () => {
    const cell = fc.constantFrom('', '1 g/L', '2 g/L');
    const charts = fc
      .record({
        starts: fc.uniqueArray(fc.integer({ min: 0, max: 60 }), { minLength: 1, maxLength: 5 }),
        rows: fc.array(fc.array(cell, { minLength: 5, maxLength: 5 }), { minLength: 1, maxLength: 3 }),
        strengths: fc.array(fc.constantFrom(50, 100), { minLength: 5, maxLength: 5 }),
        everyDays: fc.integer({ min: 1, max: 9 }),
        more: fc.integer({ min: 0, max: 20 }),
      })
      .map(({ starts, rows, strengths, everyDays, more }): FeedingChart => {
        const days = starts.sort((x, y) => x - y);
        return {
          columns: days.map((d, i) => column(d, `s${i}`, strengths[i])),
          rows: rows.map((cells, i) => ({ productId: `p${i}`, cells: cells.slice(0, days.length) })),
          everyDays,
          lastDay: days[days.length - 1]! + more,
        };
      });
    let said = 0;
    fc.assert(
      fc.property(charts, (c) => {
        const r = usesOfChart(c);
        if (!r.ok) return;
        said += 1;
        const again = chartOfUses(r.value)!;
        expect(given(usesOf(again))).toEqual(given(r.value));
      }),
      { numRuns: 300 },
    );
    expect(said).toBeGreaterThan(50);
  });
  const [first] = usesOf(chart) as [ChartUse];
  it.each([
    ['nothing', []],
    ['a dose without days', [{ ...first, fromDay: null }]],
    ['two rhythms', [first, { ...first, productId: 'b', everyDays: 3 }]],
    ['days off the rhythm', [first, { ...first, productId: 'b', fromDay: 1 }]],
    ['one product twice on a day', [first, { ...first, amount: '9 mL/L' }]],
    ['two strengths at a time', [first, { ...first, productId: 'b', strengthPercent: 80 }]],
    ['no rhythm at all', [{ ...first, everyDays: null }]],
  ])('%s is no chart', (_, uses) => expect(chartOfUses(uses)).toBeNull());
  it('a single feed needs no rhythm', () => {
    const once = { ...first, everyDays: null, timesPerUnit: 1 };
    expect(chartOfUses([once])).toMatchObject({ everyDays: 7, lastDay: 0, columns: [{ fromDay: 0 }] });
  });
});

describe('a block pasted from a spreadsheet', () => {
  it('fills from its cell on, with weeks and lines as needed', () => {
    const pasted = pasteIntoChart(chart, 2, 2, '3 mL/L\t4 mL/L\r\n5 mL/L\t\r\n') as FeedingChart;
    expect(pasted.columns.map((c) => [c.stage, c.fromDay])).toEqual([
      ['week 1', 0],
      ['week 2', 7],
      ['week 3', 14],
      ['week 4', 21],
    ]);
    expect(pasted.rows.map((r) => [r.productId, ...r.cells])).toEqual([
      ['a', '2 mL/L', '2 mL/L', '2 mL/L', ''],
      ['b', '1 mL/L', '2 mL/L', '–', ''],
      ['bloom', '', '', '3 mL/L', '4 mL/L'],
      ['', '', '', '5 mL/L', ''],
    ]);
    expect(pasted.lastDay).toBe(27);
    expect(chart.rows[2]!.cells[2]).toBe('½ tsp/gal');
  });
  it('what is no chart by its size is refused before anything is made of it', () => {
    expect(pasteIntoChart(chart, 0, 0, '1 mL/L\t'.repeat(200))).toBe('tooLarge');
    expect(pasteIntoChart(chart, 0, 0, '1 mL/L\n'.repeat(200))).toBe('tooLarge');
    expect(pasteIntoChart(chart, 0, 0, 'x'.repeat(1_000_000))).toBe('tooLarge');
  });
  it('one cell alone is typed, not pasted', () => expect(pasteIntoChart(chart, 0, 0, '3 mL/L\n')).toBeNull());
  it('the next column is as long as the last, numbered on where it is numbered', () => {
    expect(columnAfter([])).toEqual(column(0, 'week 1'));
    expect(columnAfter([column(0, 'leaf'), column(10, 'bloom', 80)])).toEqual(column(20, '', 80));
    expect(columnAfter([column(3, 'W9')])).toEqual(column(10, 'W10'));
  });
});
