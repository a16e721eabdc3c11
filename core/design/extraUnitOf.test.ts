import { expect, it } from 'vitest';
import { extend, deriveState } from '../log/state';
import type { AreaId, UnitId } from '../model/ids';
import { planSha256 } from '../plan/seal';
import { entry, plan } from '../testing/trial';
import { extraUnitOf } from './extraUnitOf';
import { freePosition } from './freePosition';

const p = plan({ replicates: 2 });
const seal = entry({ kind: 'seal', planSha256: planSha256(p) }, 'seal');

it('an extra unit stands beside a full plan; taking the first back leaves the second where it is', () => {
  const full = deriveState({ ...p, areas: p.areas.map((a) => ({ ...a, rows: 1, columns: 2 })) }, [seal]);
  expect(freePosition(full)).toBeNull();
  const add = (state: typeof full, n: number) =>
    extraUnitOf(
      state,
      { treatmentId: p.treatments[0]!.id, reason: '' },
      { unit: `extra ${n}` as UnitId, area: `beside ${n}` as AreaId },
    );
  const one = entry(add(full, 1), 'one');
  const withOne = extend(full, [one]);
  expect(withOne.plan.areas.map((a) => a.name)).toEqual(['Shelf', 'Beside the plan']);
  const two = entry(add(withOne, 2), 'two');
  const withTwo = extend(withOne, [two]);
  expect(withTwo.plan.units.slice(-2).map((u) => [u.code, u.position])).toEqual([
    ['TST-05', { areaId: 'beside 1', row: 0, column: 0 }],
    ['TST-06', { areaId: 'beside 1', row: 0, column: 1 }],
  ]);
  const back = { kind: 'correction' as const, supersedes: 'one' as never, replacement: null, reason: '' };
  const left = extend(withTwo, [entry(back, 'back')]);
  expect(left.plan.areas).toHaveLength(2);
  expect(left.positions.get('extra 2' as UnitId)).toEqual({ areaId: 'beside 1', row: 0, column: 1 });
});
