import '../testing/browserGlobals';
import Dexie from 'dexie';
import { expect, it } from 'vitest';
import { verifySeal } from '~core/log/verifySeal';
import { sha256Of } from '~core/plan/seal';
import { analysis, entry, plan, product, unitId, use, weighing } from '~core/testing/trial';
import { entryAsVersion3, planAsVersion2, planAsVersion3, productAsVersion1 } from '~core/testing/olderFiles';
import { BenchDb } from './db';

const feed = product({ analysis: analysis({ nPercent: 10, p2o5Percent: 4, k2oPercent: 5 }) });
const base = plan();
const now = {
  ...base,
  products: [feed],
  treatments: base.treatments.map((t) => ({ ...t, products: [use()] })),
};

it('a database of the build before is brought up: plans, products, and what lies in the bin', async () => {
  const old = new Dexie('palazzo-own');
  old.version(2).stores({
    products: 'id',
    trials: 'id',
    entries: '[trialId+id], trialId',
    bin: 'id',
    settings: 'key',
    keys: 'trialId',
  });
  await old.open();
  const row = { id: now.id, plan: planAsVersion2(now), review: {}, createdAt: '' };
  await old.table('trials').put(row);
  await old.table('products').put(productAsVersion1(feed));
  await old.table('bin').bulkPut([
    { id: 'gone', kind: 'product', title: 'Prova', product: productAsVersion1(feed) },
    { id: 'trial', kind: 'trial', title: 'Old', trial: row },
  ]);
  old.close();

  const db = new BenchDb('own');
  await db.open();
  expect((await db.trials.get(now.id))!.plan).toEqual(now);
  expect(await db.products.get(feed.id)).toEqual(feed);
  expect((await db.bin.get('gone'))!.product).toEqual(feed);
  expect((await db.bin.get('trial'))!.trial!.plan).toEqual(now);
  db.close();
});

it('a database of version 3 gets its clocks, heads and the copy its seal is checked by', async () => {
  const name = 'palazzo-demo';
  const old = new Dexie(name);
  old.version(3).stores({
    products: 'id',
    trials: 'id',
    entries: '[trialId+id], trialId',
    bin: 'id',
    settings: 'key',
    keys: 'trialId',
  });
  await old.open();
  const matched = { ...now, matchedOn: 'element' as const };
  const before = planAsVersion3(matched);
  const seal = { kind: 'seal', planSha256: sha256Of(before) };
  const log = [entry(seal, 's'), entry(weighing(unitId('A', 0), 20), 'w')].map(entryAsVersion3);
  await old.table('trials').put({ id: now.id, plan: before, review: {}, createdAt: '' });
  await old.table('entries').bulkPut(log.map((e) => ({ trialId: now.id, id: e.id, entry: e })));
  old.close();

  const db = new BenchDb('demo');
  await db.open();
  const row = (await db.trials.get(now.id))!;
  expect(row.plan).toEqual(matched);
  expect(verifySeal(row.plan, { planSha256: seal.planSha256 }, row.sealedAs)).toEqual({ tag: 'holds' });
  expect(await db.heads.toArray()).toEqual([{ id: now.id, rev: 1, planRev: 1 }]);
  const [row8, ...more] = await db.entries.toArray();
  expect(more).toEqual([]);
  expect(row8!.rev).toBe(1);
  expect(row8!.lines.map((l) => [l.id, l.device, l.counter > 0])).toEqual([
    ['s', '', true],
    ['w', '', true],
  ]);
  expect(row8!.lines[1]).toMatchObject({ sample: null });
  db.close();
});
