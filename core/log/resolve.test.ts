import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Entry } from './entry';
import { anyLog, correction, shuffled } from '../testing/logs';
import { entry, height, plan, unitId } from '../testing/trial';
import { deriveState } from './state';

const unit = unitId('Water', 0);
const standing = (log: Entry[]) => deriveState(plan(), log).entries;
const values = (log: Entry[]) =>
  standing(log).map((e) => (e.body.kind === 'measurement' ? e.body.value : null));

describe('corrections', () => {
  const first = entry(height(unit, 5), 'a');
  it('stand in place of the entry, which stays visible', () => {
    const [resolved] = standing([first, entry(correction('a', 6), 'c1')]);
    expect(resolved).toMatchObject({ id: 'a', standsFrom: 'c1', body: { value: 6 } });
    expect(resolved!.superseded).toMatchObject([{ entryId: 'a', body: { value: 5 } }]);
  });
  it('of a correction win over it', () => {
    expect(values([first, entry(correction('a', 6), 'c1'), entry(correction('c1', 7), 'c2')])).toEqual([7]);
  });
  it('of one entry twice: the one written later stands, both olds are shown, oldest first', () => {
    const log = [first, entry(correction('a', 6), 'c1'), entry(correction('a', 8), 'c2')];
    expect(values(log)).toEqual([8]);
    expect(standing(log)[0]!.superseded.map((s) => s.entryId)).toEqual(['a', 'c1']);
  });
  it('taken back: the entry stands again', () => {
    expect(values([first, entry(correction('a', 6), 'c1'), entry(correction('c1', null), 'c2')])).toEqual([
      5,
    ]);
  });
  it('with null: the entry is gone; taken back, it returns', () => {
    const gone = [first, entry(correction('a', null), 'c1')];
    expect(values(gone)).toEqual([]);
    expect(values([...gone, entry(correction('c1', null), 'c2')])).toEqual([5]);
  });
  it('of entries that aren’t there, or of each other in a ring, do no harm', () => {
    expect(values([first, entry(correction('nobody', 6))])).toEqual([5]);
    const ring = [entry(correction('y', 1), 'x'), entry(correction('x', 2), 'y')];
    expect(values([first, ...ring])).toEqual([5]);
  });
  it('written with the clock set back an hour still win: the clock on the wall has no say', () => {
    const back = { ...entry(correction('a', 12), 'back'), at: '2026-03-11T07:00:00.000Z' };
    const later = { ...back, id: 'later' as never, counter: back.counter + 1, replacement: height(unit, 13) };
    const log = [first, back, { ...later, recordedAt: '2020-01-01T00:00:00.000Z' }] as Entry[];
    expect(values(log)).toEqual([13]);
  });
  it('from a device whose clock runs a year ahead don’t win over what was written after them', () => {
    const ahead = { ...entry(correction('a', 6), 'c1'), at: '2027-03-11T00:00:00.000Z' };
    const after = { ...entry(correction('c1', 7), 'c2'), counter: ahead.counter + 1 };
    expect(values([first, { ...ahead, recordedAt: ahead.at }, after] as Entry[])).toEqual([7]);
  });
  it('ten thousand in a chain are one pass, not a tower of calls', () => {
    const chain = Array.from({ length: 10_000 }, (_, i) =>
      entry(correction(i === 0 ? 'a' : `k${i - 1}`, i), `k${i}`),
    );
    expect(values([first, ...chain])).toEqual([9999]);
    expect(standing([first, ...chain])[0]!.superseded).toHaveLength(10_000);
  });
});

it('the order of arrival doesn’t matter', () => {
  fc.assert(
    fc.property(
      anyLog.chain((log) => fc.tuple(fc.constant(log), shuffled(log))),
      ([log, mixed]) => {
        expect(deriveState(plan(), mixed)).toEqual(deriveState(plan(), log));
      },
    ),
  );
});

it('an entry is never lost: it stands, is superseded, or was taken back by a line of the log', () => {
  fc.assert(
    fc.property(anyLog, (log) => {
      const resolved = standing(log);
      const nulled = new Set(log.flatMap((e) => (e.kind === 'correction' && !e.replacement ? [e.id] : [])));
      const gone = log.filter((e) => e.kind !== 'correction' && !resolved.some((r) => r.id === e.id));
      expect(gone.length).toBeLessThanOrEqual(nulled.size);
      for (const r of resolved) {
        const all = [r.standsFrom, ...r.superseded.map((s) => s.entryId)];
        expect(all).toContain(r.id);
        expect(new Set(all).size).toBe(all.length);
      }
    }),
  );
});
