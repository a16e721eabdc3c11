import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { entry, height, plan, unitId } from '../testing/trial';
import type { Entry } from '../model/entry';
import { resolveLog, unionOfLogs } from './resolve';
import { deriveState } from './state';

const unit = unitId('Water', 0);
const correction = (supersedes: string, value: number | null) => ({
  kind: 'correction',
  supersedes,
  replacement: value === null ? null : height(unit, value),
  reason: 'slip',
});
const values = (log: Entry[]) =>
  resolveLog(log).map((e) => (e.body.kind === 'measurement' ? e.body.value : null));

describe('corrections', () => {
  const first = entry(height(unit, 5), 'a');
  it('stand in place of the entry, which stays visible', () => {
    const [resolved] = resolveLog([first, entry(correction('a', 6), 'c1')]);
    expect(resolved).toMatchObject({ id: 'a', standsFrom: 'c1', body: { value: 6 } });
    expect(resolved!.superseded).toMatchObject([{ entryId: 'a', body: { value: 5 } }]);
  });
  it('of a correction win over it', () => {
    expect(values([first, entry(correction('a', 6), 'c1'), entry(correction('c1', 7), 'c2')])).toEqual([7]);
  });
  it('of one entry twice: the newer stands, both olds are shown', () => {
    const log = [first, entry(correction('a', 6), 'c1'), entry(correction('a', 8), 'c2')];
    expect(values(log)).toEqual([8]);
    expect(resolveLog(log)[0]!.superseded).toHaveLength(2);
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
});

/** Logs of measurements and corrections of anything earlier, corrections of corrections included. */
const anyLog = fc
  .array(fc.tuple(fc.nat(30), fc.option(fc.nat(99)), fc.boolean(), fc.nat(8)), { maxLength: 25 })
  .map((steps) =>
    steps.map(([target, value, isCorrection, second], i) =>
      isCorrection && i > 0
        ? entry(correction(`e${target % i}`, value), `e${i}`, second)
        : entry(height(unitId('Water', i % 3), value ?? 1), `e${i}`, second),
    ),
  );

const shuffled = (log: Entry[]) =>
  fc.array(fc.nat(), { minLength: log.length, maxLength: log.length }).map((keys) =>
    log
      .map((e, i) => [keys[i]!, e] as const)
      .sort((a, b) => a[0] - b[0])
      .map(([, e]) => e),
  );

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
      const resolved = resolveLog(log);
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

describe('the union of two copies of a log', () => {
  const pair = anyLog.chain((log) => fc.tuple(fc.subarray(log), fc.subarray(log), fc.subarray(log)));
  it('is idempotent, commutative and associative', () => {
    fc.assert(
      fc.property(pair, ([a, b, c]) => {
        expect(unionOfLogs(unionOfLogs(a, a), a)).toEqual(unionOfLogs(a, []));
        expect(unionOfLogs(a, b)).toEqual(unionOfLogs(b, a));
        expect(unionOfLogs(unionOfLogs(a, b), c)).toEqual(unionOfLogs(a, unionOfLogs(b, c)));
      }),
    );
  });
  it('keeps the same one of two different lines with one id, whichever comes first', () => {
    const [x, y] = [entry(height(unit, 1), 'same', 1), entry(height(unit, 2), 'same', 1)];
    expect(unionOfLogs([x], [y])).toEqual(unionOfLogs([y], [x]));
  });
});
