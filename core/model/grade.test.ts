import { expect, it } from 'vitest';
import { usualGrades } from './grade';

it.each([
  ['Cherry tomato', true],
  ['sweet pepper', true],
  ['Courgette', true],
  ['strawberry', false],
  ['', false],
])('blossom-end rot is asked of “%s”: %s', (crop, asked) =>
  expect(usualGrades(crop).some((g) => /blossom end/.test(g.name))).toBe(asked),
);
