import { describe, expect, it } from 'vitest';
import { phCorrection } from './phCorrection';

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
