import { expect, it } from 'vitest';
import { unitNamedIn } from './matchUnit';

const units = ['PAR-1', 'PAR-10', 'PAR-07'].map((code) => ({ code }));
it.each([
  ['PAR-07', 'PAR-07'],
  ['img_2041 par-07.jpg', 'PAR-07'],
  ['PAR_07_day17.JPG', 'PAR-07'],
  ['par-10.png', 'PAR-10'],
  ['par-1.png', 'PAR-1'],
  ['XPAR-1.png', undefined],
  ['par-100.png', undefined],
  ['par-1 and par-10', undefined],
  ['IMG_2041.jpg', undefined],
])('%s names %s', (text, code) => {
  expect(unitNamedIn(units, text)?.code).toBe(code);
});
