import { describe, expect, it } from 'vitest';
import type { Analysis } from '../analysis/analysis';
import type { Contrast } from '../analysis/contrast';
import { gated } from './gate';

const contrast = (a: string, b: string, estimate: number, half: number, p: number | null): Contrast => ({
  ...{ a, b, scale: 'difference', estimate, percent: null, p },
  low: p === null ? null : estimate - half,
  high: p === null ? null : estimate + half,
});
const made = (pA: number | null, pB: number | null): Analysis => {
  const own = [contrast('A', 'W', 1, pA !== null && pA <= 0.05 ? 0.5 : 3, pA), contrast('B', 'W', -1, 3, pB)];
  return {
    ...{ method: 'linear', alpha: 0.05, control: 'W', spread: 'shown', summaries: [], assumptions: [] },
    ...{
      unitSd: null,
      smallPrint: '',
      versusControl: own,
      pairs: [...own, contrast('A', 'B', 2, 1.9, 0.04)],
    },
  };
};
const against = [
  { id: 'A', control: 'W' },
  { id: 'B', control: 'W' },
];
const pair = (a: Analysis) => a.pairs.find((p) => p.a === 'A' && p.b === 'B')!;

describe('two contenders are told apart only where one is told from the control', () => {
  it('one is: the pair stands as it is', () => {
    expect(pair(gated(made(0.01, 0.6), false, against))).toMatchObject({ p: 0.04, low: 2 - 1.9 });
  });
  it('neither is: the pair has the gate’s p, and limits that say so', () => {
    const shut = pair(gated(made(0.3, 0.6), false, against));
    expect(shut.p).toBe(0.3);
    expect(shut.low).toBeLessThanOrEqual(0);
    expect(shut.high).toBeCloseTo(3.9, 12);
  });
  it('equals are one family, as are the others where nothing could be tested against the control', () => {
    expect(pair(gated(made(0.3, 0.6), true, [])).p).toBe(0.04);
    expect(pair(gated(made(null, null), false, against)).p).toBe(0.04);
  });
  it('what is held against another control of its own isn’t a second family', () => {
    expect(pair(gated(made(0.3, 0.6), false, [{ id: 'A', control: 'B' }])).p).toBe(0.04);
  });
});
