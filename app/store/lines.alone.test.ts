import '../testing/browserGlobals';
import fc from 'fast-check';
import { beforeEach, expect, it } from 'vitest';
import type { Entry } from '~core/log/entry';
import { entry } from '~core/testing/trial';
import { BenchDb } from './db';
import { addLines, allLines, dropLines, joinRows, linesSince } from './lines';

let db: BenchDb;
let n = 0;
beforeEach(async () => {
  db = new BenchDb(`lines-${n++}` as never);
  await db.open();
});

const line = (id: string): Entry => entry({ kind: 'note', unitId: null, text: id }, id);
const idsOf = (lines: readonly Entry[]) => lines.map((l) => l.id as string).sort();

it('lines come back as they were written, however many were written at once', async () => {
  const many = Array.from({ length: 4_500 }, (_, i) => line(`m${i}`));
  await addLines(db, 'a', 1, many);
  await addLines(db, 'a', 2, [line('one')]);
  await addLines(db, 'b', 1, [line('other')]);
  const all = await allLines(db, 'a');
  expect(all).toHaveLength(4_501);
  expect(all.find((l) => l.id === 'm4321')).toEqual(many[4321]);
  expect(idsOf(await linesSince(db, 'a', 1))).toEqual(['one']);
  expect(idsOf(await allLines(db, 'b'))).toEqual(['other']);
  expect(await dropLines(db, 'a')).toHaveLength(4_501);
  expect(await allLines(db, 'a')).toEqual([]);
  expect(idsOf(await allLines(db, 'b'))).toEqual(['other']);
});

it('a line that is there already isn’t written again: the change fails whole', async () => {
  await addLines(db, 'a', 1, [line('x')]);
  await expect(addLines(db, 'a', 2, [line('x')])).rejects.toThrow();
});

it('joined rows hold the same lines, and who knows an earlier change misses none of later ones', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 1_001, maxLength: 1_200 }),
      fc.integer({ min: 0, max: 1_200 }),
      async (sizes, known) => {
        await db.entries.clear();
        const rev = new Map<string, number>();
        const rows = sizes.flatMap((size, r) => {
          const own = Array.from({ length: size }, (_, i) => line(`${r}-${i}`));
          for (const l of own) rev.set(l.id, r + 1);
          return [{ trialId: 'a', id: own[0]!.id, rev: r + 1, lines: own }];
        });
        await db.entries.bulkAdd(rows);
        const before = idsOf(await allLines(db, 'a'));
        await joinRows(db, 'a');
        expect(await db.entries.count()).toBeLessThan(10);
        expect(idsOf(await allLines(db, 'a'))).toEqual(before);
        const since = new Set(idsOf(await linesSince(db, 'a', known)));
        for (const [id, at] of rev) if (at > known) expect(since.has(id)).toBe(true);
      },
    ),
    { numRuns: 5 },
  );
});
