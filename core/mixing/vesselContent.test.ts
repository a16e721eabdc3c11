import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { afterLoss, poured, toStrengthen, toDilute, waterOutlook } from './vesselContent';

const held = fc.record({
  volumeL: fc.double({ min: 0.1, max: 200, noNaN: true }),
  ec: fc.double({ min: 0, max: 5, noNaN: true }),
});
const mass = (h: { volumeL: number; ec: number }) => h.volumeL * h.ec;

describe('dilution and loss keep the mass', () => {
  it('two poured together', () => {
    expect(poured({ volumeL: 8, ec: 2 }, { volumeL: 2, ec: 0 })).toEqual({ volumeL: 10, ec: 1.6 });
    fc.assert(
      fc.property(held, held, (a, b) => {
        expect(mass(poured(a, b))).toBeCloseTo(mass(a) + mass(b), 8);
      }),
    );
  });
  it('a dilution series: however often it is topped up, the salts stay', () => {
    fc.assert(
      fc.property(
        held,
        fc.array(fc.double({ min: 0.01, max: 20, noNaN: true }), { maxLength: 8 }),
        (h, adds) => {
          const end = adds.reduce((now, litres) => poured(now, { volumeL: litres, ec: 0 }), h);
          expect(mass(end)).toBeCloseTo(mass(h), 7);
        },
      ),
    );
  });
  it('water lost and put back is as it was', () => {
    expect(afterLoss({ volumeL: 10, ec: 1.6 }, 2)).toEqual({ volumeL: 8, ec: 2 });
    fc.assert(
      fc.property(held, fc.double({ min: 0, max: 0.95, noNaN: true }), (h, share) => {
        const lost = h.volumeL * share;
        const back = poured(afterLoss(h, lost), { volumeL: lost, ec: 0 });
        expect(back.ec).toBeCloseTo(h.ec, 9);
      }),
    );
    expect(afterLoss({ volumeL: 10, ec: 2 }, 2, 0.2).ec).toBeCloseTo(2, 12);
    expect(() => afterLoss({ volumeL: 1, ec: 1 }, 1)).toThrow(RangeError);
  });
  it('the water that dilutes does what it promises', () => {
    expect(toDilute({ volumeL: 8, ec: 2 }, 1.6)).toBeCloseTo(2, 12);
    expect(toDilute({ volumeL: 8, ec: 1.5 }, 1.6)).toBe(0);
    expect(toDilute({ volumeL: 8, ec: 2 }, 1.6, 1.7)).toBeNull();
    fc.assert(
      fc.property(held, fc.double({ min: 0.2, max: 4, noNaN: true }), (h, target) => {
        const add = toDilute(h, target, 0.1)!;
        if (add > 0) expect(poured(h, { volumeL: add, ec: 0.1 }).ec).toBeCloseTo(target, 8);
      }),
    );
    expect(toStrengthen({ volumeL: 10, ec: 1.2 }, 1.8, 1.2)).toBeCloseTo(5, 12);
    expect(toStrengthen({ volumeL: 10, ec: 2 }, 1.8, 1.2)).toBe(0);
  });
});

describe('looking ahead', () => {
  it('says what is left, how strong, and what topping up brings back', () => {
    expect(waterOutlook({ volumeL: 10, ec: 1.6 }, 1, 2, 0)).toEqual({
      kind: 'holds',
      goneL: 2,
      later: { volumeL: 8, ec: 2 },
      toppedUp: { volumeL: 10, ec: 1.6 },
    });
    expect(waterOutlook({ volumeL: 10, ec: 1.6 }, 0, 5, 0)).toMatchObject({ goneL: 0, later: { ec: 1.6 } });
  });
  it('says when it runs dry', () => {
    expect(waterOutlook({ volumeL: 10, ec: 1.6 }, 4, 3, 0)).toEqual({ kind: 'dry', afterDays: 2.5 });
  });
  it('topping up with water that isn’t pure makes it stronger day by day, by just what the water brings', () => {
    fc.assert(
      fc.property(held, fc.double({ min: 0.01, max: 0.9, noNaN: true }), (h, share) => {
        const o = waterOutlook(h, h.volumeL * share, 1, 0.4);
        if (o.kind !== 'holds') throw new Error('dry');
        expect(mass(o.toppedUp)).toBeCloseTo(mass(h) + 0.4 * h.volumeL * share, 7);
        expect(o.toppedUp.volumeL).toBeCloseTo(h.volumeL, 9);
      }),
    );
  });
});
