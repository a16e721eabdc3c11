import '../testing/browserGlobals';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { exportTrial, importTrial } from '~core/formats/dataPackage';
import { scorersCopy } from '~core/formats/scorersCopy';
import { emptyReview } from '~core/log/trial';
import type { TrialId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { planSha256 } from '~core/plan/seal';
import { height, plan, product, unitId, use, weighing } from '~core/testing/trial';
import { logLines } from '../rooms/log/logLines';
import { onBench } from '../testing/browserGlobals';
import { bench, recorder, resetDemo, setRecorder } from './bench';
import { listBin, restore } from './bin';
import { deleteProduct, listProducts, saveProduct } from './products';
import { isWaiting, openConflicts, settleConflict } from './conflicts';
import { aFile, takeIn, takeInAsCopy } from './takeIn';
import { perTrial } from './perTrial';
import { forget } from './trialMemory';
import {
  appendEntries,
  createTrial,
  deleteTrial,
  listTrials,
  loadTrial,
  savePlan,
  sealPlan,
  wholeTrial,
} from './trials';
import { undoDepth, undoPlan } from './undo';

let n = 0;
let p: Plan;

beforeEach(async () => {
  onBench('own');
  n += 1;
  p = { ...plan(), id: `trial-${n}` as TrialId };
  await createTrial(p);
});

afterEach(async () => {
  const db = await bench();
  await Promise.all(db.ofTrials.map((t) => t.clear()));
});

describe('the log', () => {
  it('keeps every one of many values that come at once', async () => {
    const values = Array.from({ length: 40 }, (_, i) => i);
    await Promise.all(values.map((v) => appendEntries(p.id, [height(unitId('Water', v % 3), v)])));
    expect((await loadTrial(p.id)).log).toHaveLength(40);
    forget(p.id);
    const { state } = await loadTrial(p.id);
    expect(state.observations.map((o) => o.value).sort((a, b) => a - b)).toEqual(values);
  });

  it('gives the same state from memory as from the database', async () => {
    await appendEntries(p.id, [height(unitId('Water', 0), 5), weighing(unitId('A', 1), 60)]);
    const written = await appendEntries(p.id, [height(unitId('A', 0), 7)]);
    const line = written.ok ? written.value[0] : undefined;
    await appendEntries(p.id, [
      { kind: 'correction', supersedes: line!.id, replacement: height(unitId('A', 0), 8), reason: 'slip' },
    ]);
    const warm = (await loadTrial(p.id)).state;
    forget(p.id);
    expect((await loadTrial(p.id)).state).toEqual(warm);
  });

  it('lets a later line see what an earlier one wrote, even when both are under way', async () => {
    const first = appendEntries(p.id, [height(unitId('A', 0), 5)]);
    const second = appendEntries(p.id, ({ state }) =>
      state.observations.map((o) => ({ kind: 'note', unitId: o.unitId, text: `saw ${o.value}` })),
    );
    await first;
    expect(await second).toMatchObject({ ok: true, value: [{ kind: 'note', text: 'saw 5' }] });
  });

  it('writes who made the entry', async () => {
    expect(await recorder()).toBe('');
    await setRecorder('Loggia');
    expect(await appendEntries(p.id, [height(unitId('A', 0), 5)])).toMatchObject({
      ok: true,
      value: [{ by: 'Loggia', device: expect.stringMatching(/^[0-9a-f]{8}$/), counter: 1 }],
    });
    await setRecorder('');
  });
});

describe('the plan', () => {
  it('can be changed and taken back until it is sealed', async () => {
    await savePlan(p.id, (x) => ({ ...x, prediction: 'No.' }));
    await savePlan(p.id, (x) => ({ ...x, prediction: 'Perhaps.' }));
    expect(await undoDepth(p.id)).toBe(2);
    await undoPlan(p.id);
    expect((await loadTrial(p.id)).row.plan.prediction).toBe('No.');
    await undoPlan(p.id);
    await undoPlan(p.id);
    expect((await loadTrial(p.id)).row.plan).toEqual(p);
  });

  it('is frozen by the seal with the hash of what is stored', async () => {
    await sealPlan(p.id);
    const { state, row } = await loadTrial(p.id);
    expect(state.seal!.planSha256).toBe(planSha256(row.plan));
    expect(await savePlan(p.id, (x) => ({ ...x, prediction: 'No.' }))).toEqual({
      ok: false,
      error: { tag: 'sealed' },
    });
    await undoPlan(p.id);
    expect((await loadTrial(p.id)).row.plan).toEqual(row.plan);
    await sealPlan(p.id);
    expect((await loadTrial(p.id)).log).toHaveLength(1);
  });

  it('takes product copies along, and keeps the sealed price', async () => {
    await saveProduct(product());
    await savePlan(p.id, (x) => ({
      ...x,
      treatments: x.treatments.map((t) => (t.name === 'A' ? { ...t, products: [use()] } : t)),
      products: [product()],
    }));
    await saveProduct(product({ name: 'Prova, renamed' }));
    await sealPlan(p.id);
    const dearer = product({ packs: [{ ...product().packs[0]!, priceMinor: 9999 }] });
    await saveProduct(dearer);
    const { plan: sealed } = (await loadTrial(p.id)).row;
    expect(sealed.products[0]).toMatchObject({ name: 'Prova, renamed', packs: [{ priceMinor: 1000 }] });
  });

  it('refuses a plan that isn’t one, and keeps the old', async () => {
    await expect(savePlan(p.id, (x) => ({ ...x, code: 'toolong' }))).rejects.toThrow();
    forget(p.id);
    expect((await loadTrial(p.id)).row.plan.code).toBe('TST');
  });
});

describe('deleting', () => {
  it('a trial goes to the bin with its log and comes back whole', async () => {
    await appendEntries(p.id, [height(unitId('A', 0), 5)]);
    const before = await wholeTrial(p.id);
    await deleteTrial(p.id);
    await expect(loadTrial(p.id)).rejects.toMatchObject({ status: 404 });
    expect(await listBin()).toMatchObject([{ id: p.id, kind: 'trial', title: p.question }]);
    await restore(p.id);
    expect(await wholeTrial(p.id)).toEqual(before);
    expect(await listBin()).toEqual([]);
  });
  it('a product too', async () => {
    await saveProduct(product());
    await deleteProduct('feed');
    expect(await listProducts()).toEqual([]);
    await restore('feed');
    expect(await listProducts()).toEqual([{ ...product(), tile: 1 }]);
  });
  it('of what isn’t there does nothing', async () => {
    await deleteProduct('nobody');
    await deleteTrial('nobody');
    await restore('nobody');
    expect(await listBin()).toEqual([]);
  });
});

it('once the codes are open a score isn’t changed without a reason, by whatever way', async () => {
  await savePlan(p.id, (x) => ({ ...x, blinding: 'scorer' as const }));
  await sealPlan(p.id);
  const written = await appendEntries(p.id, [height(unitId('A', 0), 5)]);
  const supersedes = written.ok ? written.value[0]!.id : ('' as never);
  const again = { kind: 'correction' as const, supersedes, replacement: height(unitId('A', 0), 6) };
  const out = { kind: 'exclusion' as const, unitId: unitId('A', 0), traitId: null };
  expect(await appendEntries(p.id, [{ ...again, reason: 'entered again' }])).toMatchObject({ ok: true });
  await appendEntries(p.id, [{ kind: 'reveal', reason: '' }]);
  for (const reason of ['entered again', 'taken back', ' '])
    expect(await appendEntries(p.id, [{ ...again, reason }])).toEqual({
      ok: false,
      error: { tag: 'asksReason' },
    });
  expect(await appendEntries(p.id, [{ ...out, reason: '' }])).toMatchObject({ ok: false });
  expect(await appendEntries(p.id, [{ ...out, reason: 'trodden on' }])).toMatchObject({ ok: true });
  expect(await appendEntries(p.id, [{ ...again, reason: 'read off the photo' }])).toMatchObject({ ok: true });
  // A new value in an empty place asks nothing: it is told as one that came after the opening.
  expect(await appendEntries(p.id, [height(unitId('A', 1), 4)])).toMatchObject({ ok: true });
});

describe('taking in a trial file', () => {
  const copyOf = async () => {
    const read = importTrial(exportTrial(await wholeTrial(p.id)));
    if (!read.ok) throw new Error(read.error.tag);
    return read.value;
  };
  it('adds what isn’t here', async () => {
    const file = await copyOf();
    await deleteTrial(p.id);
    expect(await takeIn(file, aFile)).toEqual({
      ok: true,
      value: { outcome: { tag: 'added' }, brokenSeal: null, notFollowed: [], waiting: [] },
    });
    expect(await wholeTrial(p.id)).toEqual(file);
  });
  it('unites the logs of two devices', async () => {
    await appendEntries(p.id, [height(unitId('A', 0), 5)]);
    const other = await copyOf();
    await appendEntries(p.id, [height(unitId('A', 1), 6)]);
    const here = await wholeTrial(p.id);
    other.log.push({ ...other.log[0]!, id: 'from-the-phone' as never });
    expect(await takeIn(other, aFile)).toEqual({
      ok: true,
      value: {
        outcome: { tag: 'merged', newEntries: 1, conflicts: 0 },
        brokenSeal: null,
        notFollowed: [],
        waiting: [],
      },
    });
    expect((await loadTrial(p.id)).log).toHaveLength(here.log.length + 1);
    expect(await takeIn(other, aFile)).toEqual({
      ok: true,
      value: {
        outcome: { tag: 'merged', newEntries: 0, conflicts: 0 },
        brokenSeal: null,
        notFollowed: [],
        waiting: [],
      },
    });
  });
  it('a file can’t take back a seal with values under it, nor the plan that hangs on it', async () => {
    await sealPlan(p.id);
    await appendEntries(p.id, [height(unitId('A', 0), 5)]);
    const file = await copyOf();
    const [seal] = file.log.filter((e) => e.kind === 'seal');
    const last = file.log.at(-1)!;
    const stamp = { at: last.at, recordedAt: last.recordedAt, offsetMin: 0, by: '', device: 'elsewhere' };
    file.log.push({
      ...{ kind: 'correction', supersedes: seal!.id, replacement: null, reason: 'never sealed' },
      ...{ id: 'forged' as never, counter: last.counter + 1, ...stamp },
    });
    // A file may not unseal unasked; and asked for, it isn't followed.
    expect(await takeIn(file, aFile)).toMatchObject({
      value: { outcome: { newEntries: 0 }, waiting: [expect.stringContaining('may unasked')] },
    });
    const [line] = await openConflicts(p.id);
    await settleConflict(p.id, line!.id, line!.sha256, 'taken');
    expect(await openConflicts(p.id)).toEqual([]);
    expect((await loadTrial(p.id)).state.seal?.entryId).toBe(seal!.id);
    const { state } = await loadTrial(p.id);
    expect(logLines(state.plan, state)[0]).toMatchObject({
      ...{ id: 'forged', standing: false, canTakeBack: false },
      remark: 'Not followed: Values were taken under this seal: it stays.',
    });
    // The same on an empty bench.
    await deleteTrial(p.id);
    expect(await takeIn(file, aFile)).toMatchObject({ value: { notFollowed: [expect.any(String)] } });
    expect((await loadTrial(p.id)).state.seal?.entryId).toBe(seal!.id);
    expect(await savePlan(p.id, (x) => ({ ...x, prediction: 'Now I know.' }))).toMatchObject({ ok: false });
  });
  it('a scorer’s copy opens no codes: such a line isn’t taken, its values are', async () => {
    await savePlan(p.id, (x) => ({ ...x, blinding: 'scorer' as const }));
    await sealPlan(p.id);
    const whole = await wholeTrial(p.id);
    const phone = scorersCopy(whole);
    const stamp = { recordedAt: whole.log[0]!.recordedAt, at: whole.log[0]!.at, offsetMin: 0, by: '' };
    phone.log.push(
      { ...height(unitId('A', 0), 5), ...stamp, id: 'value' as never, device: 'phone', counter: 50 },
      { kind: 'reveal', reason: '', ...stamp, id: 'peep' as never, device: 'phone', counter: 51 },
    );
    expect(await takeIn(phone, aFile)).toMatchObject({
      value: { outcome: { newEntries: 1 }, waiting: [expect.stringContaining('may unasked')] },
    });
    const { state } = await loadTrial(p.id);
    expect([state.revealed, state.observations.length]).toEqual([null, 1]);
  });
  it('what may not come unasked waits once, and is taken or left by a word', async () => {
    await savePlan(p.id, (x) => ({ ...x, blinding: 'scorer' as const }));
    await sealPlan(p.id);
    const file = await copyOf();
    const [seal] = file.log;
    file.log.push({ ...seal!, kind: 'reveal', reason: '', id: 'peep' as never, counter: 50 } as never);
    expect(await takeIn(file, aFile)).toMatchObject({ value: { waiting: [expect.any(String)] } });
    expect(await takeIn(file, aFile)).toMatchObject({ value: { waiting: [] } });
    const [line] = await openConflicts(p.id);
    expect(line).toMatchObject({ id: 'peep', from: 'a file' });
    expect(isWaiting(line!, (await loadTrial(p.id)).log)).toBe(true);
    // A backup of this bench keeps what waits, and it waits there too.
    const whole = await wholeTrial(p.id);
    await deleteTrial(p.id);
    await takeIn(whole, aFile);
    expect((await loadTrial(p.id)).state.revealed).toBeNull();
    const [again] = await openConflicts(p.id);
    await settleConflict(p.id, again!.id, again!.sha256, 'taken');
    expect((await loadTrial(p.id)).state.revealed).not.toBeNull();
    expect(await openConflicts(p.id)).toEqual([]);
  });
  it('a trial made anew under its name is told by the seal this bench has seen, deleted or not', async () => {
    await sealPlan(p.id);
    const file = await copyOf();
    const plan = { ...file.plan, prediction: 'I knew.' };
    const forged = {
      ...file,
      plan,
      log: file.log.map((e) => (e.kind === 'seal' ? { ...e, planSha256: planSha256(plan) } : e)),
    };
    expect(await takeIn(forged, aFile)).toMatchObject({
      error: { tag: 'differentPlan', seal: expect.stringContaining('not the one this bench saw on') },
    });
    expect(await takeIn(file, aFile)).toMatchObject({ value: { brokenSeal: null } });
    await deleteTrial(p.id);
    expect(await takeIn({ ...file, log: [] }, aFile)).toMatchObject({
      value: { brokenSeal: expect.stringContaining('Its seal was taken out') },
    });
    await deleteTrial(p.id);
    expect(await takeIn(forged, aFile)).toMatchObject({
      value: { brokenSeal: expect.stringContaining('not the one this bench saw on') },
    });
  });
  it('never overwrites a different plan, but adds it beside when asked', async () => {
    const file = await copyOf();
    const different = { ...file, plan: { ...file.plan, prediction: 'Something else.' } };
    expect(await takeIn(different, aFile)).toEqual({
      ok: false,
      error: { tag: 'differentPlan', seal: null },
    });
    expect((await loadTrial(p.id)).row.plan.prediction).toBe('Yes.');
    const id = await takeInAsCopy(different);
    expect((await loadTrial(id)).row.plan).toMatchObject({
      prediction: 'Something else.',
      question: 'Is it worth it? (copy)',
    });
    expect(await listTrials()).toHaveLength(2);
  });
});

it('the demo bench is made by itself, apart from the own one, and its reset can be taken back', async () => {
  onBench('demo');
  expect((await listTrials()).map((t) => t.row.plan.code)).toEqual([
    'RAD',
    'PAR',
    'COR',
    'FAG',
    'SUN',
    'POM',
    'RUD',
    'BAS',
    'LAT',
    'RUC',
  ]);
  await deleteTrial('demo-trial-par');
  const bringBack = await resetDemo();
  expect(await listTrials()).toHaveLength(10);
  await bringBack();
  expect(await listTrials()).toHaveLength(9);
  onBench('own');
  expect((await listTrials()).map((t) => t.row.id)).toEqual([p.id]);
  // A link to a trial of the other bench goes there; one to none says so.
  onBench('demo');
  const sent = await loadTrial(p.id).catch((e: unknown) => e as Response);
  expect(sent).toMatchObject({ status: 302 });
  expect((sent as Response).headers.get('Location')).toBe('/trial/x?view=y');
  expect((await listTrials()).map((t) => t.row.id)).toEqual([p.id]);
  await expect(loadTrial('nowhere')).rejects.toMatchObject({ status: 404 });
  await expect(resetDemo()).rejects.toThrow(/demo bench/);
});

it('a seal that an older build remembered, without the offset of its clock, is still known', async () => {
  const p = { ...plan({ treatments: ['Water', 'A'] }), id: 'seen' as TrialId };
  const db = await bench();
  await db.settings.put({
    key: 'seals/seen',
    value: JSON.stringify([{ sha256: 'f'.repeat(64), at: '2026-05-03T09:00:00.000Z' }]),
  });
  const taken = await takeIn(
    { plan: p, log: [], review: emptyReview, key: null, sealedAs: null, conflicts: [] },
    aFile,
  );
  expect(taken.ok && taken.value.brokenSeal).toMatch(/isn’t sealed; this bench saw the trial sealed on/);
});

it('what was remembered of a trial that was deleted isn’t taken for one that comes under its name', async () => {
  const p = { ...plan({ treatments: ['Water', 'A'] }), id: 'again' as TrialId };
  const questions = perTrial(({ row }) => row.plan.question);
  await createTrial({ ...p, question: 'Before?' });
  expect(await questions()).toContain('Before?');
  await deleteTrial('again');
  await createTrial({ ...p, question: 'After?' });
  expect(await questions()).toContain('After?');
  expect(await questions()).not.toContain('Before?');
});
