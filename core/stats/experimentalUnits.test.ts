import { expect, it } from 'vitest';
import { gatherUnits } from './experimentalUnits';

const row = (treatment: string, unit?: string, block?: string) => ({ treatment, unit, block, value: 0 });

it('six plants in one tank are one unit with six samples', () => {
  const tank = Array.from({ length: 6 }, () => row('A', 'tank 1'));
  expect(gatherUnits(tank, [1, 2, 3, 4, 5, 6])).toEqual({
    ok: true,
    value: [{ treatment: 'A', block: '', column: '', values: [1, 2, 3, 4, 5, 6] }],
  });
});
it('rows without a unit are units of their own, also beside one that is called like their number', () => {
  const r = gatherUnits([row('A'), row('B'), row('A', '0'), row('A', '0')], [1, 2, 3, 4]);
  expect(r.ok && r.value.map((u) => u.values)).toEqual([[1], [2], [3, 4]]);
});
it('a unit in two treatments or two blocks is refused, with its name', () => {
  expect(gatherUnits([row('A', 'x'), row('B', 'x')], [1, 2])).toEqual({
    ok: false,
    error: { tag: 'unitInTwoTreatments', unit: 'x', treatments: ['A', 'B'] },
  });
  expect(gatherUnits([row('A', 'x', '1'), row('A', 'x', '2')], [1, 2])).toEqual({
    ok: false,
    error: { tag: 'unitInTwoBlocks', unit: 'x', blocks: ['1', '2'] },
  });
});
