// A bench written into one file, the browser's data gone, and brought back; and files that aren't one.
import '../testing/browserGlobals';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { beforeEach, describe, expect, it } from 'vitest';
import type { PanelId, TreatmentId, TrialId } from '~core/model/ids';
import { entry, harvest, plan, product } from '~core/testing/trial';
import { readingsSha256 } from '~core/series/readingsHash';
import { onBench } from '../testing/browserGlobals';
import { readBackup, writeBackup } from './backup';
import { bench } from './bench';
import { BIN_DAYS, listBin, purgeBin, purgeOld } from './bin';
import { putBlob, putSeries } from '../testing/bulk';
import { getBlob, readSeries } from './bulk';
import { keepPanelKey, panelKeyOf } from './panelKeys';
import { forget } from './trialMemory';
import { listProducts, saveProduct } from './products';
import { appendEntries, createTrial, deleteTrial, wholeTrial } from './trials';
import { unsavedSince } from './unsaved';

onBench('own');
const id = 'kept' as TrialId;
const picture = Uint8Array.from({ length: 5000 }, (_, i) => (i * 7) % 256);
const panelKey = {
  sessionId: 'p1' as PanelId,
  samples: [{ treatmentId: 'A' as TreatmentId, unitIds: ['A-0'], photo: null }],
  cups: [{ code: '314', sample: 0 }],
  salt: 'x'.repeat(32),
} as never;

async function empty() {
  const db = await bench();
  for (const table of db.tables) await table.clear();
  for (const t of ['kept', 'other']) (await import('./trialMemory')).forget(t);
}

async function fill(): Promise<string> {
  const hash = await putBlob(id, picture, 'image/png');
  const times = Float64Array.from([0, 60_000, 120_000]);
  await putSeries(id, 's1', { times, columns: [Float64Array.from([20, 21, 22])] });
  const p = { ...plan({ treatments: ['Water', 'A'] }), id, blinding: 'scorer' as const };
  await createTrial(
    p,
    undefined,
    [
      ...harvest({ Water: [50, 51, 52], A: [60, 61, 62] }),
      entry({ kind: 'photo', unitId: p.units[0]!.id, file: 'x.png', caption: '', sha256: hash }, 'photo'),
      entry(
        {
          kind: 'series',
          seriesId: 's1',
          name: 'shelf logger',
          unitId: null,
          treatmentId: null,
          columns: [{ name: 'temperature', unit: '°C' }],
          from: '1970-01-01T00:00:00Z',
          to: '1970-01-01T00:02:00Z',
          rows: 3,
          sha256: readingsSha256(times, [Float64Array.from([20, 21, 22])]),
        },
        'series',
      ), // prettier-ignore
    ],
    { order: p.treatments.map((t) => t.id as TreatmentId) },
  );
  await saveProduct(product());
  await keepPanelKey(id, panelKey);
  return hash;
}

beforeEach(empty);

describe('a backup', () => {
  it('brings everything back after the browser’s data were cleared, and the keys when they went along', async () => {
    const hash = await fill();
    const [before, products] = [await wholeTrial(id), await listProducts()];
    const file = (await writeBackup({ withKeys: true })).blob!;
    await empty();
    const read = await readBackup(file);
    if (!read.ok) throw new Error(read.error);
    expect(read.value.trials).toEqual([
      { question: before.plan.question, code: 'TST', what: { tag: 'new' } },
    ]);
    expect(read.value).toMatchObject({ products: { added: 1, here: 0 }, photos: 1, withKeys: true });
    // Looked at, nothing is changed.
    expect(await (await bench()).trials.count()).toBe(0);
    expect(await read.value.apply()).toEqual({ brokenPhotos: 0, failed: [], waiting: 0 });
    expect(await wholeTrial(id)).toEqual(before);
    expect(await listProducts()).toEqual(products);
    expect(await getBlob(hash)).toMatchObject({ bytes: picture, type: 'image/png' });
    expect([...(await readSeries('s1', -Infinity, Infinity)).columns[0]!]).toEqual([20, 21, 22]);
    expect(await panelKeyOf(id, 'p1')).toEqual(panelKey);
  });
  it('without keys holds no key, and blind trials come back blind', async () => {
    await fill();
    const file = (await writeBackup({ withKeys: false })).blob!;
    expect(await file.text()).not.toContain('keys.json');
    await empty();
    const read = await readBackup(file);
    if (read.ok) await read.value.apply();
    expect((await wholeTrial(id)).key).toBeNull();
    expect(await panelKeyOf(id, 'p1')).toBeUndefined();
  });
  it('is united with what came since: lines here stay, lines there are added, nothing is overwritten', async () => {
    await fill();
    const file = (await writeBackup({ withKeys: false })).blob!;
    await appendEntries(id, [{ kind: 'note', unitId: null, text: 'later' } as never]);
    const now = await wholeTrial(id);
    const read = await readBackup(file);
    if (!read.ok) throw new Error(read.error);
    expect(read.value.trials[0]!.what).toEqual({ tag: 'same' });
    await read.value.apply();
    expect(await wholeTrial(id)).toEqual(now);
  });
  it('keeps a panel’s key that is here; a copy beside another plan gets the backup’s', async () => {
    await fill();
    const file = (await writeBackup({ withKeys: true })).blob!;
    const db = await bench();
    const row = (await db.trials.get(id))!;
    await db.trials.put({ ...row, plan: { ...row.plan, question: 'Another plan?' } });
    forget(id);
    const own = { ...(panelKey as object), salt: 'another' };
    await db.panelKeys.put({ trialId: id, sessionId: 'p1', key: own as never });
    const read = await readBackup(file);
    if (!read.ok) throw new Error(read.error);
    await read.value.apply();
    expect(await panelKeyOf(id, 'p1')).toMatchObject({ salt: 'another' });
    const copy = (await db.trials.toArray()).find((t) => t.id !== id)!;
    expect(await panelKeyOf(copy.id, 'p1')).toEqual(panelKey);
  });
  it('knows what isn’t in it yet', async () => {
    expect(await unsavedSince()).toEqual({ at: null, trials: 0 });
    await fill();
    await writeBackup({ withKeys: false });
    expect((await unsavedSince()).trials).toBe(0);
    await appendEntries(id, [{ kind: 'note', unitId: null, text: 'later' } as never]);
    expect((await unsavedSince()).trials).toBe(1);
  });
  it('a picture whose bytes were changed is left out and counted', async () => {
    const hash = await fill();
    const bytes = new Uint8Array(await (await writeBackup({ withKeys: false })).blob!.arrayBuffer());
    const at = bytes.findIndex((_, i) => picture.slice(0, 64).every((b, j) => bytes[i + j] === b));
    bytes[at + 3] = bytes[at + 3]! ^ 255;
    await empty();
    const read = await readBackup(new Blob([bytes]));
    if (!read.ok) throw new Error(read.error);
    expect(await read.value.apply()).toMatchObject({ brokenPhotos: 1, failed: [] });
    expect(await getBlob(hash)).toBeUndefined();
  });
});

describe('what isn’t a backup', () => {
  const about = JSON.stringify({ palazzo: 'backup', version: 1, madeAt: '2026-01-01', withKeys: false });
  const zip = (files: Record<string, string | Uint8Array>) =>
    new Blob([
      zipSync(
        Object.fromEntries(
          Object.entries(files).map(([n, f]) => [n, typeof f === 'string' ? strToU8(f) : f]),
        ),
      ) as Uint8Array<ArrayBuffer>,
    ]);
  it.each([
    ['words', new Blob(['hello']), /isn’t a zip/],
    ['another zip', zip({ 'a.txt': 'x' }), /no backup\.json/],
    ['an exported trial', zip({ 'plan.json': '{}', 'log.json': '[]' }), /one exported trial/],
    ['a newer one', zip({ 'backup.json': about.replace('1,', '9,') }), /newer Palazzo/],
    ['a head of another kind', zip({ 'backup.json': '[]' }), /can’t be read/],
    ['a head that isn’t JSON', zip({ 'backup.json': '{' }), /can’t be read/],
  ])('%s is said so, and nothing is changed', async (_, file, said) => {
    const read = await readBackup(file);
    expect(read.ok ? '' : read.error).toMatch(said);
    expect(await (await bench()).trials.count()).toBe(0);
  });
  it('a part that can’t be read is named, and costs the others nothing', async () => {
    await fill();
    const whole = new Uint8Array(await (await writeBackup({ withKeys: false })).blob!.arrayBuffer());
    const files = unzipSync(whole);
    const damaged = { ...files, 'trials/x.zip': strToU8('nothing'), 'library.json': strToU8('[') };
    await empty();
    const read = await readBackup(new Blob([zipSync(damaged) as Uint8Array<ArrayBuffer>]));
    if (!read.ok) throw new Error(read.error);
    expect(read.value.unread.map((u) => u.filename)).toEqual(['library.json', 'trials/x.zip']);
    await read.value.apply();
    expect((await wholeTrial(id)).log).toHaveLength(8);
  });
  it('readings that can’t be read are said so, and the trial comes without them', async () => {
    await fill();
    const whole = new Uint8Array(await (await writeBackup({ withKeys: false })).blob!.arrayBuffer());
    const files = unzipSync(whole);
    const trial = unzipSync(files[`trials/${id}.zip`]!);
    files[`trials/${id}.zip`] = zipSync({
      ...trial,
      'series/s1.csv': strToU8('time,temperature\n1970-01-01T00:00,99\n'),
    });
    await empty();
    const read = await readBackup(new Blob([zipSync(files) as Uint8Array<ArrayBuffer>]));
    if (!read.ok) throw new Error(read.error);
    const { failed } = await read.value.apply();
    expect(failed).toEqual([{ filename: 'readings of “Is it worth it?”', why: expect.any(String) }]);
    expect((await wholeTrial(id)).log).toHaveLength(8);
    expect((await readSeries('s1', -Infinity, Infinity)).times).toHaveLength(0);
  });
  it('a trial that can’t be read back isn’t said to be saved, and the others are', async () => {
    await fill();
    const other = { ...plan(), id: 'other' as TrialId, code: 'OTH' };
    await createTrial(other);
    const db = await bench();
    const row = (await db.trials.get('other'))!;
    // As a fault of another build or a disk would leave it.
    await db.trials.put({ ...row, plan: { ...row.plan, startDate: 'tomorrow' } });
    forget('other');
    const { blob, faults } = await writeBackup({ withKeys: false });
    expect(faults).toEqual([{ filename: '“Is it worth it?”', why: expect.any(String) }]);
    expect((await unsavedSince()).trials).toBe(1);
    await empty();
    const read = await readBackup(blob!);
    if (!read.ok) throw new Error(read.error);
    await read.value.apply();
    expect((await wholeTrial(id)).log).toHaveLength(8);
  });
  it('one that was cut off', async () => {
    await fill();
    const whole = (await writeBackup({ withKeys: false })).blob!;
    const read = await readBackup(whole.slice(0, whole.size - 200));
    expect(read.ok).toBe(false);
  });
});

describe('the bin', () => {
  it('keeps pictures, readings and panel keys as long as the trial can be brought back, and no longer', async () => {
    const hash = await fill();
    await deleteTrial(id);
    expect(await purgeOld()).toBe(0);
    expect(await getBlob(hash)).toBeDefined();
    expect(await purgeOld(new Date(Date.now() + (BIN_DAYS + 1) * 86_400_000))).toBe(1);
    expect(await listBin()).toEqual([]);
    expect(await getBlob(hash)).toBeUndefined();
    expect((await readSeries('s1', -Infinity, Infinity)).times).toHaveLength(0);
    expect(await panelKeyOf(id, 'p1')).toBeUndefined();
  });
  it('a picture that another trial names too stays', async () => {
    const hash = await fill();
    const other = { ...plan(), id: 'other' as TrialId, code: 'OTH' };
    await createTrial(other, undefined, [
      entry({ kind: 'photo', unitId: null, file: 'x.png', caption: '', sha256: hash }, 'photo2'),
    ]);
    await deleteTrial(id);
    await purgeBin('9999');
    expect(await getBlob(hash)).toBeDefined();
  });
});
