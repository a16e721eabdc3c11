// The interval is the textbook one of a mean; t(3; 0.975) = 3.182 and t(9; 0.975) = 2.262 from any table of Student's t.
import { describe, expect, it } from 'vitest';
import { againstLimit, unitsAgainstLimit } from './limit';

describe('units against a limit', () => {
  it('mean and interval by hand: 28, 30, 29, 31 have the mean 29.5 and the standard error 0.645', () => {
    const { seen, estimate, low, high } = unitsAgainstLimit([28, 30, 29, 31], 30, 0.95);
    expect([seen, estimate]).toEqual(['open', 29.5]);
    expect(low).toBeCloseTo(29.5 - 3.182 * 0.6455, 3);
    expect(high).toBeCloseTo(29.5 + 3.182 * 0.6455, 3);
  });
  it('the whole interval below is kept, above is passed', () => {
    expect(unitsAgainstLimit([28, 30, 29, 31], 32, 0.95).seen).toBe('kept');
    expect(unitsAgainstLimit([28, 30, 29, 31], 27, 0.95).seen).toBe('passed');
    // A narrower interval decides what a wider one leaves open.
    expect(unitsAgainstLimit([28, 30, 29, 31], 30.3, 0.5).seen).toBe('kept');
  });
  it('without a spread there is no interval', () => {
    expect(unitsAgainstLimit([0.1 + 0.2, 0.3, 0.3], 0.3001, 0.95)).toMatchObject({ seen: 'kept', low: null });
    expect(unitsAgainstLimit([31], 30, 0.95)).toMatchObject({ seen: 'passed', low: null });
  });
  it('just at the limit is kept', () => {
    expect(againstLimit(30, null, 30).seen).toBe('kept');
    expect(againstLimit(29, { low: 28, high: 30 }, 30).seen).toBe('kept');
    expect(againstLimit(31, { low: 30, high: 32 }, 30).seen).toBe('open');
  });
});
