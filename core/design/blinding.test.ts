import { describe, expect, it } from 'vitest';
import { plan, product, use } from '../testing/trial';
import { Plan } from '../model/plan';
import { dealCodes, keyFits, maskedPlan } from './blinding';
import { letterOf } from '../plan/letters';

const p = plan({ treatments: ['Water', 'A', 'B', 'C'] });
const ids = p.treatments.map((t) => t.id);

describe('the key of the codes', () => {
  it('deals every treatment one code, by chance that the seed fixes', () => {
    expect([...dealCodes(ids, 4).order].sort()).toEqual([...ids].sort());
    expect(dealCodes(ids, 4)).toEqual(dealCodes(ids, 4));
    expect(
      new Set(Array.from({ length: 60 }, (_, s) => dealCodes(ids, s).order.join())).size,
    ).toBeGreaterThan(12);
  });
  it('fits only the treatments it was dealt to', () => {
    const key = dealCodes(ids, 1);
    expect(keyFits(key, p)).toBe(true);
    expect(keyFits(key, { treatments: p.treatments.slice(1) })).toBe(false);
    expect(keyFits({ order: ids.slice(1) }, p)).toBe(false);
  });
});

describe('the plan under codes', () => {
  const named: Plan = {
    ...p,
    products: [product({ name: 'Prova' })],
    treatments: p.treatments.map((t, i) => ({
      ...t,
      products: i > 0 ? [use()] : [],
      notes: 'dear one',
      water: i === 0 ? 'plain' : 'with feed',
    })),
  };
  const masked = maskedPlan(named, { order: [ids[2]!, ids[0]!, ids[3]!, ids[1]!] });
  it('still stands, and keeps the ids that values are logged against', () => {
    expect(Plan.safeParse(masked).error).toBeUndefined();
    expect(masked.treatments.map((t) => t.id)).toEqual([ids[2], ids[0], ids[3], ids[1]]);
    expect(masked.units).toEqual(named.units);
  });
  it('says nothing that would give a treatment away', () => {
    const said = JSON.stringify(masked.treatments.map(({ id: _, ...t }) => t));
    expect(said).not.toMatch(/Water|Prova|feed|dear|plain|untreated/);
    expect(masked.treatments.map((t) => t.name)).toEqual(['Code A', 'Code B', 'Code C', 'Code D']);
    expect(new Set(masked.treatments.map((t) => t.role))).toEqual(new Set(['test']));
    expect(masked.products).toEqual([]);
  });
  it('gives a treatment added later the next code', () => {
    const short = maskedPlan(named, { order: ids.slice(0, 3) });
    expect(short.treatments.map((t) => t.id)).toEqual(ids);
  });
});

it('letters go on after Z', () => {
  expect([0, 25, 26, 27, 52].map(letterOf)).toEqual(['A', 'Z', 'AA', 'AB', 'BA']);
});
