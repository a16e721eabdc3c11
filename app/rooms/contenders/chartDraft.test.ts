import { describe, expect, it } from 'vitest';
import { pasteIntoChart } from '~core/mixing/chartPaste';
import type { FeedingChart } from '~core/mixing/feedingChart';
import { usMeasures } from '~core/quantity/units';
import { product } from '~core/testing/trial';
import { type ChartDraft, chartOf, draftOfUses, usesOfDraft, withChart } from './chartDraft';
import { newUse } from './newContender';

const [a, dry] = [
  product({ id: 'a' as never, name: 'Prova A' }),
  product({ id: 'dry' as never, name: 'Prova secca', form: 'powder' }),
];
const shelf = [a!, dry!];
const draft: ChartDraft = {
  columns: [
    { stage: 'week 1', fromDay: '0', strength: '50' },
    { stage: 'week 2', fromDay: '7', strength: '100' },
  ],
  rows: [
    { productId: 'a', cells: ['2 mL/L', '2 mL/L'] },
    { productId: 'dry', cells: ['', '½ g/L'] },
  ],
  everyDays: '3',
  lastDay: '13',
  solution: '0,6',
};
const uses = (over: Partial<ChartDraft> = {}, before: Parameters<typeof usesOfDraft>[2] = []) =>
  usesOfDraft({ ...draft, ...over }, shelf, before, usMeasures, {
    noun: 'tray',
    areaCm2: null,
    plants: null,
    mediumL: null,
  });
const said = (over: Partial<ChartDraft>) => {
  const r = uses(over);
  return r.ok ? null : r.error;
};

describe('a chart as typed', () => {
  it('becomes doses of the contender; a pack chosen before stays', () => {
    const r = uses({}, [{ ...newUse(a!), packId: 'big' }]);
    // fed on days 0 3 6 and 9 12: the powder from the second week’s first feed on
    expect(r.ok && r.value).toMatchObject([
      {
        productId: 'a',
        packId: 'big',
        fromDay: '0',
        everyDays: '3',
        timesPerUnit: '3',
        strengthPercent: '50',
      },
      { productId: 'a', fromDay: '9', timesPerUnit: '2', strengthPercent: '100', solutionLPerUnit: '0,6' },
      { productId: 'dry', packId: '', amount: '½ g/L', stage: 'week 2', fromDay: '9', timesPerUnit: '2' },
    ]);
  });
  it('opens again as it was typed, and comes to the same doses', () => {
    const made = uses();
    const again = draftOfUses(made.ok ? made.value : [], shelf);
    expect(again.fits).toBe(true);
    expect(again.draft).toMatchObject({ everyDays: '3', solution: '0,6', rows: draft.rows });
    expect(
      usesOfDraft(again.draft, shelf, [], usMeasures, {
        noun: 'tray',
        areaCm2: null,
        plants: null,
        mediumL: null,
      }),
    ).toEqual(made);
  });
  it.each([
    [{ everyDays: 'often' }, /Every how many days/, { field: 'everyDays' }],
    [{ lastDay: '' }, /last day/, { field: 'lastDay' }],
    [
      { columns: [{ ...draft.columns[0]!, strength: '' }, draft.columns[1]!] },
      /strength of column 1/,
      { field: 'strength', column: 0 },
    ],
    [
      { rows: [draft.rows[1]!, { productId: 'a', cells: ['2 mL/L', '2 smidgen/L'] }] },
      /Prova A, “2 smidgen\/L”: “smidgen” isn’t a measure/,
      { field: 'rate', row: 1, column: 1 },
    ],
    [{ solution: '' }, /How much solution/, { field: 'solution' }],
    [
      { rows: [{ productId: 'gone', cells: ['1 g/L'] }] },
      /isn’t in the library/,
      { field: 'product', row: 0 },
    ],
  ])('%#: says what is wrong, and where', (over, text, at) => {
    expect(said(over)!.message).toMatch(text);
    expect(said(over)!.at).toEqual(at);
  });

  it('doses that are no chart open an empty one, with their products', () => {
    const loose = { ...newUse(a!), amount: '2', solutionLPerUnit: '1' };
    const { draft: empty, fits } = draftOfUses([loose], shelf);
    expect(fits).toBe(false);
    expect(empty.rows).toEqual([{ productId: 'a', cells: [] }]);
    expect(empty).toMatchObject({ solution: '1', columns: { length: 4 } });
    expect(draftOfUses([], shelf)).toMatchObject({ fits: true, draft: { rows: [{ productId: '' }] } });
  });
  it('a bare figure keeps its unit', () => {
    const grams = {
      ...newUse(a!),
      amount: '2',
      unit: 'g' as const,
      solutionLPerUnit: '1',
      fromDay: '0',
      everyDays: '7',
    };
    const { draft: opened } = draftOfUses([grams], shelf);
    const made = usesOfDraft(opened, shelf, [], usMeasures, {
      noun: 'tray',
      areaCm2: null,
      plants: null,
      mediumL: null,
    });
    expect(made.ok && made.value[0]!.amount).toBe('2 g/L');
    const plain = draftOfUses([{ ...grams, unit: 'mL' as const }], shelf).draft;
    expect(plain.rows[0]!.cells).toEqual(['2']);
  });
  it('a pasted block leaves what is half typed as it is', () => {
    const half = {
      ...draft,
      everyDays: '',
      columns: [draft.columns[0]!, { ...draft.columns[1]!, fromDay: '' }],
    };
    const pasted = withChart(half, pasteIntoChart(chartOf(half), 0, 1, '3 mL/L\t4 mL/L') as FeedingChart);
    expect(pasted.everyDays).toBe('');
    expect(pasted.columns.map((c) => c.fromDay)).toEqual(['0', '', '']);
    expect(pasted.rows[0]!.cells).toEqual(['2 mL/L', '3 mL/L', '4 mL/L']);
    expect(pasted.lastDay).toBe('13');
  });
});
