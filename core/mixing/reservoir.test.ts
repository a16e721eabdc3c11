import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { afterLoss, driftOf, inBand, phCorrection, poured, toStrengthen, toWeaken } from './reservoir';

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
  it('the water that weakens does what it promises', () => {
    expect(toWeaken({ volumeL: 8, ec: 2 }, 1.6)).toBeCloseTo(2, 12);
    expect(toWeaken({ volumeL: 8, ec: 1.5 }, 1.6)).toBe(0);
    expect(toWeaken({ volumeL: 8, ec: 2 }, 1.6, 1.7)).toBeNull();
    fc.assert(
      fc.property(held, fc.double({ min: 0.2, max: 4, noNaN: true }), (h, target) => {
        const add = toWeaken(h, target, 0.1)!;
        if (add > 0) expect(poured(h, { volumeL: add, ec: 0.1 }).ec).toBeCloseTo(target, 8);
      }),
    );
    expect(toStrengthen({ volumeL: 10, ec: 1.2 }, 1.8, 1.2)).toBeCloseTo(5, 12);
    expect(toStrengthen({ volumeL: 10, ec: 2 }, 1.8, 1.2)).toBe(0);
  });
});

it('drift from the first to the last reading, whatever order they come in', () => {
  const r = (at: string, value: number) => ({ at, value });
  const list = [
    r('2026-03-05T08:00:00Z', 6.6),
    r('2026-03-01T08:00:00Z', 5.8),
    r('2026-03-03T08:00:00Z', 6.1),
  ];
  expect(driftOf(list)).toMatchObject({
    change: expect.closeTo(0.8, 9),
    days: 4,
    perDay: expect.closeTo(0.2, 9),
    start: { value: 5.8 },
  });
  expect(driftOf(list.slice(1, 2))).toBeNull();
  expect(driftOf([r('2026-03-01T08:00:00Z', 1), r('2026-03-01T08:01:00Z', 2)])!.perDay).toBeNull();
});

it('bands with one end or two', () => {
  expect([inBand(5.4, 5.5, 6.5), inBand(6, 5.5, 6.5), inBand(7, 5.5, 6.5)]).toEqual([
    'below',
    'within',
    'above',
  ]);
  expect([inBand(9, 5.5, null), inBand(3, null, 6), inBand(3, null, null)]).toEqual([
    'within',
    'within',
    null,
  ]);
});

describe('a pH correction', () => {
  const down = {
    at: '2026-03-02T08:00:00Z',
    agent: 'citric acid 10 %',
    amountMl: 2,
    volumeL: 10,
    phBefore: 7,
    phAfter: 6,
  };
  it('follows the user’s own last one, in proportion', () => {
    // one unit took 0.2 mL/L: half a unit in 20 L takes 2 mL
    expect(phCorrection(6.5, 6, 20, [down])).toMatchObject({
      agent: 'citric acid 10 %',
      fullMl: expect.closeTo(2, 9),
      firstMl: expect.closeTo(1, 9),
      beyond: false,
    });
  });
  it('isn’t made up: none without a correction in that direction', () => {
    expect(phCorrection(6.5, 6, 20, [])).toBeNull();
    expect(phCorrection(5, 6, 20, [down])).toBeNull();
    expect(phCorrection(6.02, 6, 20, [down])).toBeNull();
  });
  it('takes the newest, and warns where it goes beyond what was seen', () => {
    const newer = { ...down, at: '2026-03-04T08:00:00Z', amountMl: 4 };
    expect(phCorrection(6.5, 6, 10, [newer, down])!.fullMl).toBeCloseTo(2, 9);
    expect(phCorrection(8, 6, 10, [down])!.beyond).toBe(true);
  });
});
