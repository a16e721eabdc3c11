import { expect, it } from 'vitest';
import { plan } from '../testing/trial';
import { conditionItems } from './conditionItems';

it('says once what was the same for all, by name what wasn’t, and nothing of what nobody wrote', () => {
  const base = plan({ treatments: ['Water', 'A', 'B'] });
  const p = {
    ...base,
    treatments: base.treatments.map((t, i) => ({
      ...t,
      medium: i === 2 ? 'clay' : 'coir',
      conditions: { ...t.conditions, seedLot: '2026-7', areaPerUnitCm2: 15_300, mediumFed: i === 2 },
    })),
  };
  expect(conditionItems(p)).toEqual([
    'Seed lot or mother plant: 2026-7, for all.',
    'Area: 1.53 m², for all.',
    'Medium, not the same for all: coir (Water and A); clay, which carries feed (B).',
  ]);
});
