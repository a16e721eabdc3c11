import fc from 'fast-check';
import { expect, it } from 'vitest';
import { labelFace } from './labelFace';

const box = { widthMm: 63.7, heightMm: 36 };
const words = fc.record({
  title: fc.constantFrom('COR-01 D', 'A-1', 'Bottle C', 'LONGCODE-128 H'),
  name: fc.string({ maxLength: 40 }),
  small: fc.string({ maxLength: 70 }),
});

it('its parts stay within the box and off each other, whatever is written', () => {
  fc.assert(
    fc.property(
      fc.record({
        widthMm: fc.double({ min: 38, max: 200, noNaN: true }),
        heightMm: fc.double({ min: 18, max: 140, noNaN: true }),
      }),
      words,
      (at, said) => {
        const f = labelFace(at, said);
        const beside = f.tileMm + 0.64 * f.titleMm * said.title.length + f.qrMm + 2 * f.padMm;
        expect(beside).toBeLessThanOrEqual(at.widthMm + 1e-9);
        expect(f.textMm + f.qrMm + (f.isStacked ? 0 : f.tileMm) + 2 * f.padMm).toBeLessThanOrEqual(
          at.widthMm,
        );
        expect(Math.max(f.tileMm, f.qrMm) + 2 * f.padMm).toBeLessThanOrEqual(at.heightMm + 1e-9);
        expect(Math.min(f.titleMm, f.nameMm, f.smallMm)).toBeGreaterThan(1);
      },
    ),
  );
});

it('a usual label is written large: little of its height is left empty', () => {
  const f = labelFace(box, { title: 'COR-01 D', name: 'Sarmenta Fine', small: 'block 1 · Oct 23' });
  expect(f.isStacked).toBe(true);
  expect(f.tileMm).toBeGreaterThan(12.5);
  const used = f.tileMm + 1 + 1.25 * (2 * f.nameMm + f.smallMm);
  expect(used / box.heightMm).toBeGreaterThan(0.7);
});

it('a long dose makes the small print smaller, never cut', () => {
  const small = 'PAR · 0.5 mL per L of Trittico Primo + 0.634 g per L of Trittico Secondo · not for drinking';
  const [short, long] = [
    labelFace(box, { title: 'Bottle D', name: 'Trittico', small: 'PAR' }),
    labelFace(box, { title: 'Bottle D', name: 'Trittico, three parts', small }),
  ];
  expect(long.smallMm).toBeLessThan(short.smallMm);
});
