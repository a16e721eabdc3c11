// Two benches and the real letter-box on loopback: what is written on one is on the other, once, whatever the order.
import { onBench } from '../testing/browserGlobals';
import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import express from 'express';
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { exportForDevice } from '~core/formats/dataPackage';
import type { TrialId } from '~core/model/ids';
import type { Right } from '~core/model/right';
import type { Plan } from '~core/model/plan';
import { height, plan, unitId } from '~core/testing/trial';
import { LetterBox } from '../../scripts/lan/letterBox.mjs';
import { lanRoutes } from '../../scripts/lan/routes.mjs';
import { bench, deviceId } from '../store/bench';
import { openConflicts, settleConflict } from '../store/conflicts';
import { getBlob } from '../store/bulk';
import { putBlob } from '../testing/bulk';
import { listClashes, settleClash } from '../store/clashes';
import { appendEntries, createTrial, loadTrial, savePlan, sealPlan, wholeTrial } from '../store/trials';
import { exchange } from './exchange';
import { onLetter, tryAgain } from './incoming';
import { write } from './outgoing';
import { fromHost, guestBy, sentBy, tellHost } from './guest';
import { sayExchange } from './sayExchange';
import { lettersAside, throwAway } from './setAside';
import {
  changePeers,
  pairByCode,
  pairing,
  pairingLink,
  readPairingHash,
  sendAway,
  setRight,
  unpair,
} from './pairing';

let server: Server;
let box: LetterBox;
const realFetch = globalThis.fetch;
type Device = 'desk' | 'phone';
const benchOf = { desk: 'own', phone: 'demo' } as const;

/** Does something as one of the two devices. */
async function on<T>(device: Device, run: () => Promise<T>): Promise<T> {
  onBench(benchOf[device]);
  return run();
}
/** Exchanges by turns until nothing goes to and fro any more. */
async function settle(): Promise<number> {
  for (let turns = 1; turns < 12; turns++) {
    const a = await on('desk', exchange);
    const b = await on('phone', exchange);
    for (const x of [a, b]) expect(x).toMatchObject({ fault: null, aside: 0 });
    if (a.sent + b.sent + a.received + b.received === 0) return turns;
  }
  throw new Error('The two answer each other for ever.');
}
const values = (device: Device, id: string) =>
  on(device, async () => (await loadTrial(id)).state.observations.map((o) => o.value).sort());

beforeAll(async () => {
  Object.assign(globalThis, { location: { origin: 'https://bench.example' } });
  const app = express();
  box = new LetterBox();
  app.use('/lan', lanRoutes({ box, fingerprint: 'AB', authority: '', addresses: [], port: () => 0 }).lan);
  await new Promise<void>((resolve) => {
    server = app.listen(0, () => resolve());
  });
  const base = `http://localhost:${(server.address() as AddressInfo).port}`;
  globalThis.fetch = (path, init) => realFetch(`${base}${path as string}`, init);
});
afterAll(() => {
  globalThis.fetch = realFetch;
  server.close();
});

let n = 0;
let p: Plan;
beforeEach(async () => {
  n += 1;
  box.devices.clear();
  p = { ...plan(), id: `trial-${n}` as TrialId };
  for (const device of ['desk', 'phone'] as const)
    await on(device, async () => {
      const db = await bench();
      await Promise.all([...db.ofTrials, db.letters].map((t) => t.clear()));
      await unpair();
    });
  const link = await on('desk', async () => {
    await pairByCode(box.invite().code, null, 'Desk');
    await createTrial(p);
    return pairingLink('log', 'https://bench.example', 'all');
  });
  const { code, key } = readPairingHash(new URL(link).hash)!;
  await on('phone', () => pairByCode(code, key, 'Phone'));
});

describe('two paired devices', () => {
  it('have the same values in the end, and then are quiet', async () => {
    await settle();
    await on('phone', () => appendEntries(p.id, [height(unitId('A', 0), 7)]));
    await on('desk', () => appendEntries(p.id, [height(unitId('Water', 0), 5)]));
    await settle();
    expect(await values('desk', p.id)).toEqual([5, 7]);
    expect(await values('phone', p.id)).toEqual([5, 7]);
    expect(await settle()).toBe(1);
  });
  it('a correction on one holds on the other, whichever is heard of first', async () => {
    const first = await on('desk', () => appendEntries(p.id, [height(unitId('A', 0), 5)]));
    await settle();
    const id = first.ok ? first.value[0]!.id : '';
    await on('phone', () =>
      appendEntries(p.id, [
        { kind: 'correction', supersedes: id as never, replacement: height(unitId('A', 0), 6), reason: '' },
      ]),
    );
    await settle();
    expect(await values('desk', p.id)).toEqual([6]);
  });
  it('a picture goes along when the other lacks it', async () => {
    const bytes = Uint8Array.from({ length: 4000 }, (_, i) => i % 251);
    const sha256 = await on('phone', async () => {
      await exchange();
      await exchange();
      return putBlob(p.id, bytes, 'image/jpeg');
    });
    await settle();
    await on('phone', () =>
      appendEntries(p.id, [{ kind: 'photo', unitId: unitId('A', 0), file: 'a.jpg', sha256, caption: '' }]),
    );
    await settle();
    expect((await on('desk', () => getBlob(sha256)))?.bytes).toEqual(bytes);
  });
  it('a plan changed on one side alone is followed without a question; the seal goes along', async () => {
    await settle();
    await on('phone', () => savePlan(p.id, (now) => ({ ok: true, value: { ...now, prediction: 'More.' } })));
    await settle();
    expect((await on('desk', () => loadTrial(p.id))).row.plan.prediction).toBe('More.');
    await on('desk', () => sealPlan(p.id));
    await settle();
    expect((await on('phone', () => loadTrial(p.id))).state.seal).not.toBeNull();
    expect(await on('desk', listClashes)).toEqual([]);
  });
  it('a plan changed on both stands side by side until one is chosen, on one of them', async () => {
    await settle();
    for (const device of ['phone', 'desk'] as const)
      await on(device, () =>
        savePlan(p.id, (now) => ({ ok: true, value: { ...now, prediction: `From the ${device}.` } })),
      );
    await settle();
    for (const device of ['phone', 'desk'] as const)
      expect((await on(device, listClashes))[0]!.differences.map((d) => d.what)).toEqual(['Prediction']);
    await on('phone', () => settleClash(p.id, 'theirs'));
    await settle();
    for (const device of ['phone', 'desk'] as const) {
      expect((await on(device, () => loadTrial(p.id))).row.plan.prediction).toBe('From the desk.');
      expect(await on(device, listClashes)).toEqual([]);
    }
  });
});

describe('a blind trial', () => {
  it('goes under its codes, and gets its names when they are open', async () => {
    const blind = { ...p, id: `blind-${n}` as TrialId, blinding: 'scorer' as const };
    await on('desk', () => createTrial(blind));
    await on('desk', () => savePlan(blind.id, (now) => ({ ok: true, value: now })));
    await settle();
    const names = async () =>
      (await on('phone', () => loadTrial(blind.id))).row.plan.treatments.map((t) => t.name).sort();
    expect(await names()).toEqual(['Code A', 'Code B']);
    await on('phone', () => appendEntries(blind.id, [height(unitId('A', 0), 7)]));
    await settle();
    expect(await values('desk', blind.id)).toEqual([7]);
    await on('desk', () => appendEntries(blind.id, [{ kind: 'reveal', reason: '' }]));
    await settle();
    expect(await names()).toEqual(['A', 'Water']);
  });
});

it('an older trial goes under ids of its own, and what is scored under them comes back', async () => {
  const timed = `0190aaaa-000${n % 10}-7000-8000-000000000001`;
  const older = { ...p, id: `older-${n}` as TrialId, blinding: 'scorer' as const };
  const renamed = (id: string) => (id === 'A' ? timed : id) as never;
  const made = {
    ...older,
    treatments: older.treatments.map((t) => ({ ...t, id: renamed(t.id) })),
    units: older.units.map((u) => ({ ...u, treatmentId: renamed(u.treatmentId) })),
  };
  await on('desk', () => createTrial(made));
  await on('desk', () => savePlan(made.id, (now) => ({ ok: true, value: now })));
  await settle();
  const there = async () => JSON.stringify((await on('phone', () => loadTrial(made.id))).row.plan);
  expect(await there()).not.toContain(timed);
  await on('phone', () => appendEntries(made.id, [height(unitId('A', 0), 7)]));
  await settle();
  expect(await values('desk', made.id)).toEqual([7]);
  expect((await on('desk', () => loadTrial(made.id))).row.plan.units.map((u) => u.treatmentId)).toContain(
    timed,
  );
  await on('desk', () => appendEntries(made.id, [{ kind: 'reveal', reason: '' }]));
  await settle();
  expect(await there()).toContain(timed);
  expect(await values('phone', made.id)).toEqual([7]);
  for (const device of ['desk', 'phone'] as const) expect(await on(device, listClashes)).toEqual([]);
});

describe('what a device may', () => {
  /** the phone has this right, and both know what the other has */
  const paired = async (right: Right) => {
    await settle();
    await on('desk', async () => setRight((await pairing())!.peers[0]!.id!, right));
  };
  const waits = () => on('desk', async () => (await openConflicts(p.id)).map((c) => c.other.kind));
  it('who scores opens no codes: its values are taken, the rest waits for a word', async () => {
    const blind = { ...p, id: `right-${n}` as TrialId, blinding: 'scorer' as const };
    await on('desk', () => createTrial(blind));
    await on('desk', () => savePlan(blind.id, (now) => ({ ok: true, value: now })));
    await on('desk', () => sealPlan(blind.id));
    await paired('score');
    await on('phone', () =>
      appendEntries(blind.id, [height(unitId('A', 0), 7), { kind: 'reveal', reason: 'curious' }]),
    );
    await on('phone', exchange);
    expect(await on('desk', exchange)).toMatchObject({ received: 1, waiting: 1 });
    const { state, blind: closed } = await on('desk', () => loadTrial(blind.id));
    expect([state.observations.length, state.revealed, closed]).toEqual([1, null, true]);
    const [line] = await on('desk', () => openConflicts(blind.id));
    expect(line).toMatchObject({ from: 'Phone', other: { kind: 'reveal' } });
    // The phone hears that it waits; the desk takes it by a word.
    expect((await on('phone', exchange)).open).toContainEqual({ name: 'Desk', trials: 0, waiting: 1 });
    await on('desk', () => settleConflict(blind.id, line!.id, line!.sha256, 'taken'));
    expect((await on('desk', () => loadTrial(blind.id))).state.revealed).not.toBeNull();
    // Both hear that nothing waits any more.
    await settle();
    expect((await on('phone', exchange)).open).toEqual([]);
    expect((await on('phone', pairing))!.peers[0]).toMatchObject({ granted: 'score' });
  });
  it('what is left out waits no more over there either', async () => {
    await paired('score');
    await on('phone', () =>
      appendEntries(p.id, [{ kind: 'exclusion', unitId: unitId('A', 0), traitId: null, reason: 'dark' }]),
    );
    await on('phone', exchange);
    await on('desk', exchange);
    expect((await on('phone', exchange)).open).toContainEqual({ name: 'Desk', trials: 0, waiting: 1 });
    const [line] = await on('desk', () => openConflicts(p.id));
    await on('desk', () => settleConflict(p.id, line!.id, line!.sha256, 'kept'));
    await settle();
    expect((await on('phone', exchange)).open).toEqual([]);
    expect((await on('desk', () => loadTrial(p.id))).state.exclusions).toEqual([]);
    expect(await waits()).toEqual([]);
  });
  it('a picture of who scores comes along with its line', async () => {
    await paired('score');
    const bytes = Uint8Array.from({ length: 900 }, (_, i) => i % 251);
    const sha256 = await on('phone', () => putBlob(p.id, bytes, 'image/jpeg'));
    await on('phone', () =>
      appendEntries(p.id, [{ kind: 'photo', unitId: unitId('A', 0), file: 'a.jpg', sha256, caption: '' }]),
    );
    await settle();
    expect((await on('desk', () => getBlob(sha256)))?.bytes).toEqual(bytes);
    expect(await on('desk', lettersAside)).toEqual([]);
  });
  it('who mixes leaves no unit out; who plans may; nobody but “all” seals', async () => {
    const out = { kind: 'exclusion' as const, unitId: unitId('A', 0), traitId: null, reason: 'dark end' };
    await paired('mix');
    await on('phone', () => appendEntries(p.id, [out]));
    await on('phone', exchange);
    await on('desk', exchange);
    expect(await waits()).toEqual(['exclusion']);
    await on('desk', async () => setRight((await pairing())!.peers[0]!.id!, 'plan'));
    await on('phone', () => appendEntries(p.id, [{ ...out, unitId: unitId('A', 1) }]));
    await on('phone', () => sealPlan(p.id));
    await on('phone', exchange);
    await on('desk', exchange);
    // What waited and may come now waits no more; it isn't shown as a line that contradicts itself.
    expect(await waits()).toEqual(['seal']);
    expect((await on('desk', () => loadTrial(p.id))).state.exclusions).toHaveLength(2);
  });
  it('a plan from who may not plan is asked about; so is a trial that isn’t here', async () => {
    await paired('score');
    await on('phone', () => savePlan(p.id, (now) => ({ ok: true, value: { ...now, prediction: 'Mine.' } })));
    await on('phone', () => createTrial({ ...p, id: `new-${n}` as TrialId }));
    await on('phone', exchange);
    expect(await on('desk', exchange)).toMatchObject({ clashes: 2 });
    expect((await on('desk', () => loadTrial(p.id))).row.plan.prediction).not.toBe('Mine.');
    const asked = await on('desk', listClashes);
    expect(asked.map((c) => c.isHere).sort()).toEqual([false, true]);
    await on('desk', () => settleClash(`new-${n}`, 'theirs'));
    expect((await on('desk', () => loadTrial(`new-${n}`))).row.plan.prediction).toBe(p.prediction);
  });
  it('brings its own lines alone: who writes as another device is set aside', async () => {
    await paired('score');
    const forged = async (device: string, value: number, counter: number) =>
      on('phone', async () => {
        const now = (await pairing())!;
        const whole = await wholeTrial(p.id);
        const stamp = { at: '2026-03-02T12:00:00.000Z', recordedAt: '2026-03-02T12:00:00.000Z' };
        const line = {
          ...height(unitId('A', 0), value),
          ...{ ...stamp, id: `forged-${n}-${value}` as never, offsetMin: 0, by: 'me', device, counter },
        };
        const body = exportForDevice({ ...whole, log: [...whole.log, line] });
        const head = { kind: 'trial' as const, trialId: p.id, base: null, overrules: [], rev: 1 };
        await write(now, now.peers[0]!, { ...head, writer: await deviceId() }, body);
        return { now, head, body };
      });
    const { now, head, body } = await forged('somebody-else', 5, 60);
    expect(await on('desk', exchange)).toMatchObject({ waiting: 1 });
    expect(await waits()).toEqual(['measurement']);
    expect(await values('desk', p.id)).toEqual([]);
    // Whoever says it is the desk itself isn't heard at all.
    const desk = await on('desk', deviceId);
    await on('phone', () => write(now, now.peers[0]!, { ...head, writer: desk }, body));
    expect(await on('desk', exchange)).toMatchObject({ aside: 1, received: 0 });
  });
});

describe('sent, arrived, kept', () => {
  it('what lies in the box isn’t said to be kept', async () => {
    await settle();
    await on('phone', () => appendEntries(p.id, [height(unitId('A', 0), 7)]));
    const sent = await on('phone', exchange);
    expect(sayExchange(sent, 1)).toMatch(/^One trial for Desk lies in the letter-box, sealed/);
    await on('desk', exchange);
    expect(sayExchange(await on('phone', exchange), 1)).toBe(
      'What is here is kept on the other devices too.',
    );
  });
  it('a bad letter is set aside with its reason, and the ones behind it arrive', async () => {
    await settle();
    await on('phone', async () => {
      const now = (await pairing())!;
      const head = {
        kind: 'trial' as const,
        trialId: p.id,
        base: null,
        overrules: [],
        writer: await deviceId(),
      };
      await write(now, now.peers[0]!, head, Uint8Array.from([80, 75, 3, 4, 9, 9, 9]));
      await appendEntries(p.id, [height(unitId('A', 0), 7)]);
      await exchange();
    });
    expect(await on('desk', exchange)).toMatchObject({ aside: 1, received: 1, fault: null });
    expect(await values('desk', p.id)).toEqual([7]);
    const [letter] = await on('desk', lettersAside);
    expect(letter).toMatchObject({
      from: 'Phone',
      why: 'The trial in it can’t be read; the letter is damaged.',
    });
    expect(await on('desk', () => tryAgain(letter!.seq!))).toContain('can’t be read');
    await on('desk', () => throwAway(letter!.seq!));
    // Whoever sent it hears of it.
    expect(await on('phone', exchange)).toMatchObject({ aside: 1 });
  });
  it('a taster’s answers lie in the box while nobody hears, and are answered', async () => {
    const link = await on('desk', () => pairingLink('taste', 'https://bench.example'));
    const store = new Map<string, string>();
    vi.stubGlobal('localStorage', {
      getItem: (k: string) => store.get(k) ?? null,
      setItem: (k: string, v: string) => void store.set(k, v),
    });
    const guest = (await on('phone', () => guestBy(new URL(link).hash, 'Ada')))!;
    await tellHost(guest, 'mine', { kind: 'answers', text: 'x' });
    const state = () => sentBy(guest).map((s) => [s.what, s.state, s.said]);
    expect(await on('desk', exchange)).toMatchObject({ received: 0, aside: 0 });
    await fromHost(guest);
    expect(state()).toEqual([['mine', 'sent', '']]);
    const stop = onLetter(() => ({ kept: false, said: 'The tasting is over.' }));
    expect(await on('desk', exchange)).toMatchObject({ aside: 1 });
    await fromHost(guest);
    expect(state()).toEqual([['mine', 'arrived', 'The tasting is over.']]);
    stop();
    const stopAgain = onLetter(() => ({ kept: true, said: '' }));
    await tellHost(guest, 'mine', { kind: 'answers', text: 'y' });
    await on('desk', exchange);
    await fromHost(guest);
    expect(state()).toEqual([['mine', 'kept', '']]);
    // What was refused lies on the desk, whole: tried again and kept, the taster hears of that letter.
    const [refused] = await on('desk', lettersAside);
    expect(refused).toMatchObject({ from: 'Ada', why: 'The tasting is over.' });
    await tellHost(guest, 'other', { kind: 'answers', text: 'z' });
    expect(await on('desk', () => tryAgain(refused!.seq!))).toBeNull();
    expect(await on('desk', lettersAside)).toEqual([]);
    await fromHost(guest);
    expect(state()).toEqual([
      ['mine', 'kept', ''],
      ['other', 'sent', ''],
    ]);
    stopAgain();
    vi.unstubAllGlobals();
  });
});

describe('what isn’t in order', () => {
  it('a letter sealed with another key, or in another’s name, is left out and said', async () => {
    await settle();
    await on('phone', async () => {
      const now = (await pairing())!;
      await write(
        now,
        { ...now.peers[0]!, key: 'A'.repeat(43) },
        { kind: 'ticked', trialId: p.id, task: 'x' },
      );
      // What a device with the whole bench may not say: only a helper ticks off by letter.
      await write(now, now.peers[0]!, { kind: 'ticked', trialId: p.id, task: 'x' });
    });
    expect(await on('desk', exchange)).toMatchObject({ aside: 2, received: 0, fault: null });
  });
  it('who was sent away gets nothing more, and says so', async () => {
    await settle();
    const { peers } = (await on('desk', pairing))!;
    await on('desk', () => sendAway(peers[0]!.id!));
    await on('desk', () => appendEntries(p.id, [height(unitId('A', 0), 9)]));
    expect((await on('desk', exchange)).sent).toBe(0);
    expect((await on('phone', exchange)).fault).toMatch(/isn’t paired here/);
    expect(await values('phone', p.id)).toEqual([]);
  });
  it('a link without its key pairs nobody', async () => {
    const link = await on('desk', () => pairingLink('log', 'https://bench.example'));
    const { code } = readPairingHash(new URL(link).hash)!;
    await on('phone', unpair);
    await expect(on('phone', () => pairByCode(code, null, 'Phone'))).rejects.toThrow('isn’t whole');
    await on('phone', () => changePeers(() => []));
    expect(await on('phone', pairing)).toBeNull();
  });
});

it('a place is taken once, though two of a page ask for it at the same time', async () => {
  const link = await on('desk', () => pairingLink('taste', 'https://bench.example'));
  const store = new Map<string, string>();
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => store.get(k) ?? null,
    setItem: (k: string, v: string) => void store.set(k, v),
  });
  const { hash } = new URL(link);
  const [one, two] = await Promise.all([guestBy(hash, 'Ada'), guestBy(hash, 'Ada')]);
  expect(two).toEqual(one);
  expect(await guestBy(hash, 'Ada')).toEqual(one);
  vi.unstubAllGlobals();
});
