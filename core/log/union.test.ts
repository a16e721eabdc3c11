import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyLog } from '../testing/logs';
import { entry, height, unitId } from '../testing/trial';
import { unionOfLogs } from './union';

const unit = unitId('Water', 0);

describe('the union of two copies of a log', () => {
  const parts = anyLog.chain((log) => fc.tuple(fc.subarray(log), fc.subarray(log), fc.subarray(log)));
  const of = (a: Parameters<typeof unionOfLogs>[0], b: typeof a) => unionOfLogs(a, b).log;
  it('is idempotent, commutative and associative', () => {
    fc.assert(
      fc.property(parts, ([a, b, c]) => {
        expect(of(of(a, a), a)).toEqual(of(a, []));
        expect(of(a, b)).toEqual(of(b, a));
        expect(of(of(a, b), c)).toEqual(of(a, of(b, c)));
      }),
    );
  });
  it('says which lines are new', () => {
    const [x, y] = [entry(height(unit, 1), 'x'), entry(height(unit, 2), 'y')];
    expect(unionOfLogs([x], [x, y])).toMatchObject({ added: [{ id: 'y' }], conflicts: [] });
  });
  it('a line with a known id and another value is a conflict: what is recorded stays, both are kept', () => {
    const own = entry(height(unit, 50), 'same', 1);
    const other = entry(height(unit, 10.5), 'same', 1);
    const united = unionOfLogs([own], [other]);
    expect(united.log).toEqual([own]);
    expect(united.added).toEqual([]);
    expect(united.conflicts).toEqual([{ id: 'same', own, other }]);
  });
  it('the same line with its fields in another order is no conflict', () => {
    const own = entry(height(unit, 50), 'same', 1);
    const turned = Object.fromEntries(Object.entries(own).reverse()) as typeof own;
    expect(unionOfLogs([own], [turned]).conflicts).toEqual([]);
  });
});
