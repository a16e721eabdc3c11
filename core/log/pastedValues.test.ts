import { describe, expect, it } from 'vitest';
import type { UnitId } from '../model/ids';
import { MOST_PASTED, MOST_PASTED_TEXT, pastedRows } from './pastedValues';

const units = ['PAR-01', 'PAR-02', 'PAR-03'].map((code) => ({ id: code as UnitId, code }));
const taken = (text: string, fault: (v: number) => string | null = () => null) =>
  pastedRows(text, units, fault).map((r) => [r.unit?.code ?? null, r.value, r.why]);

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
      ['PAR-01', 6, 'PAR-01 has a line already'],
      [null, 7, 'names no unit that is walked'],
      ['PAR-02', null, 'not a number'],
      ['PAR-03', null, 'more than one figure'],
    ]);
    expect(taken('1\n2\n3\n4').at(-1)).toEqual([null, 4, 'more lines than units']);
    expect(taken('-1', (v) => (v < 0 ? 'Not below 0.' : null))).toEqual([['PAR-01', -1, 'Not below 0.']]);
  });
  it('of a text that is no column only so much is looked at', () => {
    expect(taken('5\n'.repeat(MOST_PASTED + 50))).toHaveLength(MOST_PASTED);
    expect(taken('x'.repeat(MOST_PASTED_TEXT * 3)).length).toBeLessThanOrEqual(1);
  });
});
