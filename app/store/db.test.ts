import '../testing/browserGlobals';
import Dexie from 'dexie';
import { expect, it } from 'vitest';
import { analysis, plan, product, use } from '~core/testing/trial';
import { planAsVersion2, productAsVersion1 } from '~core/testing/olderFiles';
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
