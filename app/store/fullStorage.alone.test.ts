// Storage full at every single write of every kind of work: what was kept stays, nothing is half, and what is tried again
// when there is room comes out as if nothing had been.
import '../testing/browserGlobals';
import { beforeEach, describe, expect, it } from 'vitest';
import type { TrialId } from '~core/model/ids';
import { entry, height, plan, product, trialOf, unitId } from '~core/testing/trial';
import { onBench } from '../testing/browserGlobals';
import { bench, deviceId } from './bench';
import { listBin, restore } from './bin';
import { keepClash, settleClash } from './clashes';
import { openConflicts, settleConflict } from './conflicts';
import { sayStorageFault } from './errors';
import { saveProduct } from './products';
import { aFile, takeIn, takeInAsCopy } from './takeIn';
import { forget } from './trialMemory';
import { appendEntries, createTrial, deleteTrial, savePlan, sealPlan, wholeTrial } from './trials';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';

onBench('own');
const id = 'full' as TrialId;
const p = { ...plan({ treatments: ['Water', 'A'], replicates: 2 }), id };
const photo = Uint8Array.from({ length: 400 }, (_, i) => i % 251);
const hash = bytesToHex(sha256(photo));
const taken = { kind: 'photo' as const, unitId: unitId('A', 0), file: 'a.jpg', sha256: hash, caption: '' };
const bulk = { photos: [{ sha256: hash, type: 'image/jpeg', bytes: photo }], series: [] };

/** All that the bench holds, as it can be compared. */
async function held(): Promise<string> {
  const db = await bench();
  const plain = (value: unknown) =>
    // Moments, drawn ids and counts of the database differ from one go to the next.
    JSON.stringify(value, (k, v: unknown) =>
      /^(id|at|recordedAt|createdAt|deletedAt|supersedes|standsFrom|trialId|salt|seq|device|tab)$/.test(k)
        ? ''
        : v,
    ).replaceAll(/[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f-]{22}|\d{4}-\d\d-\d\dT[\d:.]+Z/g, '');
  const tables = await Promise.all(
    db.tables.map(async (t) => {
      const rows = (await t.toArray()).filter((r: { key?: string }) => r.key !== 'device');
      return `${t.name}: ${rows.map(plain).sort().join('\n')}`;
    }),
  );
  return tables.join('\n');
}

/** Lets the n-th write fail as a full disk does. @returns how many writes there were, and a function that ends it */
function fullAt(n: number): { writes: () => number; end: () => void } {
  let count = 0;
  const real = { put: IDBObjectStore.prototype.put, add: IDBObjectStore.prototype.add };
  const failing = (run: typeof real.put) =>
    function (this: IDBObjectStore, ...args: Parameters<typeof real.put>) {
      count += 1;
      if (count === n) throw new DOMException('full', 'QuotaExceededError');
      return run.apply(this, args);
    };
  IDBObjectStore.prototype.put = failing(real.put);
  IDBObjectStore.prototype.add = failing(real.add);
  return {
    writes: () => count,
    end: () => Object.assign(IDBObjectStore.prototype, real),
  };
}

const value = (n: number) => height(unitId('A', n % 2), 5 + n);
const [foreignLine, photoLine, peep] = [
  entry(height(unitId('Water', 0), 3), 'foreign'),
  entry(taken, 'photo'),
  entry({ kind: 'reveal', reason: '' }, 'peep'),
];
const foreign = () => trialOf(p, [foreignLine, photoLine]);
const forged = () => trialOf(p, [peep]);
const other = { ...p, prediction: 'Another.' };

/** Each kind of work: what stands before it, and the work. */
const works: [string, () => Promise<unknown>, () => Promise<unknown>][] = [
  ['a value', async () => {}, () => appendEntries(id, [value(0)])],
  ['pasted values', async () => {}, () => appendEntries(id, [0, 1, 2, 3, 4].map(value))],
  ['a photo', async () => {}, () => appendEntries(id, [taken], undefined, bulk)],
  ['a plan', async () => {}, () => savePlan(id, (x) => ({ ...x, prediction: 'More.' }))],
  ['a seal', async () => {}, () => sealPlan(id)],
  ['a new trial', async () => {}, () => createTrial({ ...p, id: 'second' as TrialId })],
  ['a product', async () => {}, () => saveProduct(product())],
  ['a file', () => deleteTrial(id), () => takeIn(foreign(), { ...aFile, bulk })],
  ['a file of a trial that is here', async () => {}, () => takeIn(foreign(), { ...aFile, bulk })],
  ['a file with what waits', async () => {}, () => takeIn(forged(), aFile)],
  ['a word on what waits', () => takeIn(forged(), aFile), async () => {
    for (const c of await openConflicts(id)) await settleConflict(id, c.id, c.sha256, 'taken');
  }],
  ['a copy beside', async () => {}, () => takeInAsCopy(foreign(), bulk)],
  ['into the bin', async () => {}, () => deleteTrial(id)],
  ['out of the bin', () => deleteTrial(id), async () => {
    for (const row of await listBin()) await restore(row.id);
  }],
  ['another plan kept beside', async () => {}, () => keepClash(trialOf(other, []), 'the file')],
  ['another plan taken', () => keepClash(trialOf(other, []), 'the file'), () => settleClash(id, 'theirs')],
]; // prettier-ignore

beforeEach(async () => {
  const db = await bench();
  for (const table of db.tables) await table.clear();
  for (const t of [id, 'second']) forget(t);
  await deviceId();
  await createTrial(p);
  await appendEntries(id, [height(unitId('Water', 1), 1)]);
});

describe('the storage is full', () => {
  it.each(works)('%s: at each write', async (_, before, work) => {
    await before();
    const start = await held();
    // How it comes out where there is room, and how many writes that takes.
    const counted = fullAt(0);
    await work();
    counted.end();
    const writes = counted.writes();
    expect(writes).toBeGreaterThan(0);
    const whole = await held();
    for (let n = 1; n <= writes; n++) {
      const db = await bench();
      for (const table of db.tables) await table.clear();
      for (const t of [id, 'second']) forget(t);
      await createTrial(p);
      await appendEntries(id, [height(unitId('Water', 1), 1)]);
      await before();
      const failing = fullAt(n);
      const fault = await work().then(
        () => null,
        (e: unknown) => e,
      );
      failing.end();
      expect(fault, `write ${n} of ${writes}`).not.toBeNull();
      expect(sayStorageFault(fault)).toContain('storage is full');
      expect(await held(), `after write ${n} of ${writes} failed`).toBe(start);
      await work();
      expect(await held(), `again after write ${n}`).toBe(whole);
    }
    // What was there before is there still.
    if ((await (await bench()).trials.get(id)) !== undefined)
      expect((await wholeTrial(id)).log.length).toBeGreaterThan(0);
  });
});
