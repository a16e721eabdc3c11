import fc from 'fast-check';
import { expect, it } from 'vitest';
import { inOrder } from './order';

const sort = (items: { at: string; id: string }[]) =>
  inOrder(
    items,
    (i) => i.at,
    (i) => i.at,
    (i) => i.id,
  ).map((i) => i.id);

it('orders by moment whatever the offset it is written with', () => {
  const items = [
    { at: '2026-03-11T10:00:00+02:00', id: 'b' },
    { at: '2026-03-11T09:00:00.000Z', id: 'c' },
    { at: '2026-03-11T08:00:00.000Z', id: 'bb' },
    { at: '2026-03-10T23:00:00-08:00', id: 'a' },
  ];
  expect(sort(items)).toEqual(['a', 'b', 'bb', 'c']);
});

it('gives the same order for any arrival', () => {
  const item = fc.record({
    at: fc
      .tuple(fc.integer({ min: 0, max: 5 }), fc.constantFrom('.000Z', 'Z', '+00:00'))
      .map(([s, end]) => `2026-03-11T09:00:0${s}${end}`),
    id: fc.string({ minLength: 1, maxLength: 2 }),
  });
  fc.assert(
    fc.property(fc.uniqueArray(item, { selector: (i) => i.id }), (items) => {
      expect(sort([...items].reverse())).toEqual(sort(items));
    }),
  );
});
