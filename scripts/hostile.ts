// `npm run hostile -- --requests 500 --seed 1`: plays a paired phone that may only score, and a stranger without a place,
// against a letter-box that is served as `--lan` serves it, on loopback. After each of them a good value is sent: nothing
// forged may be taken, no name or path told, no letter stop the ones behind it.
import { onBench } from '../app/testing/browserGlobals';
import { mkdtempSync, rmSync } from 'node:fs';
import { request } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { exportForDevice, exportTrial, importTrial } from '~core/formats/dataPackage';
import { scorersCopy } from '~core/formats/scorersCopy';
import type { Entry } from '~core/log/entry';
import type { Trial } from '~core/log/trial';
import type { TrialId } from '~core/model/ids';
import { planSha256 } from '~core/plan/seal';
import { seededRandom } from '~core/stats/random';
import { height, heightTrait, plan, product, unitId, use } from '~core/testing/trial';
import { exchange } from '../app/lan/exchange';
import { write } from '../app/lan/outgoing';
import { type LetterHead, unpackLetter } from '../app/lan/letter';
import { type Pairing, pairByCode, pairing, pairingLink, readPairingHash } from '../app/lan/pairing';
import { seal, unseal } from '../app/lan/seal';
import { bench, deviceId } from '../app/store/bench';
import { openConflicts } from '../app/store/conflicts';
import { createTrial, loadTrial, sealPlan, wholeTrial } from '../app/store/trials';
import { spoiling } from './fuzz/mutate';
import { certificate } from './lan/authority.mjs';
import { LetterBox } from './lan/letterBox.mjs';
import { shelf } from './lan/shelf.mjs';
import { serve } from './serve.mjs';

const { values: args } = parseArgs({
  options: { requests: { type: 'string', default: '500' }, seed: { type: 'string', default: '1' } },
});
const requests = Number(args.requests);
if (!(requests >= 1)) {
  console.error('hostile: --requests is 1 or more.');
  process.exit(2);
}
const random = seededRandom(Number(args.seed));
const { below, oneOf, mutatedBytes } = spoiling(random);

const faults = { taken: 0, leaked: 0, stuck: 0 };
const said = (what: keyof typeof faults, detail: string) => {
  faults[what] += 1;
  if (faults[what] <= 5) console.log(`${what}: ${detail.slice(0, 300)}`);
};

// The server as `--lan` starts it, with a folder of its own.
const folder = mkdtempSync(join(tmpdir(), 'palazzo-hostile-'));
const lan = await certificate({ folder, addresses: [] });
const box = new LetterBox({ shelf: shelf(join(folder, 'letters')) });
const server = await serve({ port: 0, bench: 'own', host: '127.0.0.1', lan: { ...lan, box } });
const { port } = server.address() as AddressInfo;

interface Answer {
  status: number;
  body: Buffer;
}
/** Asks the server, with a path exactly as it is given. */
const ask = (path: string, method = 'GET', headers: Record<string, string> = {}, body?: Uint8Array) =>
  new Promise<Answer>((resolve, reject) => {
    const asked = request(
      { host: '127.0.0.1', port, path, method, headers, ca: lan.authority, servername: 'localhost' },
      (answer) => {
        const parts: Buffer[] = [];
        answer.on('data', (p: Buffer) => parts.push(p));
        answer.on('end', () => resolve({ status: answer.statusCode ?? 0, body: Buffer.concat(parts) }));
      },
    );
    asked.on('error', reject);
    asked.end(body);
  });
globalThis.fetch = (async (path: string, init: RequestInit = {}) => {
  const body = typeof init.body === 'string' ? strToU8(init.body) : (init.body as Uint8Array | undefined);
  const { status, body: said } = await ask(path, init.method ?? 'GET', init.headers as never, body);
  return new Response(status === 204 ? null : new Uint8Array(said), { status });
}) as typeof fetch;
Object.assign(globalThis, { location: { origin: 'https://bench.example' } });

type Device = 'desk' | 'phone';
async function on<T>(device: Device, run: () => Promise<T>): Promise<T> {
  onBench(device === 'desk' ? 'own' : 'demo');
  return run();
}

// A blind trial with names nobody may hear, sealed; and an open one that is still planned.
const SECRET = ['Segretissimo', 'Nascosto'];
const base = plan({ treatments: ['P', 'Q'], replicates: 12, traits: [heightTrait()] });
const feed = { ...product(), name: 'Ricetta Chiusa' };
const blind = {
  ...base,
  id: 'blind' as TrialId,
  blinding: 'scorer' as const,
  products: [feed],
  treatments: base.treatments.map((t, i) => ({
    ...t,
    name: SECRET[i]!,
    ...(i === 1 && { products: [use()] }),
  })),
};
const planned = { ...plan(), id: 'planned' as TrialId, code: 'PLN', question: 'Which one?' };
for (const device of ['desk', 'phone'] as const)
  await on(device, async () => {
    const db = await bench();
    await Promise.all(db.tables.map((t) => t.clear()));
  });
const link = await on('desk', async () => {
  await pairByCode(box.invite().code, null, 'Desk');
  await createTrial(blind, undefined, [], { order: blind.treatments.map((t) => t.id) });
  await sealPlan(blind.id);
  await createTrial(planned);
  return pairingLink('log', 'https://bench.example', 'score');
});
const { code, key } = readPairingHash(new URL(link).hash)!;
await on('phone', () => pairByCode(code, key, 'Phone'));
for (let i = 0; i < 3; i++) {
  await on('desk', exchange);
  await on('phone', exchange);
}
const me = (await on('phone', pairing)) as Pairing;
const host = me.peers[0]!;
const taster = await on('desk', async () => {
  const place = readPairingHash(new URL(await pairingLink('taste', 'https://bench.example')).hash)!;
  const made = JSON.parse((await ask('/lan/pair', 'POST', { 'Content-Type': 'application/json' }, strToU8(JSON.stringify({ code: place.code, name: 'Ada' })))).body.toString()) as { device: string; token: string }; // prettier-ignore
  return { ...made, key: place.key! };
});
const desk = (await on('desk', pairing)) as Pairing;
const deskDevice = await on('desk', deviceId);
const phoneDevice = await on('phone', deviceId);
const before = {
  blind: planSha256((await on('desk', () => loadTrial(blind.id))).row.plan),
  planned: planSha256((await on('desk', () => loadTrial(planned.id))).row.plan),
};

let n = 0;
/** A line as a phone would write it, or not. */
const line = (body: object, over: Partial<Entry> = {}): Entry =>
  ({
    ...body,
    ...{ id: `forged-${n++}`, at: new Date().toISOString(), recordedAt: new Date().toISOString() },
    ...{ offsetMin: 0, by: 'nobody', device: phoneDevice, counter: 5000 + n, ...over },
  }) as Entry;
const copyOf = async (id: string): Promise<Trial> => on('phone', () => wholeTrial(id));
const head = (trialId: string, over: object = {}): LetterHead =>
  ({
    ...{ kind: 'trial', trialId, base: null, overrules: [], writer: phoneDevice, rev: 9 },
    ...over,
  }) as LetterHead;
const send = (what: LetterHead, body?: Uint8Array) => on('phone', () => write(me, host, what, body));
const withLines = async (id: string, lines: Entry[], over: object = {}) => {
  const copy = await copyOf(id);
  await send(head(id, over), exportForDevice({ ...copy, log: [...copy.log, ...lines] }));
};

/** Letters that a phone which scores may not send, or that nobody may. */
const letters: [string, () => Promise<void>][] = [
  ['opens the codes', () => withLines('blind', [line({ kind: 'reveal', reason: '' })])],
  ['opens them by a correction', async () => {
    const note = line({ kind: 'note', unitId: null, text: 'x' });
    await withLines('blind', [note, line({ kind: 'correction', supersedes: note.id, replacement: { kind: 'reveal', reason: '' }, reason: '' })]);
  }],
  ['opens them in the conflicts', async () => {
    const copy = await copyOf('blind');
    const other = line({ kind: 'reveal', reason: '' });
    await send(head('blind'), exportForDevice({ ...copy, conflicts: [{ id: other.id as never, other }] }));
  }],
  ['takes the seal back', async () => {
    const copy = await copyOf('blind');
    const sealed = copy.log.find((e) => e.kind === 'seal')!;
    await withLines('blind', [line({ kind: 'correction', supersedes: sealed.id, replacement: null, reason: '' })]);
  }],
  ['seals a plan', () => withLines('planned', [line({ kind: 'seal', planSha256: before.planned })])],
  ['leaves a unit out', () => withLines('blind', [line({ kind: 'exclusion', unitId: unitId('Q', 0), traitId: null, reason: 'x' })])],
  ['writes as the desk', () => withLines('blind', [line(height(unitId('Q', 1), 99), { device: deskDevice })])],
  ['says it is the desk', () => withLines('blind', [line(height(unitId('Q', 1), 98))], { writer: deskDevice })],
  ['says nobody wrote it', () => withLines('blind', [line(height(unitId('Q', 1), 97))], { writer: undefined })],
  ['a counter at the end of numbers', () => withLines('blind', [line(height(unitId('Q', 1), 96), { counter: Number.MAX_SAFE_INTEGER })])],
  ['a value of next year', () => withLines('blind', [line(height(unitId('Q', 1), 95), { at: new Date(Date.now() + 4e10).toISOString() })])],
  ['another plan', async () => {
    const copy = await copyOf('planned');
    await send(head('planned', { base: before.planned }), exportForDevice({ ...copy, plan: { ...copy.plan, prediction: 'Forged.' } }));
  }],
  ['another plan, decided over there', async () => {
    const copy = await copyOf('planned');
    await send(head('planned', { overrules: [before.planned] }), exportForDevice({ ...copy, plan: { ...copy.plan, prediction: 'Forged too.' } }));
  }],
  ['a trial of its own', async () => {
    const id = `own-${n++}` as TrialId;
    const copy = await copyOf('planned');
    await send(head(id), exportForDevice({ ...copy, plan: { ...copy.plan, id } }));
  }],
  ['one trial named as another', async () => send(head('blind'), exportForDevice(await copyOf('planned')))],
  ['a zip that is none', () => send(head('blind'), Uint8Array.from({ length: 900 }, () => below(256)))],
  ['a spoilt zip', async () => send(head('blind'), mutatedBytes(exportForDevice(await copyOf('blind'))))],
  ['a zip that grows', async () => {
    const files = unzipSync(exportForDevice(await copyOf('blind')));
    await send(head('blind'), zipSync({ ...files, 'log.json': [new Uint8Array(30_000_000).fill(0x20), { level: 9 }] }));
  }],
  ['pictures of another trial', () => send({ kind: 'wants', trialId: 'blind', photos: ['a'.repeat(64)], series: ['s1'] })],
  ['says it has what it has not', () => send({ kind: 'has', trialId: 'planned', plan: 'b'.repeat(64), rev: 1e9, waiting: 1e9 })],
  ['a helper’s tick', () => send({ kind: 'ticked', trialId: 'blind', task: 'x' })],
  ['jobs for the desk', () => send({ kind: 'jobs', text: '{}' })],
  ['answers of a taster it isn’t', () => send({ kind: 'answers', text: 'x'.repeat(50) })],
  ['an answer to nothing', () => send({ kind: 'answer', to: '1', kept: true, said: '<script>' })],
  ['sealed with another key', async () => {
    const letter = await seal('A'.repeat(43), me.device, host.id!, strToU8('x'));
    await ask(`/lan/letters/${host.id}`, 'POST', { Authorization: `Bearer ${me.token}`, 'Content-Type': 'application/octet-stream' }, letter);
  }],
  ['no letter at all', async () => {
    await ask(`/lan/letters/${host.id}`, 'POST', { Authorization: `Bearer ${me.token}`, 'Content-Type': 'application/octet-stream' }, Uint8Array.from({ length: below(300) }, () => below(256)));
  }],
  ['a name with lines of its own', async () => {
    const copy = await copyOf('planned');
    await send(head('planned'), exportForDevice({ ...copy, plan: { ...copy.plan, question: 'A\r\nBEGIN:VEVENT' } }));
  }],
]; // prettier-ignore

const json = { 'Content-Type': 'application/json' };
const bearer = (token: string) => ({ Authorization: `Bearer ${token}` });
const forJson = (value: unknown) => strToU8(JSON.stringify(value));
/** Questions to the server that nobody may ask so; each must be refused. */
const questions: [string, () => Promise<Answer>][] = [
  ['letters without a place', () => ask('/lan/letters')],
  ['letters with a guess', () => ask('/lan/letters', 'GET', bearer('x'.repeat(below(200))))],
  ['devices without a place', () => ask('/lan/devices')],
  ['somebody else’s letter', () => ask(`/lan/letters/${below(500)}`, 'GET', bearer(taster.token))],
  ['takes somebody else’s letter away', () => ask(`/lan/letters/${below(500)}`, 'DELETE', bearer(taster.token))],
  ['sends the desk away', () => ask(`/lan/devices/${host.id}`, 'DELETE', bearer(me.token))],
  ['a taster pairs others', () => ask('/lan/invites', 'POST', { ...json, ...bearer(taster.token) }, forJson({ role: 'log' }))],
  ['a right there isn’t', () => ask('/lan/invites', 'POST', { ...json, ...bearer(me.token) }, forJson({ role: 'root' }))],
  ['a letter to nobody', () => ask('/lan/letters/d999', 'POST', { ...bearer(me.token), 'Content-Type': 'application/octet-stream' }, new Uint8Array(9))],
  ['a letter past all size', () => ask(`/lan/letters/${host.id}`, 'POST', { ...bearer(taster.token), 'Content-Type': 'application/octet-stream' }, new Uint8Array(17 * 2 ** 20))],
  ['no JSON', () => ask('/lan/pair', 'POST', json, strToU8('{'.repeat(1 + below(3000))))],
  ['too much JSON', () => ask('/lan/pair', 'POST', json, strToU8(`{"code":"${'x'.repeat(9000)}"}`))],
  ['a wrong code', () => ask('/lan/pair', 'POST', json, forJson({ code: oneOf(['AAAAAAAAAA', '', '__proto__', 'x']), name: '<img>' }))],
  ['a path out of the house', () => ask(oneOf(['/..%2f..%2fpackage.json', '/assets/..%2f..%2fpackage.json', '/%2e%2e/package.json', '/assets/%00', '/%', '/lan/%E0%A4%A', '/lan/..%2fserver.key', '/server.key', '/.git/config', '/package.json']))],
  ['a method there isn’t', () => ask('/lan/letters', oneOf(['PUT', 'PATCH']), bearer(me.token))],
]; // prettier-ignore

const telling =
  /node_modules|\.mjs|\bat [\w.<]+ \(|\/home\/|\/tmp\/|\/work\/|PRIVATE KEY|"dependencies"|Segretissimo|Nascosto|Ricetta/;

/** What must never have come to be. */
async function harm(what: string): Promise<void> {
  const { state, row, blind: closed } = await on('desk', () => loadTrial('blind'));
  if (state.revealed || !closed) said('taken', `${what}: the codes are open`);
  if (!state.seal) said('taken', `${what}: the seal is gone`);
  if (planSha256(row.plan) !== before.blind) said('taken', `${what}: the blind plan is another`);
  if (state.exclusions.length > 0) said('taken', `${what}: a unit is left out`);
  if (state.observations.some((o) => (o.value ?? 0) >= 90)) said('taken', `${what}: a forged value`);
  const other = await on('desk', () => loadTrial('planned'));
  if (planSha256(other.row.plan) !== before.planned) said('taken', `${what}: the plan is another`);
  if (other.state.seal) said('taken', `${what}: the plan is sealed`);
  const there = (await on('desk', async () =>
    (await bench()).trials.toCollection().primaryKeys(),
  )) as string[];
  if (there.some((id) => id !== 'blind' && id !== 'planned')) said('taken', `${what}: a trial more`);
}

/** What the desk writes to the phone holds no name while the codes are closed. */
async function overheard(what: string): Promise<void> {
  for (const l of box.waiting(box.devices.get(me.device)!)) {
    const content = await unseal(host.key, host.id!, me.device, box.read(box.devices.get(me.device)!, l.id));
    const letter = content && unpackLetter(content);
    if (letter?.head.kind !== 'trial' || letter.head.trialId !== 'blind') continue;
    const read = importTrial(letter.body);
    if (telling.test(read.ok ? JSON.stringify(read.value) : ''))
      said('leaked', `${what}: a name in a letter`);
  }
}

let value = 0;
const began = performance.now();
for (let i = 0; i < requests; i++) {
  if (random.uniform() < 0.45) {
    const [what, run] = oneOf(questions);
    const { status, body } = await run();
    // Any address without a file's name is the app's own page, which tells nothing.
    if (status < 400 && !(what.startsWith('a path') && body.toString().startsWith('<!DOCTYPE html>')))
      said('leaked', `${what}: answered with ${status}: ${body.toString('utf8').slice(0, 90)}`);
    if (telling.test(body.toString('latin1')))
      said('leaked', `${what}: ${body.toString('utf8').slice(0, 200)}`);
    continue;
  }
  const [what, run] = oneOf(letters);
  await run();
  // A good value behind it arrives, whatever lies before it.
  const unit = blind.units[value % blind.units.length]!;
  const good = line({ kind: 'measurement', unitId: unit.id, traitId: 'height', roundId: null, sample: null, value: 1 + (value++ % 80) }, { counter: 900_000 + value }); // prettier-ignore
  await withLines('blind', [good]);
  const came = await on('desk', exchange);
  if (came.fault !== null) said('stuck', `${what}: ${came.fault}`);
  const { log } = await on('desk', () => loadTrial('blind'));
  if (!log.some((e) => e.id === good.id)) said('stuck', `${what}: the value behind it isn’t there`);
  await harm(what);
  await overheard(what);
  await on('phone', exchange);
  if ((i + 1) % 100 === 0) console.log(`${i + 1} requests, ${Math.round(performance.now() - began)} ms`);
}
// A scorer's own file, as it is given away, tells no name either.
const given = exportTrial(scorersCopy(await on('desk', () => wholeTrial('blind'))));
for (const [name, bytes] of Object.entries(unzipSync(given)))
  if (telling.test(new TextDecoder().decode(bytes))) said('leaked', `${name} of the scorer’s copy`);
const waiting = (await on('desk', () => openConflicts('blind'))).length;
console.log(`waiting for a word on the desk: ${waiting}; peers ${desk.peers.length}`);
server.close();
rmSync(folder, { recursive: true, force: true });
console.log(
  `hostile: requests ${requests}, taken ${faults.taken}, leaked ${faults.leaked}, stuck ${faults.stuck}`,
);
process.exit(Object.values(faults).every((x) => x === 0) ? 0 : 1);
