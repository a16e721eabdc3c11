import { describe, expect, it } from 'vitest';
import { answered, arrived, begun, sent } from './keptState';

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
    s = answered(s, free, { saved: true, rev: 7 });
    s = arrived(s, { ...free }, 7);
    expect(s.shown).toBe(withLine);
    s = answered(s, withLine, { saved: true, rev: 8 });
    // What was read before the second was kept may come in after its answer.
    expect(arrived(s, { ...free }, 7).shown).toBe(withLine);
    const fromStore = { ...withLine };
    expect(arrived(s, fromStore, 8)).toEqual(begun(fromStore));
    expect(arrived(s, fromStore, 8).shown).toBe(fromStore);
  });

  it('takes what another tab changed when nothing is under way', () => {
    const theirs = { ...none, hour: 30 };
    expect(arrived(begun(none), theirs, 2).shown).toBe(theirs);
    expect(arrived(begun(none), none, 2).stored).toBe(none);
  });

  it('keeps on the screen what was refused, and sends it with the next change', () => {
    let s = answered(sent(begun(none), free), free, { errors: { notStored: 'Not kept.' } });
    s = arrived(s, { ...none }, 3);
    expect([s.shown, s.refused]).toEqual([free, 'store']);
    // The next change begins with what the store has, so that what was refused is among the changes.
    expect(s.base).toBe(none);
    s = sent(s, withLine);
    expect(s.refused).toBeNull();
    s = answered(s, withLine, { saved: true });
    expect(arrived(s, { ...withLine }, 4)).toEqual(begun(withLine));
  });

  it('where another tab changed the same mine stays shown, and the next sending stands over theirs alone', () => {
    const theirs = { hour: 30, lines: ['Pump'] };
    let s = sent(begun(none), free);
    const answer = {
      conflicts: [{ path: 'hour', theirs: 30 }],
      merged: { hour: 0, lines: ['Pump'] },
      theirs,
    };
    s = answered(s, free, answer);
    s = arrived(s, { ...theirs }, 5);
    expect([s.shown, s.refused]).toEqual([answer.merged, 'otherTab']);
    // What it begins with now is theirs: hour is the one change left in it.
    expect(s.base).toBe(theirs);
  });

  it('a change kept after others were confirmed falls back to the last confirmed one', () => {
    let s = answered(sent(begun(none), free), free, { saved: true });
    s = answered(sent(s, withLine), withLine, { errors: { notStored: 'Not kept.' } });
    expect(s.base).toBe(free);
  });
});
