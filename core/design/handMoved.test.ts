import { expect, it } from 'vitest';
import { plan } from '../testing/trial';
import { handMoved } from './handMoved';
import { layOut } from './layOut';

it('tells the units that were dragged after the draw, and none before', () => {
  const base = plan({ treatments: ['A', 'B', 'C'], replicates: 3 });
  const design = { kind: 'crd' as const, replicates: 3, seed: 9, settings: [], balance: null };
  const units = layOut(base, design);
  if (!units.ok) throw new Error(units.error.tag);
  const drawn = { ...base, design, units: units.value };
  expect(handMoved(drawn)).toEqual([]);
  const [first] = drawn.units;
  const other = drawn.units.find((u) => u.treatmentId !== first!.treatmentId)!;
  const swapped = {
    ...drawn,
    units: drawn.units.map((u) =>
      u.id === first!.id
        ? { ...u, position: other.position }
        : u.id === other.id
          ? { ...u, position: first!.position }
          : u,
    ),
  };
  expect(
    handMoved(swapped)
      .map((u) => u.id)
      .sort(),
  ).toEqual([first!.id, other.id].sort());
  expect(handMoved({ ...swapped, design: { ...design, kind: 'hand' } })).toEqual([]);
});
