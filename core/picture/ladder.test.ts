import { expect, it } from 'vitest';
import { ladder } from './ladder';
import { usualRoom } from './marks';

const rows = [
  { name: 'Water', percent: 0, low: 0, high: 0, reference: true },
  { name: 'A', percent: 20, low: 8, high: 34, reference: false },
  { name: 'B', percent: -5, low: -20, high: 12, reference: false },
  { name: 'C', percent: -18, low: -30, high: -4, reference: false },
];

it('all stand on one scale, the most first, coloured only where the whole interval lies on one side', () => {
  const { marks } = ladder(rows, 'Water', usualRoom);
  const names = marks.flatMap((m) => (m.mark === 'text' && m.bold ? [m.text] : []));
  expect(names).toEqual(['A', 'Water', 'B', 'C']);
  const squares = marks.flatMap((m) => (m.mark === 'rect' ? [m] : []));
  expect(squares.map((m) => m.fill)).toEqual(['verdigris', 'soft', 'ink', 'porphyry']);
  // 20, 0, −5 and −18 on one scale: distances go as the figures do.
  const x = squares.map((m) => m.at[0]);
  expect((x[0]! - x[1]!) / (x[1]! - x[2]!)).toBeCloseTo(4, 6);
  expect((x[1]! - x[3]!) / (x[1]! - x[2]!)).toBeCloseTo(18 / 5, 6);
});

it('on a phone nothing leaves the page, and a name stands clear of the line below it', () => {
  const { marks, width } = ladder(rows, 'Water', { width: 300, narrow: true });
  for (const m of marks) if (m.mark === 'rect') expect(m.at[0] >= 0 && m.at[0] + m.width <= width).toBe(true);
  const texts = marks.flatMap((m) => (m.mark === 'text' && m.bold ? [m.at[1]] : []));
  const squares = marks.flatMap((m) => (m.mark === 'rect' ? [m.at[1]] : []));
  texts.forEach((y, i) => expect(squares[i]! - y).toBeGreaterThanOrEqual(8));
  for (const m of marks)
    if (m.mark === 'line' && m.dashed)
      for (const y of texts) expect(m.to[1] <= y - 10 || m.from[1] >= y + 3).toBe(true);
});
