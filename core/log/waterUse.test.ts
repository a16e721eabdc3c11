import { expect, it } from 'vitest';
import { entry, unitId } from '../testing/trial';
import { resolveLog } from './resolve';
import { fillingsOf, waterLossPerDay } from './waterUse';

const unit = unitId('A', 0);
const day = 86_400;
const filled = (onDay: number, volumeLPerUnit: number, purpose?: string) =>
  entry(
    { kind: 'feed', unitIds: [unit], batch: '', volumeLPerUnit, ...(purpose && { purpose }) },
    undefined,
    onDay * day,
  );

it('what is topped up to the mark is what was lost', () => {
  const log = resolveLog([filled(5, 1.5, 'topUp'), filled(0, 8, 'change'), filled(2, 1, 'topUp')]);
  const fillings = fillingsOf(log, unit);
  expect(fillings.map((f) => [f.purpose, f.volumeL])).toEqual([
    ['change', 8],
    ['topUp', 1],
    ['topUp', 1.5],
  ]);
  expect(waterLossPerDay(fillings)).toBeCloseTo(0.5, 12);
  expect(fillingsOf(log, unitId('A', 1))).toEqual([]);
});

it('nothing is said before a filling and a top-up', () => {
  expect(waterLossPerDay(fillingsOf(resolveLog([filled(0, 8)]), unit))).toBeNull();
  expect(waterLossPerDay(fillingsOf(resolveLog([filled(1, 1, 'topUp')]), unit))).toBeNull();
});
