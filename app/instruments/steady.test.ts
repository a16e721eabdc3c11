import { expect, it } from 'vitest';
import { beginSteady, nextSteady } from './steady';

const taken = (readings: [grams: number, atRest: boolean][], floorG = 0) => {
  let state = beginSteady;
  const out: number[] = [];
  for (const [grams, atRest] of readings) {
    const next = nextSteady(state, { grams, atRest }, floorG);
    state = next.state;
    if (next.take !== null) out.push(next.take);
  }
  return out;
};

it('takes each load once, at rest, and only after the last was taken off', () => {
  expect(
    taken([
      [0, true],
      [30, false],
      [58, false],
      [60, true],
      [60, true],
      [60.1, true],
    ]),
  ).toEqual([60]);
  expect(
    taken([
      [60, true],
      [0.2, true],
      [45, false],
      [45, true],
    ]),
  ).toEqual([60, 45]);
  // Something more laid on top isn't another load.
  expect(
    taken([
      [60, true],
      [65, true],
    ]),
  ).toEqual([60]);
});
it('a bowl that stays on the pan is no load', () => {
  expect(
    taken(
      [
        [112.4, true],
        [172, true],
        [112.5, true],
        [150, true],
      ],
      112.4,
    ),
  ).toEqual([172, 150]);
});
