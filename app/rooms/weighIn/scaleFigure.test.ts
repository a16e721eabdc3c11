import { describe, expect, it } from 'vitest';
import { weightUnits } from '~core/quantity/amount';
import { emptyScale, gramsOn, withReading, turnedTo, typed } from './scaleFigure';

const reading = { grams: 170.1, steady: true, instrument: 'a scale', stepG: 0.1 };

describe('the figure on the pad of the scale', () => {
  it('is nothing until something is typed or taken', () => {
    expect(gramsOn(emptyScale)).toBeNull();
    expect(gramsOn(typed(emptyScale, '0'))).toBe(0);
  });
  it('is the same weight in any unit where the scale gave it', () => {
    // The avoirdupois ounce is 28.349523125 g by definition.
    const inOunces = turnedTo(withReading(emptyScale, reading), 'oz');
    expect(inOunces.text).toBe('6.0001');
    for (const unit of weightUnits) expect(gramsOn(turnedTo(inOunces, unit))).toBeCloseTo(170.1, 1);
    expect(turnedTo(inOunces, 'g').text).toBe('170.1');
  });
  it('is what the person meant where it was typed: the figures stay, the unit is another', () => {
    const six = turnedTo(typed(emptyScale, '6'), 'oz');
    expect(six.text).toBe('6');
    expect(gramsOn(six)).toBe(170.0971);
  });
  it('typed over a reading it is nobody’s but the person’s', () => {
    const over = typed(withReading(emptyScale, reading), '171');
    expect(over).toEqual({ text: '171', unit: 'g', reading: null });
  });
  it('taken with another unit chosen stands in that one', () => {
    expect(withReading({ ...emptyScale, unit: 'kg' }, reading).text).toBe('0.1701');
  });
});
