import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Right, holdsRight } from '../model/right';
import { entry, height, plan, unitId } from '../testing/trial';
import type { Entry } from './entry';
import { entryKinds } from './kinds';
import { asked } from './rights';
import { deriveState } from './state';

const now = new Date('2026-03-11T00:00:00Z');
const value = entry(height(unitId('A', 0), 5), 'value');
const reveal = entry({ kind: 'reveal', reason: '' }, 'reveal');
const out = entry({ kind: 'exclusion', unitId: unitId('A', 0), traitId: null, reason: '' }, 'out');
const correct = (supersedes: string, replacement: object | null, id = 'correct') =>
  entry({ kind: 'correction', supersedes, replacement, reason: '' } as never, id);
const p = plan({ treatments: ['Water', 'A'], replicates: 2 });
const taken = (lines: Entry[], right: Right, known: Entry[] = [], device: string | null = null) =>
  asked(lines, deriveState(p, known), { right, device }, now).taken.map((e) => e.id as string);

describe('what may come unasked', () => {
  it.each<[Right, string[]]>([
    ['score', ['value']],
    ['mix', ['value']],
    ['plan', ['value', 'out']],
    ['all', ['value', 'reveal', 'out']],
  ])('%s', (right, ids) => expect(taken([value, reveal, out], right)).toEqual(ids));
  it('a correction needs the right of what it corrects, through any number of corrections', () => {
    const once = correct('reveal', null, 'once');
    expect(taken([correct('value', null)], 'score', [value])).toEqual(['correct']);
    expect(taken([correct('reveal', null)], 'score', [reveal])).toEqual([]);
    expect(taken([correct('once', null)], 'plan', [reveal, once])).toEqual([]);
  });
  it('nor makes a value into what may not come', () => {
    expect(taken([correct('value', { kind: 'reveal', reason: '' })], 'score', [value])).toEqual([]);
  });
  it('two that correct each other end', () => {
    const loop = [correct('two', null, 'one'), correct('one', null, 'two')];
    expect(asked(loop, deriveState(p, []), { right: 'score', device: null }, now).taken).toHaveLength(2);
  });
  it('lines of another device wait, whatever they say', () => {
    expect(taken([{ ...value, device: 'mine' }], 'score', [], 'mine')).toEqual(['value']);
    expect(taken([{ ...value, device: 'another' }], 'score', [], 'mine')).toEqual([]);
  });
  it('a line of tomorrow is taken, one of a year ahead waits', () => {
    const at = (days: number) => new Date(now.getTime() + days * 86_400_000).toISOString();
    expect(taken([{ ...value, at: at(1) }], 'plan')).toEqual(['value']);
    expect(taken([{ ...value, recordedAt: at(365) }], 'plan')).toEqual([]);
    // Who may all is oneself: it may as well be the clock here that is behind.
    expect(taken([{ ...value, recordedAt: at(365) }], 'all')).toEqual(['value']);
  });
  it('once the codes are open a score is changed from nowhere without a reason, through corrections on their way too', () => {
    const blind = { ...p, blinding: 'scorer' as const };
    const opened = { ...reveal, counter: 1_000_000 };
    const here = deriveState(blind, [value, opened]);
    const of = (...lines: Entry[]) =>
      asked(lines, here, { right: 'all', device: null }, now).taken.map((e) => e.id as string);
    const late = (line: Entry, n: number, reason: string) =>
      ({ ...line, counter: 1_000_000 + n, reason }) as unknown as Entry;
    const once = late(correct('value', null, 'once'), 1, 'the scale stood askew');
    expect(of(once)).toEqual(['once']);
    expect(of(late(correct('value', null), 1, 'taken back'))).toEqual([]);
    expect(of(once, late(correct('once', null, 'twice'), 2, ''))).toEqual(['once']);
    expect(of(late(out, 3, ''))).toEqual([]);
    // Written before the opening, it only comes late.
    expect(of({ ...correct('value', null), counter: 900_000 } as Entry)).toEqual(['correct']);
  });
  it('a greater right never takes less, and nothing is both taken and left', () => {
    const kinds = Object.keys(entryKinds) as (keyof typeof entryKinds)[];
    fc.assert(
      fc.property(fc.subarray(kinds, { minLength: 1 }), fc.constantFrom(...Right.options), (some, right) => {
        const lines = some.map((kind, i) => ({ ...value, kind, id: `${i}` }) as unknown as Entry);
        const { taken: t, unasked } = asked(lines, deriveState(p, []), { right, device: null }, now);
        expect(t.length + unasked.length).toBe(lines.length);
        expect(t.every((l) => holdsRight(right, entryKinds[l.kind as 'note'].right))).toBe(true);
        expect(unasked.some(({ line }) => holdsRight(right, entryKinds[line.kind as 'note'].right))).toBe(
          false,
        );
      }),
    );
  });
});
