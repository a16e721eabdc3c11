import { BenchDb, type BenchName } from './db';

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
export function switchBench(to: BenchName): void {
  sessionStorage.setItem(KEY, to);
  window.location.assign('/');
}

async function openBench(name: BenchName): Promise<BenchDb> {
  const db = new BenchDb(name);
  await db.open();
  if (name === 'demo' && !(await db.settings.get('seeded'))) await seedDemo(db);
  return db;
}

const emptied = (db: BenchDb) =>
  Promise.all([db.products.clear(), db.trials.clear(), db.entries.clear(), db.bin.clear(), db.keys.clear()]);

async function seedDemo(db: BenchDb): Promise<void> {
  const { demoBench } = await import('../demo/demoBench');
  const bench = demoBench(new Date());
  await db.transaction('rw', [db.products, db.trials, db.entries, db.bin, db.keys, db.settings], async () => {
    await emptied(db);
    await db.products.bulkPut(bench.products);
    for (const { plan, log, review, key } of bench.trials) {
      if (key) await db.keys.put({ trialId: plan.id, key });
      await db.trials.put({ id: plan.id, plan, review, createdAt: `${plan.startDate}T08:00:00Z` });
      await db.entries.bulkPut(log.map((entry) => ({ trialId: plan.id, id: entry.id, entry })));
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
  }
  return db;
}

/** Everything on a bench, so that a reset can be taken back. */
async function snapshot(db: BenchDb) {
  const [products, trials, entries, bin, keys] = await Promise.all([
    db.products.toArray(),
    db.trials.toArray(),
    db.entries.toArray(),
    db.bin.toArray(),
    db.keys.toArray(),
  ]);
  return { products, trials, entries, bin, keys };
}

/** Makes the demo bench anew. @returns a function that brings back what was there */
export async function resetDemo(): Promise<() => Promise<void>> {
  const db = await bench();
  if (benchName() !== 'demo') throw new Error('Only the demo bench can be reset.');
  const before = await snapshot(db);
  await seedDemo(db);
  return async () => {
    await db.transaction('rw', [db.products, db.trials, db.entries, db.bin, db.keys], async () => {
      await emptied(db);
      await db.products.bulkPut(before.products);
      await db.trials.bulkPut(before.trials);
      await db.entries.bulkPut(before.entries);
      await db.bin.bulkPut(before.bin);
      await db.keys.bulkPut(before.keys);
    });
  };
}

/** Kept in memory: every entry asks for it. */
const recorders = new Map<BenchName, string>();

/** Who writes the log on this device. */
export async function recorder(): Promise<string> {
  const name = benchName();
  let known = recorders.get(name);
  if (known === undefined) {
    known = (await (await bench()).settings.get('recorder'))?.value ?? '';
    recorders.set(name, known);
  }
  return known;
}

export async function setRecorder(name: string): Promise<void> {
  await (await bench()).settings.put({ key: 'recorder', value: name });
  recorders.set(benchName(), name);
}
