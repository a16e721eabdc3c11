import { describe, expect, it } from 'vitest';
import { usMeasures } from '~core/quantity/units';
import { product } from '~core/testing/trial';
import { calculate } from './calculation';
import { emptyRow, exampleRow } from './calculatorRow';

const tools = { scaleStepG: 1, liquidStepMl: 0.5 };
const asked = {
  rows: [exampleRow()],
  volume: '1 gal',
  measures: usMeasures,
  tools,
  products: [product({ id: 'poured' as never, name: 'Prova' })],
};

describe('the calculator', () => {
  it('weighs 12 g in five gallons for one: 2.4 g are 2 g, −16.7 %, and says the batch that cures it', () => {
    const c = calculate(asked);
    expect(c.recipe!.lines[0]).toMatchObject({ wanted: expect.closeTo(2.4, 9), measured: 2 });
    expect(c.off).toHaveLength(1);
    expect(c.off[0]!.errorPercent).toBeCloseTo(-100 / 6, 6);
    // in the volume it proposes, nothing is off any more
    const cured = calculate({ ...asked, volume: `${c.biggerL} L` });
    expect(cured.off).toEqual([]);
    expect(cured.biggerL).toBeNull();
  });
  it('orders its parts by what is in them, in the words of the tool', () => {
    const liquid = { ...emptyRow(), productId: 'poured', rate: '5 mL/L' };
    const c = calculate({ ...asked, rows: [exampleRow(), liquid], volume: '2 L' });
    expect(c.parts.map((p) => [p.name, p.amount])).toEqual([
      ['Product 12-6-18, 4, 1.5', '1 g'],
      ['Prova', '10 mL'],
    ]);
    expect(c.parts[0]!.contents).toMatchObject({ calcium: true, dry: true });
  });
  it.each(['', 'a bucket', '0'])(
    'without a volume (“%s”) there is no recipe, but the rows are read',
    (volume) => {
      const c = calculate({ ...asked, volume });
      expect(c).toMatchObject({ recipe: null, parts: [], off: [], biggerL: null, litres: { ok: false } });
      expect(c.read[0]!.dose).not.toBeNull();
    },
  );
  it('rows without a rate are left out, not guessed', () => {
    expect(calculate({ ...asked, rows: [emptyRow()] }).recipe).toBeNull();
    expect(calculate({ ...asked, rows: [exampleRow(), emptyRow()] }).recipe!.lines).toHaveLength(1);
  });
});
