import { describe, expect, it } from 'vitest';
import { answered, arrived, begun, drawn, sent } from './keptState';

interface Costs {
  hour: number;
  lines: string[];
}
const none: Costs = { hour: 12, lines: [] };
const free: Costs = { ...none, hour: 0 };
const withLine: Costs = { ...free, lines: ['Container'] };

describe('what is kept with every change', () => {
  it('stays on the screen while an answer to an earlier change comes in', () => {
    let s = sent(begun(none), free);
    s = sent(s, withLine);
    expect(s.base).toBe(withLine);
    s = drawn(answered(s, free, true));
    s = arrived(s, { ...free });
    expect(s.shown).toBe(withLine);
    s = drawn(answered(s, withLine, true));
    const fromStore = { ...withLine };
    s = arrived(s, fromStore);
    expect(s).toEqual(begun(fromStore));
    expect(s.shown).toBe(fromStore);
  });

  it('takes what another tab changed when nothing is under way', () => {
    const theirs = { ...none, hour: 30 };
    expect(arrived(begun(none), theirs).shown).toBe(theirs);
    expect(arrived(begun(none), none).stored).toBe(none);
  });

  it('keeps on the screen what was refused, and sends it with the next change', () => {
    let s = drawn(answered(sent(begun(none), free), free, false));
    s = arrived(s, { ...none });
    expect([s.shown, s.refused]).toEqual([free, true]);
    // The next change begins with what the store has, so that what was refused is among the changes.
    expect(s.base).toBe(none);
    s = sent(s, withLine);
    expect(s.refused).toBe(false);
    s = drawn(answered(s, withLine, true));
    expect(arrived(s, { ...withLine })).toEqual(begun(withLine));
  });

  it('a change kept after others were confirmed falls back to the last confirmed one', () => {
    let s = drawn(answered(sent(begun(none), free), free, true));
    s = drawn(answered(sent(s, withLine), withLine, false));
    expect(s.base).toBe(free);
  });
});
