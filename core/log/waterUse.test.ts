import { expect, it } from 'vitest';
import { entry, plan, unitId } from '../testing/trial';
import type { Entry } from './entry';
import { deriveState } from './state';
import { fillingsByUnit, waterLossPerDay } from './waterUse';

const unit = unitId('A', 0);
const day = 86_400;
const filled = (onDay: number, volumeLPerUnit: number, purpose?: string) =>
  entry(
    { kind: 'feed', unitIds: [unit], batch: '', volumeLPerUnit, ...(purpose && { purpose }) },
    undefined,
    onDay * day,
  );
const fillingsOf = (log: Entry[], id = unit) => fillingsByUnit(deriveState(plan(), log)).get(id) ?? [];

it('what is topped up to the mark is what was lost', () => {
  const log = [filled(5, 1.5, 'topUp'), filled(0, 8, 'change'), filled(2, 1, 'topUp')];
  expect(fillingsOf(log).map((f) => [f.purpose, f.volumeL])).toEqual([
    ['change', 8],
    ['topUp', 1],
    ['topUp', 1.5],
  ]);
  expect(waterLossPerDay(fillingsOf(log))).toBeCloseTo(0.5, 12);
  expect(fillingsOf(log, unitId('A', 1))).toEqual([]);
});

it('nothing is said before a filling and a top-up', () => {
  expect(waterLossPerDay(fillingsOf([filled(0, 8)]))).toBeNull();
  expect(waterLossPerDay(fillingsOf([filled(1, 1, 'topUp')]))).toBeNull();
});
