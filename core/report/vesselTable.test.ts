import { expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { entry, plan, unitId } from '../testing/trial';
import { vesselBlocks } from './vesselTable';

const reading = (quantity: 'ec' | 'ph', value: number, second: number) =>
  entry(
    {
      kind: 'reading',
      quantity,
      value,
      subject: 'x',
      unitId: unitId('A', 0),
      treatmentId: 'A',
      instrument: 'typed',
    },
    undefined,
    second,
  );

it('prints start, end and change of every vessel that was read, and of no other', () => {
  const p = plan({ replicates: 2 });
  expect(vesselBlocks(deriveState(p, []))).toEqual([]);
  const state = deriveState(p, [
    reading('ec', 1.62, 0),
    reading('ec', 2.1, 86_400 * 7),
    reading('ph', 6.1, 0),
  ]);
  const table = vesselBlocks(state)[1]!;
  if (table.type !== 'table') throw new Error('no table');
  expect(table.rows).toHaveLength(1);
  const values = table.rows[0]!.cells.map((c) =>
    c.type === 'figure' ? c.value : c.type === 'text' ? c.text : '?',
  );
  expect(values[0]).toContain('TST-02');
  expect(values.slice(1)).toEqual([1.62, 2.1, expect.closeTo(0.48, 9), 6.1, '–', '–']);
});
