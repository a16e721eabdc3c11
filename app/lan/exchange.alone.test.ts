// Two benches and the real letter-box on loopback: what is written on one is on the other, once, whatever the order.
import { onBench } from '../testing/browserGlobals';
import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import express from 'express';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { TrialId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { height, plan, unitId } from '~core/testing/trial';
import { LetterBox } from '../../scripts/lan/letterBox.mjs';
import { lanRoutes } from '../../scripts/lan/routes.mjs';
import { bench } from '../store/bench';
import { getBlob } from '../store/bulk';
import { putBlob } from '../testing/bulk';
import { listClashes, settleClash } from '../store/clashes';
import { appendEntries, createTrial, loadTrial, savePlan, sealPlan } from '../store/trials';
import { exchange, write } from './exchange';
import { changePeers, pairByCode, pairing, pairingLink, readPairingHash, sendAway, unpair } from './pairing';

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
    for (const x of [a, b]) expect(x).toMatchObject({ fault: null, refused: 0 });
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
  p = { ...plan(), id: `trial-${n}` as TrialId };
  for (const device of ['desk', 'phone'] as const)
    await on(device, async () => {
      const db = await bench();
      await Promise.all(db.ofTrials.map((t) => t.clear()));
      await unpair();
    });
  const link = await on('desk', async () => {
    await pairByCode(box.invite().code, null, 'Desk');
    await createTrial(p);
    return pairingLink('log', 'https://bench.example');
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
    expect(await on('desk', exchange)).toMatchObject({ refused: 2, received: 0, fault: null });
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
