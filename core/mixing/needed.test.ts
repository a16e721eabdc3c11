import { describe, expect, it } from 'vitest';
import type { ProductId } from '../model/ids';
import { plan, product, use } from '../testing/trial';
import { batchOf } from './batch';
import { dueMixes } from './dueMixes';
import { batchCaution } from './batchCaution';
import { neededFor } from './needed';

const granules = product({ id: 'granum' as ProductId, name: 'Granum', form: 'granules' });
const liquid = product({ id: 'liquor' as ProductId, name: 'Liquor', form: 'liquid' });
const tablet = product({ name: 'Tabella', form: 'tablets' });
const lamp = product({ name: 'Lucerna', category: 'light', form: 'device' });

/** a plan whose second contender gets this */
function giving(...given: { of: typeof granules; inWater: boolean; unit?: 'g' | 'mL' | 'piece' }[]) {
  const base = plan({ treatments: ['Water', 'A'], replicates: 2 });
  return {
    ...base,
    products: given.map((g) => g.of),
    treatments: base.treatments.map((t, i) =>
      i === 0
        ? t
        : {
            ...t,
            products: given.map((g) =>
              use({
                productId: g.of.id,
                amount: 2,
                unit: g.unit ?? (g.of.form === 'liquid' ? 'mL' : 'g'),
                solutionLPerUnit: g.inWater ? 0.5 : null,
                fromDay: 0,
              }),
            ),
          },
    ),
  };
}
const caution = (p: ReturnType<typeof giving>) => {
  const bottle = dueMixes(p, 0, p.units).find((d) => d.uses.length > 0)!;
  const tools = { scaleStepG: 1, liquidStepMl: 1 };
  const batch = batchOf({
    data: { plan: p, names: {}, packs: [], stocks: [], blind: false },
    bottle,
    tools,
    size: 2,
    fromStock: {},
    actual: [],
  });
  return batchCaution(batch.lines, bottle.kind === 'direct');
};

describe('what the doses of a plan ask for', () => {
  it.each([
    [[{ of: granules, inWater: false }], { dry: true, liquid: false, inWater: false }],
    [[{ of: granules, inWater: true }], { dry: true, liquid: false, inWater: true }],
    [[{ of: liquid, inWater: true }], { dry: false, liquid: true, inWater: true }],
    [[{ of: tablet, inWater: false, unit: 'piece' as const }], { dry: false, liquid: false, inWater: false }],
    // A lamp is hung, not given: its tank, if it has one, may still be read.
    [[{ of: lamp, inWater: false, unit: 'piece' as const }], { dry: false, liquid: false, inWater: true }],
    [[], { dry: false, liquid: false, inWater: true }],
  ])('%#', (given, needed) => {
    expect(neededFor(giving(...given))).toEqual(needed);
  });
});

describe('what a batch must not hurt anybody with', () => {
  it('granules given as they are: no word of water, concentrates or acids', () => {
    const said = caution(giving({ of: granules, inWater: false }));
    expect(said).not.toMatch(/water|concentrate|acid/i);
    expect(said).toContain('Labels');
  });
  it('one liquid isn’t warned of another concentrate', () => {
    const said = caution(giving({ of: liquid, inWater: true }));
    expect(said).not.toContain('together');
    expect(said).not.toContain('powder');
    expect(said).toContain('acids');
  });
  it('two in one water never meet before', () => {
    expect(caution(giving({ of: liquid, inWater: true }, { of: granules, inWater: true }))).toMatch(
      /never concentrates together.*powder.*acids/s,
    );
  });
});
