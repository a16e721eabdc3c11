import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readTable, writeCsv } from './csv';
import { fileNumber } from '../quantity/number';

it.each([
  ['12.5', 12.5],
  ['12,5', 12.5],
  [' -3 ', -3],
  ['−3,25', -3.25],
  ['+4', 4],
  ['1e3', 1000],
  ['.5', 0.5],
  ['1,234,567', null],
  ['1.234,5', null],
  ['12 g', null],
  ['', null],
  ['-', null],
  ['Infinity', null],
])('“%s” is %s', (text, value) => expect(fileNumber(text)).toBe(value));

it('reads back any number as printed', () => {
  fc.assert(
    fc.property(fc.double({ noNaN: true, noDefaultInfinity: true }), (x) => {
      expect(fileNumber(String(x))).toBe(x + 0 === 0 ? Number(String(x)) : x);
    }),
  );
});

describe('tables', () => {
  it('finds comma, semicolon and tab, and drops a byte-order mark', () => {
    for (const d of [',', ';', '\t']) {
      const t = readTable(`\uFEFFa${d}b\n1${d}x\n2${d}y\n`);
      expect(t).toMatchObject({
        ok: true,
        value: {
          columns: ['a', 'b'],
          rows: [
            ['1', 'x'],
            ['2', 'y'],
          ],
        },
      });
    }
  });
  it.each([
    ['', 'empty'],
    ['a,b\n', 'empty'],
    ['a,a\n1,2\n', 'duplicateColumn'],
    ['a,b\n"1,2\n', 'malformed'],
  ])('%j is %s', (text, tag) => expect(readTable(text)).toMatchObject({ ok: false, error: { tag } }));
  it('what is written is read back', () => {
    const cell = fc
      .string()
      .map((s) => s.replace(/[\r\0]/g, '').trim())
      .filter((s) => !/^[=+\-@\t]/.test(s));
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constant('row'), cell, cell), { minLength: 1 }), (rows) => {
        const read = readTable(writeCsv(['key', 'a', 'b'], rows));
        expect(read.ok && read.value.rows).toEqual(rows);
      }),
    );
  });
});
