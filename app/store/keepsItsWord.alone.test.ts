// What the store promises: nothing overwritten, nothing lost, nothing confirmed that isn't there.
import '../testing/browserGlobals';
import Dexie from 'dexie';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { exportTrial, importTrial } from '~core/formats/dataPackage';
import { localDay } from '~core/log/localDay';
import type { Trial } from '~core/log/trial';
import type { TrialId } from '~core/model/ids';
import { readingsSha256 } from '~core/series/readingsHash';
import { readSeries } from './bulk';
import { aFile } from './takeIn';
import { entry, height, plan, trialOf, unitId } from '~core/testing/trial';
import { onBench } from '../testing/browserGlobals';
import { type Tab, openTab } from '../testing/tabs';

onBench('own');
const store: Tab = await openTab('only');
const unit = unitId('A', 0);
let n = 0;
let id: TrialId;

beforeEach(async () => {
  n += 1;
  id = `word-${n}` as TrialId;
  await store.createTrial({ ...plan(), id });
});
afterEach(() => {
  vi.useRealTimers();
});

const state = async () => (await store.loadTrial(id)).state;
const fileOf = async (): Promise<Trial> => {
  const read = importTrial(exportTrial(await store.wholeTrial(id)));
  if (!read.ok) throw new Error(read.error.tag);
  return read.value;
};

describe('clocks', () => {
  it('set back an hour: corrections 12 and 13 after 11 stand, as they were confirmed', async () => {
    // The clock alone is faked: the database's own timers go on.
    vi.useFakeTimers({ toFake: ['Date'], now: new Date('2026-03-29T10:00:00Z') });
    await store.logAction(id, { body: height(unit, 11) });
    vi.setSystemTime(new Date('2026-03-29T09:00:00Z'));
    await store.logAction(id, { body: height(unit, 12) });
    await store.logAction(id, { body: height(unit, 13) });
    expect((await state()).observations).toMatchObject([
      { value: 13, earlier: [{ value: 11 }, { value: 12 }] },
    ]);
  });

  it('a device whose clock runs a year ahead doesn’t win against what was corrected after it', async () => {
    vi.useFakeTimers({ toFake: ['Date'], now: new Date('2027-03-01T10:00:00Z') });
    await store.logAction(id, { body: height(unit, 11) });
    vi.setSystemTime(new Date('2026-03-01T10:00:00Z'));
    await store.logAction(id, { body: height(unit, 12) });
    expect((await state()).observations[0]).toMatchObject({ value: 12 });
  });

  it('a line keeps how far local time was from UTC: half past six in the evening isn’t tomorrow', async () => {
    const offset = vi.spyOn(Date.prototype, 'getTimezoneOffset').mockReturnValue(480);
    vi.useFakeTimers({ toFake: ['Date'], now: new Date('2026-03-02T02:30:00Z') });
    await store.appendEntries(id, [height(unit, 5)]);
    offset.mockRestore();
    const [line] = (await store.loadTrial(id)).log;
    expect(line).toMatchObject({ at: '2026-03-02T02:30:00.000Z', offsetMin: -480 });
    expect(localDay(line!)).toBe('2026-03-01');
  });
});

describe('a value entered again', () => {
  it('the same is no correction', async () => {
    await store.logAction(id, { body: height(unit, 11) });
    await store.logAction(id, { body: height(unit, 11) });
    expect((await state()).log).toHaveLength(1);
  });
  it('corrects the line the standing value comes from, so that the chain tells the order', async () => {
    for (const v of [11, 12, 13]) await store.logAction(id, { body: height(unit, v) });
    const { log } = await state();
    const [first, second, third] = log;
    expect(second).toMatchObject({ kind: 'correction', supersedes: first!.id });
    expect(third).toMatchObject({ kind: 'correction', supersedes: second!.id });
  });
});

describe('files', () => {
  it('a line with a known id and another value is kept beside: 50 stays 50, and the log shows both', async () => {
    const [line] = ((await store.appendEntries(id, [height(unit, 50)])) as { value: { id: string }[] }).value;
    const file = await fileOf();
    file.log[0] = { ...file.log[0]!, value: 10.5 } as never;
    const taken = await store.takeIn(file, aFile);
    expect(taken).toMatchObject({
      ok: true,
      value: { outcome: { tag: 'merged', newEntries: 0, conflicts: 1 } },
    });
    expect((await state()).observations[0]).toMatchObject({ value: 50 });
    // once more is no second conflict
    await store.takeIn(file, aFile);
    const open = await store.openConflicts(id);
    expect(open).toMatchObject([{ id: line!.id, other: { value: 10.5 }, settled: null }]);
    // both travel with the file
    expect((await fileOf()).conflicts).toMatchObject([{ other: { value: 10.5 } }]);
    // taking the other's word is a correction; the line keeps its bytes
    await store.settleConflict(id, open[0]!.id, open[0]!.sha256, 'taken');
    expect((await state()).observations[0]).toMatchObject({ value: 10.5, earlier: [{ value: 50 }] });
    expect((await state()).log[0]).toMatchObject({ value: 50 });
    expect(await store.openConflicts(id)).toEqual([]);
  });

  const readings = (...values: number[]) => ({
    times: Float64Array.from(values, (_, i) => i * 60_000),
    columns: [Float64Array.from(values)],
  });
  const seriesLine = (of: ReturnType<typeof readings>) => ({
    kind: 'series' as const,
    ...{ seriesId: `s-${n}`, name: 'Tent', unitId: null, treatmentId: null, rows: of.times.length },
    columns: [{ name: 'temperature', unit: '°C' }],
    ...{ from: '1970-01-01T00:00:00Z', to: '1970-01-01T00:02:00Z' },
    sha256: readingsSha256(of.times, of.columns),
  });
  const kept = async () => [
    ...(await readSeries(`s-${n}`, -Infinity, Infinity)).columns.flatMap((c) => [...c]),
  ];

  it('readings go with their lines: none that the log doesn’t name, none over ours, none of another plan', async () => {
    const [own, altered] = [readings(20, 21, 22), readings(30, 31, 32)];
    await store.appendEntries(id, [seriesLine(own)]);
    const file = await fileOf();
    const bring = (of: typeof own) => ({ photos: [], series: [{ seriesId: `s-${n}`, ...of }] });
    await store.takeIn(file, { ...aFile, bulk: bring(altered) });
    expect(await kept()).toEqual([]);
    // A plan that isn’t ours: nothing is changed, its readings don’t come either.
    const other = { ...file, plan: { ...file.plan, prediction: 'Another.' } };
    expect((await store.takeIn(other, { ...aFile, bulk: bring(own) })).ok).toBe(false);
    expect(await kept()).toEqual([]);
    await store.takeIn(file, { ...aFile, bulk: bring(own) });
    expect(await kept()).toEqual([20, 21, 22]);
    // A stranger’s trial that names the same series doesn’t take it over.
    const stranger = trialOf({ ...plan(), id: `stranger-${n}` as TrialId }, [entry(seriesLine(altered))]);
    await store.takeIn(stranger, { ...aFile, bulk: bring(altered) });
    expect(await kept()).toEqual([20, 21, 22]);
  });

  it('a line that claims to be the 2^53rd is refused in words: later ones would all be ties', async () => {
    const file = await fileOf();
    const line = { ...entry(height(unit, 5)), counter: Number.MAX_SAFE_INTEGER };
    const taken = await store.takeIn({ ...file, log: [line] }, aFile);
    expect(taken).toMatchObject({
      ok: false,
      error: { tag: 'unsound', why: expect.stringMatching(/^line 1 /) },
    });
    expect((await state()).log).toEqual([]);
  });

  it('of two plans theirs is chosen: its lines come, and what says something else than ours is asked about', async () => {
    await store.appendEntries(id, [height(unit, 50)]);
    const file = await fileOf();
    file.log[0] = { ...file.log[0]!, value: 10.5 } as never;
    const theirs = { ...file, plan: { ...file.plan, prediction: 'Theirs.' } };
    expect((await store.takeIn(theirs, aFile)).ok).toBe(false);
    await store.keepClash(theirs, 'the file');
    expect(await store.settleClash(id, 'theirs')).toMatchObject({ ok: true });
    expect((await store.loadTrial(id)).row.plan.prediction).toBe('Theirs.');
    expect((await state()).observations[0]).toMatchObject({ value: 50 });
    expect(await store.openConflicts(id)).toMatchObject([{ other: { value: 10.5 }, settled: null }]);
  });

  it('a chain of 10,000 corrections is taken in, and the trial opens', async () => {
    const trial = `chain-${n}` as TrialId;
    const chain = Array.from({ length: 10_000 }, (_, i) =>
      entry(
        {
          kind: 'correction',
          supersedes: i === 0 ? 'root' : `k${i - 1}`,
          replacement: height(unit, i),
          reason: '',
        },
        `k${i}`,
      ),
    );
    await store.takeIn(
      trialOf({ ...plan(), id: trial }, [entry(height(unit, 1), 'root', 0), ...chain]),
      aFile,
    );
    expect((await store.loadTrial(trial)).state.observations[0]).toMatchObject({ value: 9999 });
  });

  it('a plan changed in the file after its seal is said, and never mended', async () => {
    await store.sealPlan(id);
    const file = await fileOf();
    await store.deleteTrial(id);
    const taken = await store.takeIn(
      { ...file, plan: { ...file.plan, prediction: 'I always knew.' } },
      aFile,
    );
    expect(taken.ok && taken.value.brokenSeal).toMatch(/isn’t the one that was sealed/);
    expect((await store.loadTrial(id)).row.plan.prediction).toBe('I always knew.');
    const right = await store.takeInAsCopy(file);
    expect((await store.loadTrial(right)).row.plan.prediction).toBe('Yes.');
    expect(store.sealOfFile(file)).toBeNull();
  });

  it('a blind trial whose key was taken out stays blind, and its codes can’t be opened without it', async () => {
    await store.savePlan(id, (x) => ({ ...x, blinding: 'scorer' }));
    await store.sealPlan(id);
    const whole = await fileOf();
    expect(whole.key).not.toBeNull();
    await store.deleteTrial(id);
    await store.takeIn({ ...whole, key: null }, aFile);
    const trial = await store.loadTrial(id);
    expect(trial).toMatchObject({ blind: true, keyMissing: true, key: null });
    expect(trial.shown.plan.treatments.map((t) => t.name)).toEqual(['Code A', 'Code B']);
    const opened = await store.layoutAction(id, { intent: 'reveal' });
    expect(Object.values((opened as { errors: object }).errors)[0]).toMatch(/key isn’t on this bench/);
    // the file that holds the key brings it
    await store.takeIn(whole, aFile);
    expect(await store.loadTrial(id)).toMatchObject({ blind: true, keyMissing: false, key: whole.key });
  });

  it('bringing a trial back from the bin adds to a newer import, and never goes over it', async () => {
    await store.appendEntries(id, [height(unit, 5)]);
    const file = await fileOf();
    await store.appendEntries(id, [height(unitId('A', 1), 6)]);
    await store.deleteTrial(id);
    await store.takeIn(file, aFile);
    await store.appendEntries(id, [height(unitId('A', 2), 7)]);
    expect(await store.bin.restore(id)).toMatch(/was added/);
    expect((await state()).observations.map((o) => o.value).sort()).toEqual([5, 6, 7]);
    expect((await store.bin.listBin()).map((b) => b.id)).not.toContain(id);
  });

  it('… and stands beside one that has another plan by now', async () => {
    const file = await fileOf();
    await store.deleteTrial(id);
    await store.takeIn({ ...file, plan: { ...file.plan, prediction: 'Newer.' } }, aFile);
    expect(await store.bin.restore(id)).toMatch(/beside it as a copy/);
    expect((await store.loadTrial(id)).row.plan.prediction).toBe('Newer.');
    const copies = (await store.listTrials()).filter((t) => t.row.plan.question.endsWith('(copy)'));
    expect(copies.map((t) => t.row.plan.prediction)).toContain('Yes.');
  });
});

describe('what isn’t there', () => {
  it('a value for a trial that was cleared away under the page is refused in words', async () => {
    const db = await store.bench.bench();
    await db.trials.delete(id);
    await db.heads.delete(id);
    const said = await store.logAction(id, { body: height(unit, 5) });
    expect(said).toMatchObject({ errors: { body: expect.stringMatching(/isn’t on this bench any more/) } });
    await expect(store.loadTrial(id)).rejects.toMatchObject({ status: 404 });
  });

  it('a change that fails half-way leaves nothing of itself, in the database or in memory', async () => {
    const db = await store.bench.bench();
    const put = vi.spyOn(db.heads, 'put').mockRejectedValueOnce(new Error('disk full'));
    await expect(store.appendEntries(id, [height(unit, 5)])).rejects.toThrow('disk full');
    put.mockRestore();
    expect((await state()).log).toEqual([]);
    expect(await db.entries.where('trialId').equals(id).count()).toBe(0);
    await store.appendEntries(id, [height(unit, 6)]);
    expect((await state()).observations.map((o) => o.value)).toEqual([6]);
  });
});

it('a database of a newer build isn’t opened, and keeps its fields', async () => {
  const newer = new Dexie('palazzo-demo');
  newer.version(99).stores({ trials: 'id', heads: 'id', settings: 'key', entries: '[trialId+id]' });
  await newer.open();
  await newer.table('trials').put({ id: 'x', plan: { fromTheFuture: true } });
  newer.close();
  onBench('demo');
  await expect(store.listTrials()).rejects.toThrow(/newer Palazzo/);
  onBench('own');
  const again = new Dexie('palazzo-demo');
  await again.open();
  expect(await again.table('trials').get('x')).toEqual({ id: 'x', plan: { fromTheFuture: true } });
  again.close();
});
