import { describe, expect, it } from 'vitest';
import { closedAgainst, closedPairs } from './closedTesting';

/** p of a set is looked up by its groups. */
const byTable = (table: Record<string, number | null>) => (groups: readonly number[]) =>
  table[groups.join('')] ?? null;

describe('closed testing', () => {
  it('one differs from the control where every set that holds both is refuted', () => {
    const p = closedAgainst(0, [1, 2], byTable({ '01': 0.01, '02': 0.2, '012': 0.03 }));
    expect([p.get(1), p.get(2)]).toEqual([0.03, 0.2]);
  });
  it('a pair that can’t be tested alone stays untested, whatever larger sets say', () => {
    const p = closedAgainst(0, [1, 2], byTable({ '01': null, '02': 0.01, '012': 0.001 }));
    expect([p.get(1), p.get(2)]).toEqual([null, 0.01]);
  });
  it('a set of fewer than all but one gets its share of the level (by hand: 1 − (1 − p)^(m/size))', () => {
    const table = { '01': 0.01, '02': 0.5, '03': 0.5, '12': 0.5, '13': 0.5, '23': 0.5, '012': 0.01, '013': 0.015, '023': 0.5, '123': 0.5, '0123': 0.001 }; // prettier-ignore
    expect(closedPairs([0, 1, 2, 3], byTable(table))(0, 1)).toBeCloseTo(1 - 0.99 ** 2, 12);
    // Of three the pair keeps the whole level.
    expect(closedPairs([0, 1, 2], byTable(table))(0, 1)).toBe(0.01);
  });
  it('with more groups than sets can be gone through p is shared by Bonferroni', () => {
    const others = Array.from({ length: 12 }, (_, i) => i + 1);
    expect(closedAgainst(0, others, () => 0.001).get(3)).toBeCloseTo(0.012, 12);
    expect(closedPairs([0, ...others], () => 0.001)(0, 1)).toBeCloseTo(0.078, 12);
  });
});
