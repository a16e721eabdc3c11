import { describe, expect, it } from 'vitest';
import { SolutionMeterModel } from './simulatedSolutionMeter';

const feed = { ec: 1.6, ph: 6, temperature: 21 };
const after = (model: SolutionMeterModel, seconds: number) => {
  let last = model.read(0.25);
  for (let t = 0.25; t < seconds; t += 0.25) last = model.read(0.25);
  return last;
};

describe('the simulated pocket meter', () => {
  it('takes time to settle', () => {
    const model = new SolutionMeterModel(1);
    model.dip(feed);
    expect(model.read(0.25).settled).toBe(false);
    expect(after(model, 15).settled).toBe(true);
  });
  it('is off out of the drawer, and right once it is set', () => {
    const model = new SolutionMeterModel(2);
    model.dip(feed);
    const before = after(model, 15);
    expect(Math.abs(before.ec - 1.6)).toBeGreaterThan(0.1);
    expect(Math.abs(before.ph - 6)).toBeGreaterThan(0.2);
    model.calibrate('ec');
    model.calibrate('ph');
    const set = after(model, 5);
    expect(set.ec).toBeCloseTo(1.6, 1);
    expect(Math.abs(set.ph - 6)).toBeLessThan(0.06);
    expect(set.temperature).toBeCloseTo(21, 0);
  });
  it('drifts: over weeks its errors spread', () => {
    const errors = Array.from({ length: 200 }, (_, seed) => {
      const model = new SolutionMeterModel(seed);
      model.calibrate('ph');
      model.dip(feed);
      model.read(30 * 86_400);
      return Math.abs(model.read(0.25).ph - 6);
    });
    const mean = errors.reduce((s, e) => s + e, 0) / errors.length;
    // a tenth of a unit in a day grows with the square root of time: half a unit in a month
    expect(mean).toBeGreaterThan(0.2);
    expect(mean).toBeLessThan(1);
  });
});
