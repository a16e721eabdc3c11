// What no file can undo: the same lines as a device, a letter or a backup would bring.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { EntryId } from '../model/ids';
import { planSha256 } from '../plan/seal';
import { entry, height, heightTrait, plan, unitId } from '../testing/trial';
import type { Entry } from './entry';
import { canBreakSeal, deriveState, extend, standingAside } from './state';

const p = { ...plan({ treatments: ['A', 'B'], replicates: 2 }), traits: [heightTrait()] };
const at = (counter: number, body: Parameters<typeof entry>[0], id = `line ${counter}`): Entry => ({
  ...entry(body),
  id: id as EntryId,
  counter,
});
const sealed = (counter: number, hash = planSha256(p), over: object = {}) => ({
  ...at(counter, { kind: 'seal', planSha256: hash }),
  ...over,
});
const value = (counter: number) => at(counter, height(unitId('A', 0), 5, 'w0', 1));
const back = (counter: number, of: string) =>
  at(counter, { kind: 'correction', supersedes: of as EntryId, replacement: null, reason: '' } as never);

describe('a seal with a value under it', () => {
  const log = [sealed(1), value(2), back(3, 'line 1')];
  it('stays, whatever line takes it back, and the line is shown with its reason', () => {
    const state = deriveState(p, log);
    expect(state.seal?.entryId).toBe('line 1');
    expect(standingAside(state).map((x) => [x.line.id, x.why])).toEqual([
      ['line 3', 'Values were taken under this seal: it stays.'],
    ]);
    expect(canBreakSeal(state)).toBe(false);
  });
  it('the same in every order, and line by line (property)', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(log, { minLength: log.length }), (order) => {
        expect(deriveState(p, order).seal?.entryId).toBe('line 1');
        const grown = order.reduce((s, e) => extend(s, [e]), deriveState(p, []));
        expect(grown.seal?.entryId).toBe('line 1');
        expect(grown.entries).toEqual(deriveState(p, order).entries);
      }),
    );
  });
  it('one without a value can be broken and made anew, and values of the new one don’t mend the old', () => {
    const early = [sealed(1), back(2, 'line 1')];
    expect(deriveState(p, early).seal).toBeNull();
    const anew = [...early, sealed(3), value(4)];
    const state = deriveState(p, anew);
    expect(state.seal?.entryId).toBe('line 3');
    expect(standingAside(state)).toEqual([]);
    expect(canBreakSeal(deriveState(p, [sealed(1)]))).toBe(true);
    expect(canBreakSeal(deriveState(p, []))).toBe(false);
  });
  it('another seal that a file brings, dated before it, isn’t the seal of this plan', () => {
    const forged = sealed(1, 'f'.repeat(64), { id: 'forged' as EntryId, at: '2020-01-01T00:00:00.000Z' });
    expect(deriveState(p, [forged, sealed(2), value(3)]).seal?.entryId).toBe('line 2');
  });
});

it('codes and cups that were opened stay open', () => {
  const state = deriveState(p, [at(1, { kind: 'reveal', reason: '' }), back(2, 'line 1')]);
  expect(state.revealed).not.toBeNull();
  expect(standingAside(state).map((x) => x.why)).toEqual(['What was opened can’t be closed again.']);
});

it('an answer stays once the cups are known; before that it can be taken back', () => {
  const guess = (n: number) =>
    at(n, { kind: 'panelGuess', sessionId: 's', tasterId: 't', guesses: [] } as never);
  const cups = at(5, { kind: 'panelReveal', key: { sessionId: 's', cups: [], samples: [] } } as never);
  const stands = (log: Entry[]) => deriveState(p, log).entries.some((e) => e.id === 'line 1');
  expect(stands([guess(1), back(2, 'line 1'), cups])).toBe(false);
  expect(stands([guess(1), cups, back(6, 'line 1')])).toBe(true);
  // Of another session nothing is known.
  expect(stands([guess(1), { ...cups, key: { ...(cups as never as { key: object }).key, sessionId: 'other' } } as never, back(6, 'line 1')])).toBe(false); // prettier-ignore
});
