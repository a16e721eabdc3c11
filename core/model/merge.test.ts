import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Json, mergeChanges, sameJson } from './merge';

const base = {
  question: 'Which?',
  prediction: '',
  treatments: [
    { id: 'w', name: 'Water', notes: '' },
    { id: 'a', name: 'A', notes: '' },
  ],
};
const withTreatments = (...treatments: object[]) => ({ ...base, treatments }) as typeof base;
const [water, a] = base.treatments as [object, object];

describe('two changes of one plan put together', () => {
  it('of different fields: both stand', () => {
    const { value, conflicts, took } = mergeChanges(
      base,
      { ...base, question: 'Which one?' },
      { ...base, prediction: 'A.' },
    );
    expect(value).toEqual({ ...base, question: 'Which one?', prediction: 'A.' });
    expect(conflicts).toEqual([]);
    expect(took).toBe(true);
  });
  it('of the same field: mine stands, both are told, at the field’s own path', () => {
    const { value, conflicts } = mergeChanges(
      base,
      withTreatments(water, { ...a, name: 'Alpha' }),
      withTreatments(water, { ...a, name: 'Prova' }),
    );
    expect((value.treatments[1] as { name: string }).name).toBe('Alpha');
    expect(conflicts).toEqual([{ path: 'treatments.1.name', mine: 'Alpha', theirs: 'Prova' }]);
  });
  it('to the same: no conflict', () => {
    const changed = { ...base, prediction: 'A.' };
    expect(mergeChanges(base, changed, { ...changed }).conflicts).toEqual([]);
  });
  it('a contender each: both are there, mine first', () => {
    const [mine, theirs] = [
      { id: 'b', name: 'B', notes: '' },
      { id: 'c', name: 'C', notes: '' },
    ];
    const { value, conflicts } = mergeChanges(
      base,
      withTreatments(water, a, mine),
      withTreatments(water, a, theirs),
    );
    expect(value.treatments.map((t) => t.id)).toEqual(['w', 'a', 'b', 'c']);
    expect(conflicts).toEqual([]);
  });
  it('one removes what the other left alone: it is gone', () => {
    expect(mergeChanges(base, base, withTreatments(water)).value.treatments).toHaveLength(1);
    expect(mergeChanges(base, withTreatments(water), base).value.treatments).toHaveLength(1);
  });
  it('one removes what the other changed: it stays and is asked about', () => {
    const changed = { ...a, name: 'Alpha' };
    const theirs = mergeChanges(base, withTreatments(water), withTreatments(water, changed));
    expect(theirs.value.treatments).toHaveLength(2);
    expect(theirs.conflicts).toEqual([{ path: 'treatments.1', mine: undefined, theirs: changed }]);
    const mine = mergeChanges(base, withTreatments(water, changed), withTreatments(water));
    expect(mine.value.treatments).toHaveLength(2);
    expect(mine.conflicts).toMatchObject([{ path: 'treatments.1', mine: changed }]);
  });
  it('lists without ids are one part', () => {
    const { value, conflicts } = mergeChanges({ days: [1, 2] }, { days: [1, 2, 3] }, { days: [2] });
    expect(value.days).toEqual([1, 2, 3]);
    expect(conflicts).toHaveLength(1);
  });
  it('undone: my change alone is taken out of what it has become', () => {
    const before = base;
    const after = { ...base, prediction: 'A.' };
    const now = { ...after, treatments: [...base.treatments, { id: 'c', name: 'C', notes: '' }] };
    expect(mergeChanges(after, before, now)).toMatchObject({
      value: { ...now, prediction: '' },
      conflicts: [],
    });
  });
});

const leaf = fc.oneof(fc.integer({ min: 0, max: 3 }), fc.constantFrom('', 'x', 'y'), fc.boolean());
const thing = fc.record({
  name: leaf,
  deep: fc.record({ a: leaf, b: leaf }),
  rows: fc.uniqueArray(fc.record({ id: fc.constantFrom('p', 'q', 'r', 's'), v: leaf }), {
    selector: (r) => r.id,
    maxLength: 4,
  }),
}) as fc.Arbitrary<Json>;

describe('for any three versions', () => {
  it('a side that changed nothing takes the other’s as it is', () => {
    fc.assert(
      fc.property(thing, thing, (start, other) => {
        expect(mergeChanges(start, start, other)).toMatchObject({ value: other, conflicts: [] });
        expect(mergeChanges(start, other, start)).toEqual({ value: other, conflicts: [], took: false });
      }),
    );
  });
  it('both sides see the same disagreements', () => {
    fc.assert(
      fc.property(thing, thing, thing, (start, x, y) => {
        const paths = (m: ReturnType<typeof mergeChanges>) => m.conflicts.length;
        expect(paths(mergeChanges(start, x, y)) === 0).toBe(paths(mergeChanges(start, y, x)) === 0);
      }),
    );
  });
  it('without a conflict both orders give the same things', () => {
    const sorted = (v: Json): Json =>
      Array.isArray(v)
        ? [...v].map(sorted).sort((p, q) => (JSON.stringify(p) < JSON.stringify(q) ? -1 : 1))
        : typeof v === 'object' && v !== null
          ? Object.fromEntries(Object.entries(v).map(([k, x]) => [k, sorted(x as Json)]))
          : v;
    fc.assert(
      fc.property(thing, thing, thing, (start, x, y) => {
        const [one, two] = [mergeChanges(start, x, y), mergeChanges(start, y, x)];
        if (one.conflicts.length > 0) return;
        expect(sameJson(sorted(one.value), sorted(two.value))).toBe(true);
      }),
    );
  });
});
