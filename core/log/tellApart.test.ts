import { expect, it } from 'vitest';
import { entry, height, heightTrait, plan, trait, unitId } from '../testing/trial';
import type { EntryId, TraitId } from '../model/ids';
import type { Entry } from './entry';
import { deriveState, extend, observationsOf } from './state';
import { tellApart } from './tellApart';
import { LABEL_LOST } from './views';

const p = plan({ replicates: 2, traits: [trait(), heightTrait()] });
const [a, b] = [unitId('Water', 0), unitId('A', 0)];
const lost = entry({ kind: 'mixedUp', unitIds: [a, b], reason: 'washed off' }, 'lost', 10);
const log: Entry[] = [
  entry(height(a, 5, 'r1'), 'before-a', 1),
  entry(height(b, 9, 'r1'), 'before-b', 2),
  lost,
  entry(height(a, 12, 'r2'), 'after-a', 20),
  entry(height(b, 7, 'r2'), 'after-b', 21),
];
const heights = (state: ReturnType<typeof deriveState>, unit: typeof a) =>
  observationsOf(state, unit, 'height' as TraitId).map((o) => o.value);
const written = (lines: ReturnType<typeof tellApart>) => lines.map((l, i) => entry(l, `told-${i}`, 30 + i));

it('units whose labels are lost are left out, with the reason', () => {
  const state = deriveState(p, log);
  expect(state.mixedUp).toMatchObject([{ unitIds: [a, b], reason: 'washed off' }]);
  expect(state.exclusions.map((x) => [x.unitId, x.reason])).toEqual([
    [a, LABEL_LOST],
    [b, LABEL_LOST],
  ]);
});

it('told apart, what was logged since goes to the right one; what was before stays', () => {
  const state = deriveState(p, log);
  const lines = tellApart(
    state,
    'lost' as EntryId,
    [
      { from: a, to: b },
      { from: b, to: a },
    ],
    'the notch',
  );
  expect(lines.map((l) => l.kind)).toEqual(['toldApart', 'correction', 'correction']);
  const after = extend(state, written(lines));
  expect(after.mixedUp).toEqual([]);
  expect(after.exclusions).toEqual([]);
  expect(heights(after, a)).toEqual([5, 7]);
  expect(heights(after, b)).toEqual([9, 12]);
  expect(tellApart(after, 'lost' as EntryId, [{ from: a, to: a }], 'again')).toEqual([]);
});

it('each is itself: nothing is moved', () => {
  const state = deriveState(p, log);
  const same = [a, b].map((u) => ({ from: u, to: u }));
  expect(tellApart(state, 'lost' as EntryId, same, 'x')).toHaveLength(1);
  expect(tellApart(state, 'other' as EntryId, same, 'x')).toEqual([]);
});

it('a spare takes a dead one’s place, and lives until it dies too', () => {
  const died = entry({ kind: 'death', unitId: a, sample: null, cause: 'mould' }, 'd1', 1);
  const spare = entry({ kind: 'replacement', unitId: a, sample: null, reason: 'mould' }, 'r1', 2);
  const again = entry({ kind: 'death', unitId: a, sample: null, cause: 'frost' }, 'd2', 3);
  expect(deriveState(p, [died]).deaths.has(a)).toBe(true);
  const replaced = deriveState(p, [died, spare]);
  expect(replaced.deaths.has(a)).toBe(false);
  expect(replaced.replaced.get(a)?.reason).toBe('mould');
  expect(deriveState(p, [died, spare, again]).deaths.get(a)?.cause).toBe('frost');
});
