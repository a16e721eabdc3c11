import { type Bulk, bulkNamed, importBulk, noBulk } from '~core/formats/bulkFiles';
import { exportForDevice, importTrial } from '~core/formats/dataPackage';
import { scorersCopy } from '~core/formats/scorersCopy';
import { shownOf } from '~core/account/shown';
import { deriveState } from '~core/log/state';
import type { Trial } from '~core/log/trial';
import { planSha256, sha256Of } from '~core/plan/seal';
import { bench } from '../store/bench';
import { readSeries } from '../store/bulk';
import { keepClash, overruled, settleClash } from '../store/clashes';
import { inLock } from '../store/locks';
import { takeIn } from '../store/takeIn';
import { wholeTrial } from '../store/trials';
import { BoxError, letterCollected, lettersFor, postLetter, readLetter } from './box';
import { jobsToday } from './jobs';
import { type LetterHead, packLetter, unpackLetter } from './letter';
import { type KnownPeer, type Pairing, changePeers, pairing, refreshPeers } from './pairing';
import { seal, unseal } from './seal';

/** Pictures that go in one letter, bytes. */
const LETTERFUL = 8 * 2 ** 20;

/** What came of one exchange. */
export interface Exchange {
  sent: number;
  received: number;
  /** letters that couldn't be opened, or held nothing this app writes */
  refused: number;
  /** trials whose plan is another there: a choice waits */
  clashes: number;
  /** why nothing could be exchanged, in words; null where it went through */
  fault: string | null;
}

/** Answers and ticks that came from devices that don't keep a bench. */
export type OtherLetter = Extract<LetterHead, { kind: 'answers' | 'ticked' | 'jobs' }>;
type Hear = (letter: OtherLetter, from: KnownPeer) => Promise<void> | void;
const hearers = new Set<Hear>();
/** Hears of letters that aren't about a whole trial. */
export function onLetter(hear: Hear): () => void {
  hearers.add(hear);
  return () => hearers.delete(hear);
}

/** A trial as another device gets it: under codes while it is blind. */
function forOther(trial: Trial): Trial {
  const { blind } = shownOf(deriveState(trial.plan, trial.log), trial.key);
  return blind && !trial.plan.namesLeftOut ? scorersCopy(trial) : trial;
}

/** Sends one letter to a device. */
export async function write(
  now: Pairing,
  peer: KnownPeer,
  head: LetterHead,
  body?: Uint8Array,
): Promise<void> {
  if (peer.id === null) return;
  const letter = await seal(peer.key, now.device, peer.id, packLetter(head, body));
  await postLetter(now.token, peer.id, letter);
}

const remember = (peerId: string | null, trialId: string, rev: number, plan: string | null) =>
  changePeers((peers) =>
    peers.map((p) => (p.id === peerId ? { ...p, trials: { ...p.trials, [trialId]: { rev, plan } } } : p)),
  );

/** Hands over what changed since the last time. @returns how many trials */
async function send(now: Pairing, peer: KnownPeer): Promise<number> {
  const db = await bench();
  let sent = 0;
  for (const { id, rev } of await db.heads.toArray()) {
    const last = peer.trials[id];
    if (last && last.rev >= rev) continue;
    const trial = forOther(await wholeTrial(id));
    const head = {
      ...{ kind: 'trial' as const, trialId: id, base: last?.plan ?? null },
      overrules: await overruled(id),
    };
    await write(now, peer, head, exportForDevice(trial));
    await remember(peer.id, id, rev, last?.plan ?? null);
    sent += 1;
  }
  return sent;
}

/** Hands a helper today's jars and tasks, when they are others than before. */
async function sendJobs(now: Pairing, peer: KnownPeer): Promise<void> {
  const text = JSON.stringify(await jobsToday());
  const mark = sha256Of(text);
  if (peer.trials.jobs?.plan === mark) return;
  await write(now, peer, { kind: 'jobs', text });
  await remember(peer.id, 'jobs', 0, mark);
}

/** Answers with the pictures and readings another device lacks, some at a time. */
async function sendBulk(
  now: Pairing,
  peer: KnownPeer,
  { trialId, photos, series }: Extract<LetterHead, { kind: 'wants' }>,
): Promise<void> {
  const db = await bench();
  const trial = forOther(await wholeTrial(trialId));
  const named = bulkNamed(trial);
  const post = (bulk: Bulk) =>
    write(
      now,
      peer,
      { kind: 'trial', trialId, base: peer.trials[trialId]?.plan ?? null, overrules: [] },
      exportForDevice(trial, bulk),
    );
  let some: Bulk['photos'] = [];
  let size = 0;
  // Only what the log of that trial names: a letter can't ask for anything else on the bench.
  for (const sha of photos.filter((p) => named.photos.has(p))) {
    const row = await db.blobs.get(sha);
    if (!row) continue;
    if (size > 0 && size + row.bytes.length > LETTERFUL) {
      await post({ photos: some, series: [] });
      [some, size] = [[], 0];
    }
    some.push(row);
    size += row.bytes.length;
  }
  const readings: Bulk['series'] = [];
  for (const seriesId of series.filter((s) => named.series.has(s))) {
    const found = await readSeries(seriesId, -Infinity, Infinity);
    if (found.times.length > 0) readings.push({ seriesId, ...found });
  }
  if (some.length > 0 || readings.length > 0) await post({ photos: some, series: readings });
}

/** What a trial's log names and this device doesn't have. */
async function lacking(trial: Trial): Promise<Extract<LetterHead, { kind: 'wants' }> | null> {
  const db = await bench();
  const named = bulkNamed(trial);
  const photos = [...named.photos];
  const here = await db.blobs.bulkGet(photos);
  const series: string[] = [];
  for (const id of named.series.keys()) {
    if ((await db.series.where('[seriesId+chunk]').between([id, -Infinity], [id, Infinity]).count()) === 0)
      series.push(id);
  }
  const missing = photos.filter((_, i) => here[i] === undefined);
  return missing.length + series.length === 0
    ? null
    : { kind: 'wants', trialId: trial.plan.id, photos: missing.slice(0, 5000), series: series.slice(0, 500) };
}

/** What was asked for lately: it isn't asked for again with every letter. */
const asked = new Map<string, number>();
const ASK_AGAIN_MS = 60_000;

/** Pictures and readings of a letter; of one that can't be unpacked its lines are taken all the same. */
function bulkIn(body: Uint8Array, trial: Trial): Bulk {
  try {
    return importBulk(body, trial);
  } catch {
    return noBulk;
  }
}

type Took = 'taken' | 'noted' | 'refused' | 'clash';

async function takeTrial(
  now: Pairing,
  peer: KnownPeer,
  head: Extract<LetterHead, { kind: 'trial' }>,
  body: Uint8Array,
): Promise<Took> {
  const read = importTrial(body);
  if (!read.ok || read.value.plan.id !== head.trialId) return 'refused';
  const trial = read.value;
  const db = await bench();
  const before = await db.heads.get(trial.plan.id);
  const own = before ? await wholeTrial(trial.plan.id) : null;
  const lastRev = peer.trials[trial.plan.id]?.rev ?? 0;
  const bulk = bulkIn(body, trial);
  const taken = await takeIn(trial, head.base, bulk);
  if (!taken.ok && taken.error.tag === 'unsound') return 'refused';
  if (!taken.ok) {
    await keepClash(trial, peer.name);
    // Over there ours was decided against; a sealed plan is never given up.
    if (!own || !head.overrules.includes(planSha256(forOther(own).plan))) return 'clash';
    const settled = await settleClash(trial.plan.id, 'theirs');
    if (!settled.ok) return 'clash';
    await takeIn(trial, head.base, bulk);
  }
  // Nothing of ours was waiting to be handed over: what came from there needn't go back.
  const after = await db.heads.get(trial.plan.id);
  const uptodate = !before || before.rev <= lastRev;
  const kept = forOther(await wholeTrial(trial.plan.id));
  const theirs = planSha256(trial.plan);
  await remember(peer.id, trial.plan.id, uptodate ? (after?.rev ?? 0) : lastRev, theirs);
  await write(now, peer, { kind: 'has', trialId: trial.plan.id, plan: planSha256(kept.plan) });
  const wants = await lacking(trial);
  const key = `${peer.id}/${trial.plan.id}`;
  if (wants && Date.now() - (asked.get(key) ?? 0) > ASK_AGAIN_MS) {
    asked.set(key, Date.now());
    await write(now, peer, wants);
  }
  return 'taken';
}

/** Takes one letter in, as far as its sender has the right to what it says. */
async function take(now: Pairing, peer: KnownPeer, content: Uint8Array): Promise<Took> {
  const letter = unpackLetter(content);
  if (!letter) return 'refused';
  const { head, body } = letter;
  const allowed: Record<KnownPeer['role'], LetterHead['kind'][]> = {
    log: now.role === 'log' ? ['trial', 'has', 'wants', 'answers'] : ['jobs'],
    taste: ['answers'],
    help: ['ticked'],
  };
  if (!allowed[peer.role].includes(head.kind)) return 'refused';
  switch (head.kind) {
    case 'trial':
      return takeTrial(now, peer, head, body);
    case 'has':
      await remember(peer.id, head.trialId, peer.trials[head.trialId]?.rev ?? 0, head.plan);
      return 'noted';
    case 'wants':
      if (await (await bench()).heads.get(head.trialId)) await sendBulk(now, peer, head);
      return 'noted';
    default:
      for (const hear of hearers) await hear(head, peer);
      return 'taken';
  }
}

/** Collects what lies in the box, oldest first; a letter is taken out only once it is kept here. */
async function collect(now: Pairing, peers: readonly KnownPeer[]): Promise<Record<Took, number>> {
  const came: Record<Took, number> = { taken: 0, noted: 0, refused: 0, clash: 0 };
  for (const { id, from } of await lettersFor(now.token)) {
    const peer = peers.find((p) => p.id === from);
    const sealed = await readLetter(now.token, id);
    const content = peer ? await unseal(peer.key, from, now.device, sealed) : null;
    // The peer as it is now: an earlier letter may have changed what is known of it.
    const known = (await pairing())?.peers.find((p) => p.id === from) ?? peer;
    came[content && known ? await take(now, known, content) : 'refused'] += 1;
    await letterCollected(now.token, id);
  }
  return came;
}

/** Exchanges everything that changed with all paired devices, one tab at a time. */
export const exchange = (): Promise<Exchange> =>
  inLock('palazzo/lan', async () => {
    const none: Exchange = { sent: 0, received: 0, refused: 0, clashes: 0, fault: null };
    const now = await pairing();
    if (!now) return none;
    try {
      const peers = await refreshPeers(now);
      const came = await collect(now, peers);
      let sent = 0;
      if (now.role === 'log') {
        const others = (await pairing())?.peers.filter((p) => p.id !== null && p.role === 'log') ?? [];
        for (const peer of others) sent += await send(now, peer);
        const helpers = peers.filter((p) => p.id !== null && p.role === 'help');
        for (const peer of helpers) await sendJobs(now, peer);
      }
      return { sent, received: came.taken, refused: came.refused, clashes: came.clash, fault: null };
    } catch (e) {
      if (e instanceof BoxError) return { ...none, fault: e.message };
      throw e;
    }
  });
