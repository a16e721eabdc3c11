import { expect, it } from 'vitest';
import { inTiles } from './inTiles';
import { type Drawing, type Mark, inkOf } from './marks';

const marks: Mark[] = [
  { mark: 'rect', at: [0, 0], width: 1, height: 1, fill: inkOf(1), stroke: 'line' },
  { mark: 'line', from: [0, 0], to: [1, 1], stroke: inkOf(2) },
  { mark: 'path', d: 'M0 0', stroke: inkOf(0), width: 1 },
  { mark: 'dot', at: [0, 0], radius: 1, fill: null, stroke: inkOf(1) },
  { mark: 'text', at: [0, 0], text: 'B', ink: inkOf(1) },
  { mark: 'tile', at: [0, 0], index: 1 },
  { mark: 'photo', at: [0, 0], width: 1, height: 1, source: '' },
];
const drawing: Drawing = { width: 9, height: 9, marks };

it('every colour and every tile of a contender is the one it wears; other colours stay', () => {
  const worn = inTiles(drawing, [0, 5, 1]).marks;
  expect(worn[0]).toMatchObject({ fill: 'tile-5', stroke: 'line' });
  expect(worn[1]).toMatchObject({ stroke: 'tile-1' });
  expect(worn[2]).toMatchObject({ stroke: 'tile-0' });
  expect(worn[3]).toMatchObject({ fill: null, stroke: 'tile-5' });
  expect(worn[4]).toMatchObject({ ink: 'tile-5' });
  expect(worn[5]).toMatchObject({ index: 5 });
  expect(worn[6]).toEqual(marks[6]);
});

it('outside a trial, and where all wear the tile of their place, a picture stays as it is', () => {
  expect(inTiles(drawing, [])).toBe(drawing);
  expect(inTiles(drawing, [0, 1, 2])).toBe(drawing);
});
