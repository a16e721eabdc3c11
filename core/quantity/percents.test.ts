import fc from 'fast-check';
import { expect, it } from 'vitest';
import { wholePercents } from './percents';

it('add up to 100, each within one of what it is', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(1000), { minLength: 1, maxLength: 9 }), (parts) => {
      const total = parts.reduce((s, x) => s + x, 0);
      const whole = wholePercents(parts);
      expect(whole.reduce((s, x) => s + x, 0)).toBe(total > 0 ? 100 : 0);
      if (total > 0) whole.forEach((w, i) => expect(Math.abs(w - (100 * parts[i]!) / total)).toBeLessThan(1));
    }),
  );
});
it('63 and 37, not 63 and 38', () => expect(wholePercents([5, 3])).toEqual([63, 37]));
