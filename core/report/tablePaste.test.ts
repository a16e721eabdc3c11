import { describe, expect, it } from 'vitest';
import { type TableBlock, column, numbers, text } from './block';
import { tableHtml, tableText } from './tablePaste';

const table: TableBlock = {
  type: 'table',
  columns: [column('contender'), numbers('change, %'), numbers('95 %')],
  rows: [
    {
      cells: [
        { type: 'treatment', name: '=HYPERLINK("x")', order: 0 },
        { type: 'figure', value: 36, decimals: 0, signed: true },
        { type: 'interval', low: 28, high: 45, decimals: 0 },
      ],
    },
    { cells: [text('<b>A</b>\n& co'), { type: 'figure', value: null, decimals: 0 }, text('')] },
  ],
};

describe('a table to paste', () => {
  it('has tabs between cells, keeps figures, and no cell runs as a formula', () => {
    expect(tableText(table).split('\n')).toEqual([
      'contender\tchange, %\t95 %',
      '\'=HYPERLINK("x")\t+36\t\'+28 to +45',
      '<b>A</b> & co\t–\t–',
    ]);
  });
  it('is inert as HTML', () => {
    const html = tableHtml(table);
    expect(html).toContain('<td>&lt;b&gt;A&lt;/b&gt;');
    expect(html).toContain('<td align="right">+36</td>');
    expect(html).not.toContain('<b>');
  });
});
