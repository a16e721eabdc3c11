// By hand for one trial each: the log ratio's variance is the sum of sd²/(n·mean²); indirect is the sum of two steps.
import { describe, expect, it } from 'vitest';
import type { TrialArm } from '../stats/networkMeta';
import { directIndirect, sayDirectIndirect } from './directIndirect';

const arm = (trial: string, treatment: string, mean: number, sd = 5, n = 5): TrialArm => ({
  ...{ trial, treatment, mean, sd, n },
});
const agreeing = [
  arm('one', 'W', 50),
  arm('one', 'B', 60),
  arm('two', 'W', 50),
  arm('two', 'A', 55),
  arm('three', 'A', 55),
  arm('three', 'B', 60),
];

describe('direct against indirect', () => {
  it('agree where the steps add up, with the variances of both', () => {
    const found = directIndirect(agreeing, 'B', 'W')!;
    expect(found.direct.percent).toBeCloseTo(20, 6);
    expect(found.indirect.percent).toBeCloseTo(20, 6);
    expect(found.p).toBeCloseTo(1, 6);
    const v = (a: number, b: number) => 25 / (5 * a * a) + 25 / (5 * b * b);
    const se = Math.sqrt(v(50, 55) + v(55, 60));
    expect(Math.log1p(found.indirect.high / 100)).toBeCloseTo(Math.log(1.2) + 1.959964 * se, 5);
    expect(sayDirectIndirect(found)).toBe(
      'B: side by side +20 %, by way of others +20 %; the two agree as far as chance lets one see (p = 1.000).',
    );
  });
  it('disagree where they contradict each other', () => {
    const off = agreeing.map((a) => (a.trial === 'three' && a.treatment === 'B' ? { ...a, mean: 30 } : a));
    const found = directIndirect(off, 'B', 'W')!;
    expect(found.p).toBeLessThan(0.001);
    expect(sayDirectIndirect(found)).toMatch(
      /^B: side by side \+20 %, by way of others −40 %; the two disagree/,
    );
  });
  it('say nothing where there is but one of them, and what hangs apart doesn’t disturb', () => {
    expect(directIndirect(agreeing.slice(0, 2), 'B', 'W')).toBeNull();
    expect(directIndirect(agreeing.slice(2), 'B', 'W')).toBeNull();
    const more = [...agreeing, arm('apart', 'X', 10), arm('apart', 'Y', 12)];
    expect(directIndirect(more, 'B', 'W')!.p).toBeCloseTo(1, 6);
  });
});
