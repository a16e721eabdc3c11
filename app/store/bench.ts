import Dexie from 'dexie';
import { demoInWorker } from '../workers/demo';
import { randomHex } from './chance';
import { chunksOf } from './chunks';
import { BenchDb, type BenchName, DATABASE_VERSION } from './db';
import { BenchHeldError, NewerBenchError } from './errors';
import { addLines } from './lines';

const KEY = 'palazzo-bench';
const open = new Map<BenchName, Promise<BenchDb>>();

/** The bench this tab works on: what was chosen here, else what the server was started for. */
export function benchName(): BenchName {
  const chosen = sessionStorage.getItem(KEY);
  if (chosen === 'demo' || chosen === 'own') return chosen;
  const served = document.querySelector('meta[name="palazzo-bench"]')?.getAttribute('content');
  return served === 'demo' ? 'demo' : 'own';
}

/** Switches this tab to the other bench and starts afresh there. */
export function switchBench(to: BenchName, path = '/'): void {
  chooseBench(to);
  window.location.assign(path);
}

/** The library counts ten of the browser's versions for one of ours. */
const VERSIONS_OF_DEXIE = 10;

/**
 * The version of a database as it lies there; 0 when there is none. It is looked at before it is opened as ours: the
 * library would otherwise fit a newer one to this build.
 */
async function versionOf(name: string): Promise<number> {
  // Said by the browser at once, where it does; an opening only to look costs as much as the one that counts.
  if ('databases' in indexedDB) {
    const there = (await indexedDB.databases()).find((d) => d.name === name);
    return (there?.version ?? 0) / VERSIONS_OF_DEXIE;
  }
  if (!(await Dexie.exists(name))) return 0;
  const there = new Dexie(name);
  await there.open();
  const { verno } = there;
  there.close();
  return verno;
}

const demo = () => demoInWorker(new Date());
/** Set once this browser has the demo: a hint only, the database is asked. */
const HAS_DEMO = 'palazzo-has-demo';

function noteDemo(): void {
  try {
    localStorage.setItem(HAS_DEMO, 'yes');
  } catch {
    // No room for it: the demo is made in vain once more.
  }
}

async function openBench(name: BenchName): Promise<BenchDb> {
  // Made while the database is opened.
  const fresh = name === 'demo' && !localStorage.getItem(HAS_DEMO) ? demo() : null;
  fresh?.catch(() => undefined);
  const version = await versionOf(`palazzo-${name}`);
  if (version > DATABASE_VERSION) throw new NewerBenchError();
  const db = new BenchDb(name);
  // An older tab that holds the database keeps an upgrade waiting for ever: say so instead.
  const held = new Promise<never>((_, reject) => {
    db.on('blocked', () => reject(new BenchHeldError()));
  });
  await Promise.race([db.open(), held]);
  // A newer build that wants to bring the database up to date isn't kept waiting by this tab.
  db.on('versionchange', () => db.close());
  if (name === 'demo' && !(await db.settings.get('seeded'))) await seedDemo(db, fresh ?? demo());
  if (fresh) noteDemo();
  return db;
}

/** Everything but the settings. */
const contents = (db: BenchDb) => db.tables.filter((t) => t.name !== 'settings');

async function seedDemo(db: BenchDb, made: ReturnType<typeof demo>): Promise<void> {
  const bench = await made;
  await db.transaction('rw', db.tables, async () => {
    // Two tabs that open the demo for the first time at once make it once.
    for (const table of contents(db)) await table.clear();
    await db.products.bulkPut(bench.products);
    for (const { plan, log, review, key, sealedAs } of bench.trials) {
      if (key) await db.keys.put({ trialId: plan.id, key });
      await db.trials.put({
        id: plan.id,
        plan,
        review,
        createdAt: `${plan.startDate}T08:00:00Z`,
        sealedAs,
      });
      await db.heads.put({ id: plan.id, rev: 1, planRev: 1 });
      await addLines(db, plan.id, 1, log);
    }
    await db.blobs.bulkPut(
      bench.photos.map(({ trialId, photo }) => ({ ...photo, trialId, type: 'image/png' })),
    );
    await db.panelKeys.bulkPut(
      bench.panelKeys.map(({ trialId, key }) => ({ trialId, sessionId: key.sessionId, key })),
    );
    for (const { trialId, series } of bench.series) {
      await db.series.bulkPut(chunksOf(trialId, series.body.seriesId, series));
    }
    await db.settings.put({ key: 'seeded', value: new Date().toISOString() });
  });
}

/** The open database of this tab's bench; the demo is made on its first opening. */
export function bench(): Promise<BenchDb> {
  const name = benchName();
  let db = open.get(name);
  if (!db) {
    db = openBench(name);
    open.set(name, db);
    // A failed opening is tried again at the next need.
    db.catch(() => open.delete(name));
  }
  return db;
}

/** The other bench, where it holds a trial that this one doesn't: a link may come from there. */
export async function benchHolding(trialId: string): Promise<BenchName | null> {
  const other: BenchName = benchName() === 'demo' ? 'own' : 'demo';
  const version = await versionOf(`palazzo-${other}`);
  if (version === 0 || version > DATABASE_VERSION) return null;
  const db = new BenchDb(other);
  try {
    return (await db.trials.get(trialId)) ? other : null;
  } finally {
    db.close();
  }
}

/** Makes this tab's next page open on a bench. */
export const chooseBench = (to: BenchName): void => sessionStorage.setItem(KEY, to);

/** Makes the demo bench anew. @returns a function that brings back what was there */
export async function resetDemo(): Promise<() => Promise<void>> {
  const db = await bench();
  if (benchName() !== 'demo') throw new Error('Only the demo bench can be reset.');
  const before = await Promise.all(contents(db).map(async (t) => [t.name, await t.toArray()] as const));
  await seedDemo(db, demo());
  await afresh(db);
  return async () => {
    await db.transaction('rw', db.tables, async () => {
      for (const [name, rows] of before) {
        await db.table(name).clear();
        await db.table(name).bulkPut(rows);
      }
    });
    await afresh(db);
  };
}

/** Moves every head on, so that what any tab holds in memory of an earlier bench is read again. */
async function afresh(db: BenchDb): Promise<void> {
  const stamp = Date.now();
  await db.heads.toCollection().modify((h) => {
    h.rev += stamp;
    h.planRev = h.rev;
  });
}

const setting = async (key: string): Promise<string | undefined> =>
  (await (await bench()).settings.get(key))?.value;

/** Who writes the log on this device. */
export const recorder = async (): Promise<string> => (await setting('recorder')) ?? '';

export async function setRecorder(name: string): Promise<void> {
  await (await bench()).settings.put({ key: 'recorder', value: name });
}

const devices = new Map<BenchName, Promise<string>>();

/** This device's name in the log's logical clock: made once for each bench, and never changed. */
export function deviceId(): Promise<string> {
  const name = benchName();
  let id = devices.get(name);
  if (!id) {
    id = readDevice();
    devices.set(name, id);
    id.catch(() => devices.delete(name));
  }
  return id;
}

async function readDevice(): Promise<string> {
  const db = await bench();
  return db.transaction('rw', db.settings, async () => {
    const known = await db.settings.get('device');
    if (known) return known.value;
    const value = randomHex(4);
    await db.settings.put({ key: 'device', value });
    return value;
  });
}
