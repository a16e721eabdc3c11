import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { UnitId } from '../model/ids';
import {
  MOST_PASTED,
  MOST_PASTED_TEXT,
  type PastedColumn,
  pastedRows,
  readCountOf,
  readFigure,
  readYesNo,
} from './pasted';

const units = ['PAR-01', 'PAR-02', 'PAR-03'].map((code) => ({ id: code as UnitId, code }));
const taken = (text: string, fault: (v: number) => string | null = () => null) =>
  pastedRows(text, units, [{ names: ['height'], read: readFigure, fault }]).map((r) => [
    r.unit?.code ?? null,
    r.cells[0]?.value ?? null,
    r.why ?? r.cells[0]?.why ?? null,
  ]);

describe('a pasted column', () => {
  it('of values alone goes in the order of the walk; a heading is passed over', () => {
    expect(taken('height, cm\n11.2\n10,8\n\n')).toEqual([
      ['PAR-01', 11.2, null],
      ['PAR-02', 10.8, null],
    ]);
  });
  it('a gap stays open, and what follows stays at its place', () => {
    expect(taken('11.2\n\n12')).toEqual([
      ['PAR-01', 11.2, null],
      ['PAR-02', null, 'no value: stays open'],
      ['PAR-03', 12, null],
    ]);
  });
  it('with codes goes to its units, whatever the order and the separator', () => {
    expect(taken('unit\tvalue\npar-03\t9.5\nPAR-01;11\n8.25, PAR-02')).toEqual([
      ['PAR-03', 9.5, null],
      ['PAR-01', 11, null],
      ['PAR-02', 8.25, null],
    ]);
  });
  it('with a space alone between code and value, fractions too; two readings aren’t guessed', () => {
    expect(taken('PAR-01 5.5\n14 3/4 PAR-02\nPAR-03\t1,250')).toEqual([
      ['PAR-01', 5.5, null],
      ['PAR-02', 14.75, null],
      ['PAR-03', null, '“1,250” can be read as 1.250 or as 1250: write the one you mean.'],
    ]);
  });
  it('says of each line why it isn’t taken', () => {
    expect(taken('PAR-01 ; 5\nPAR-01 ; 6\nPAR-09 ; 7\nPAR-02 ; tall\nPAR-03 ; 1 ; 2')).toEqual([
      ['PAR-01', 5, null],
      ['PAR-01', null, 'PAR-01 has a line already'],
      [null, null, 'names no unit that is walked'],
      ['PAR-02', null, 'not a number'],
      ['PAR-03', null, 'more than one figure'],
    ]);
    expect(taken('1\n2\n3\n4').at(-1)).toEqual([null, null, 'more lines than units']);
    expect(taken('-1', (v) => (v < 0 ? 'Not below 0.' : null))).toEqual([['PAR-01', null, 'Not below 0.']]);
  });
  it('of a text that is no column only so much is looked at', () => {
    expect(taken('5\n'.repeat(MOST_PASTED + 50))).toHaveLength(MOST_PASTED);
    expect(taken('x'.repeat(MOST_PASTED_TEXT * 3)).length).toBeLessThanOrEqual(1);
  });
});

const column = (...names: [string, ...string[]]): PastedColumn => ({ names, read: readFigure });
const three = [column('sample 1', '1'), column('sample 2', '2'), column('sample 3', '3')];
const table = (text: string, columns: readonly PastedColumn[] = three) =>
  pastedRows(text, units, columns).map((r) =>
    r.why === null
      ? `${r.unit!.code} ${r.cells.map((c) => `${c.column}:${c.value ?? c.why}`).join(' ')}`
      : `${r.unit?.code ?? '?'}: ${r.why}`,
  );

describe('a pasted table', () => {
  it.each(['\t', '; ', ', ', ' '])('of several figures a unit, apart by “%s”', (by) => {
    const lines = [
      ['PAR-02', '5.5', '6', '7.25'],
      ['PAR-01', '1', '2', '3'],
    ];
    expect(table(lines.map((l) => l.join(by)).join('\n'))).toEqual([
      'PAR-02 0:5.5 1:6 2:7.25',
      'PAR-01 0:1 1:2 2:3',
    ]);
  });
  it('without codes goes along the walk, line by line or figure by figure', () => {
    expect(table('1\t2\t3\n4\t5\t6')).toEqual(['PAR-01 0:1 1:2 2:3', 'PAR-02 0:4 1:5 2:6']);
    expect(table('1\n\n3\n4')).toEqual([
      'PAR-01 0:1',
      'PAR-01 1:no value: stays open',
      'PAR-01 2:3',
      'PAR-02 0:4',
    ]);
  });
  it('a figure a line with its code is the unit’s next one', () => {
    expect(table('PAR-01 5\nPAR-02 6\nPAR-01 7\nPAR-01 8\nPAR-01 9')).toEqual([
      'PAR-01 0:5',
      'PAR-02 0:6',
      'PAR-01 1:7',
      'PAR-01 2:8',
      'PAR-01: more than 3 figures',
    ]);
  });
  it('a heading says what stands where; what it doesn’t name is passed over', () => {
    expect(table('tray\tnotes\t3\t1\nPAR-02\ttorn\t9\t7')).toEqual(['PAR-02 2:9 0:7']);
    const crops = [column('cress'), column('dill')];
    expect(table('unit;Dill;Cress\nPAR-01;2;1\nPAR-03;;4', crops)).toEqual([
      'PAR-01 1:2 0:1',
      'PAR-03 1:no value: stays open 0:4',
    ]);
  });
  it('says of each figure why it isn’t taken, and of a line that has too many', () => {
    expect(table('PAR-01\t1\ttall\t3\nPAR-02\t1\t2\t3\t4\nPAR-01\t5\t6\t7')).toEqual([
      'PAR-01 0:1 1:not a number 2:3',
      'PAR-02: more than 3 figures',
      'PAR-01 0:PAR-01 has sample 1 already 1:PAR-01 has sample 2 already 2:PAR-01 has sample 3 already',
    ]);
  });
  it('whatever the order of lines and columns, a figure goes to its unit and its column', () => {
    const cell = fc.option(fc.integer({ min: 0, max: 9999 }), { nil: null });
    const rows = fc.array(fc.tuple(cell, cell, cell), { minLength: 3, maxLength: 3 });
    const orders = [
      [0, 1, 2],
      [2, 0, 1],
      [1, 2, 0],
    ];
    fc.assert(
      fc.property(rows, fc.constantFrom(...orders), fc.constantFrom('\t', ';'), (values, order, by) => {
        const line = (i: number) => [units[i]!.code, ...order.map((c) => values[i]![c] ?? '')].join(by);
        const text = [['unit', ...order.map((c) => `sample ${c + 1}`)].join(by), ...order.map(line)].join(
          '\n',
        );
        const read = pastedRows(text, units, three);
        expect(read).toHaveLength(3);
        for (const { unit, cells } of read)
          for (const { column, value } of cells) expect(value).toBe(values[units.indexOf(unit!)]![column]);
        expect(read.flatMap((r) => r.cells)).toHaveLength(9);
      }),
    );
  });
});

describe('what a figure may look like', () => {
  it.each([
    ['4/5', 4],
    ['4 of 5', 4],
    ['4', 4],
    ['4/6', null],
    ['some', null],
  ])('of five counted “%s” is %s', (text, k) => {
    const read = readCountOf(5)(text);
    expect(read.ok ? read.value : null).toBe(k);
  });
  it.each([
    ['yes', 1],
    ['X', 1],
    ['n', 0],
    ['0', 0],
    ['perhaps', null],
  ])('“%s” is yes, no or neither', (text, value) => {
    const read = readYesNo(text);
    expect(read.ok ? read.value : null).toBe(value);
  });
});
