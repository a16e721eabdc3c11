import { expect, it } from 'vitest';
import { plan, product } from '../testing/trial';
import { additivesOn, contendersOf, withCrop } from './beginning';

it('begins with water as the control and a contender for each product, all of one crop', () => {
  const made = contendersOf([product({ name: 'Uno' }), product({ name: 'Due' })], 'Water', {
    crop: 'parsley',
    plantsPerUnit: 4,
  });
  expect(made.map((t) => [t.name, t.role, t.conditions.crop])).toEqual([
    ['Water', 'untreated', 'parsley'],
    ['Uno', 'test', 'parsley'],
    ['Due', 'test', 'parsley'],
  ]);
  expect(made.every((t) => t.conditions.plantsPerUnit === 4)).toBe(true);
  expect(contendersOf([product()], null, { crop: '', plantsPerUnit: null }).map((t) => t.role)).toEqual([
    'test',
  ]);
});

it('the crop flows to the contenders that grow it, not to one that grows another', () => {
  const base = { ...plan({ treatments: ['A', 'B', 'C'] }), crop: 'cress' };
  const crops = ['cress', '', 'rocket'];
  const p = {
    ...base,
    treatments: base.treatments.map((t, i) => ({ ...t, conditions: { ...t.conditions, crop: crops[i]! } })),
  };
  expect(withCrop(p, 'parsley').treatments.map((t) => t.conditions.crop)).toEqual([
    'parsley',
    'parsley',
    'rocket',
  ]);
  expect(withCrop(p, 'cress')).toBe(p);
});

it('additives on a base are told apart, however long their names are', () => {
  const base = product({ name: 'B'.repeat(140) });
  const made = additivesOn(base, [product({ name: 'Uno' }), product({ name: 'Due' })], {
    crop: 'chilli',
    plantsPerUnit: null,
  });
  expect(made.map((t) => t.role)).toEqual(['base', 'test', 'test']);
  expect(new Set(made.map((t) => t.name)).size).toBe(3);
  expect(made.every((t) => t.name.length <= 80 && t.conditions.crop === 'chilli')).toBe(true);
});
