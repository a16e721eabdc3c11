// Plain arithmetic: 10 mL of a litre at 10.00 are 100 feeds of 0.10.
import { describe, expect, it } from 'vitest';
import type { PackId, ProductId } from '../model/ids';
import { plan, product, use } from '../testing/trial';
import { cellText } from './cell';
import { kitLines, packBlocks, packTable, pricesPaid } from './packTable';

const base = plan({ treatments: ['Water', 'A'] });
const fed = (over: Parameters<typeof use>[0], area: number | null = null) => ({
  ...base,
  products: [product()],
  rounds: base.rounds.map((r) => ({ ...r, day: 14 })),
  treatments: base.treatments.map((t, i) =>
    i === 0 ? t : { ...t, products: [use(over)], conditions: { ...t.conditions, areaPerUnitCm2: area } },
  ),
});
const row = (p: ReturnType<typeof fed>) => packTable(p, (id) => id)!.rows[0]!.cells.map((c) => cellText(c));

describe('how far a pack goes', () => {
  it('feeds in a pack, a feed, a litre, a week, a square metre', () => {
    // 2 mL a litre, half a litre each, four times in 14 days: 1 mL a feed is 0.01; four are 0.04, 0.02 a week;
    // 0.04 on 500 cm² are 0.80 on a square metre.
    const cells = row(fed({ amount: 2, solutionLPerUnit: 0.5, timesPerUnit: 4 }, 500));
    expect(cells.slice(1)).toEqual([
      'Prova',
      '1 L for €10.00',
      '1000',
      '€0.0100',
      '€0.0200',
      '€0.0200',
      '€0.800',
    ]);
  });
  it('no litre where nothing is dissolved, no ground where none is said', () => {
    const heads = packTable(fed({ amount: 200 }), (id) => id)!.columns.map((c) => c.head);
    expect(heads).toEqual(['contender', 'product', 'pack', 'doses in a pack', 'a dose', 'a week']);
    expect(row(fed({ amount: 200 }))[3]).toBe('5');
  });
  it('nothing where nothing has a price', () => {
    expect(packTable(base, (id) => id)).toBeNull();
    expect(packBlocks(base, (id) => id)).toEqual([]);
  });
  it('when and where it was bought, as far as that was written down', () => {
    const p = fed({ amount: 10 });
    const bought = (over: object) => ({
      ...p,
      products: [product({ packs: [{ ...product().packs[0]!, ...over }] })],
    });
    expect(pricesPaid(p)).toEqual([]);
    expect(pricesPaid(bought({ shop: 'garden centre', country: 'Italy', boughtOn: '2026-03-01' }))).toEqual([
      'Prova: 1 L for €10.00, garden centre, Italy, 2026-03-01.',
    ]);
    expect(pricesPaid(bought({ shop: 'maker' }))).toEqual(['Prova: 1 L for €10.00, from the maker.']);
    const list = packBlocks(bought({ country: 'Italy' }), (id) => id).find((b) => b.type === 'list');
    expect(list).toMatchObject({ items: ['Prova: 1 L for €10.00, Italy.'] });
  });
  it('a kit is said beside the table, and only then', () => {
    const kit = { id: 'k', name: 'Trio', priceMinor: 3000 };
    const p = fed({ amount: 10 });
    const inKit = {
      ...p,
      products: [
        product({
          id: 'feed' as ProductId,
          packs: [{ ...product().packs[0]!, id: 'x' as PackId, priceMinor: 1000, kit }],
        }),
      ],
    };
    expect(kitLines(p, (id) => id)).toEqual([]);
    expect(kitLines(inKit, (id) => id)).toEqual([
      'A, from the kit Trio (€30.00): Prova lasts 100 feeds. €0.300 a feed if what is left is thrown away.',
    ]);
    expect(row(inKit)[2]).toBe('1 L for €10.00, its share of Trio');
  });
});
