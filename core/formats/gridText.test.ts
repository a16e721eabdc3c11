import { expect, it } from 'vitest';
import type { AreaId } from '../model/ids';
import { describeGridTextError, readGridText } from './gridText';

const areas = [
  { id: 'a' as AreaId, name: 'Level 1', rows: 2, columns: 3 },
  { id: 'b' as AreaId, name: 'Level 2', rows: 1, columns: 2 },
];
const values = (text: string) => {
  const read = readGridText(text, areas);
  return read.ok
    ? read.value.map((r) => `${r.position.areaId}${r.position.row}${r.position.column}:${r.value}`)
    : [];
};

it('reads lines as rows, place after place, whatever stands between the figures', () => {
  const all = ['a00:1', 'a01:2.5', 'a02:3', 'a10:4', 'a11:5', 'a12:6', 'b00:7', 'b01:8'];
  expect(values('1 2.5 3\n4 5 6\n\n7 8')).toEqual(all);
  expect(values('1;2,5;3\n4;5;6\n7;8\n')).toEqual(all);
  expect(values('1\t2.5\t3\n4\t5\t6\n7\t8')).toEqual(all);
});
it('leaves out what wasn’t read', () => {
  expect(values('1 - 3')).toEqual(['a00:1', 'a02:3']);
  expect(values('1\t\t3')).toEqual(['a00:1', 'a02:3']);
});
it.each([
  ['', /no figures/],
  ['1 2', /Line 1: 2 figures, but Level 1 has 3 columns/],
  ['1 2 3\n4 five 6', /Line 2: “five” isn’t a number/],
  ['1 2 3\n4 5 6\n7 8\n9 9', /more lines than the 3 rows/],
])('refuses %j', (text, said) => {
  const read = readGridText(text, areas);
  expect(!read.ok && describeGridTextError(read.error)).toMatch(said);
});
