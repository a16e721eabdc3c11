import { type Bulk, bulkNamed, importBulk, noBulk } from '~core/formats/bulkFiles';
import { exportForDevice, importTrial } from '~core/formats/dataPackage';
import { scorersCopy } from '~core/formats/scorersCopy';
import { shownOf } from '~core/account/shown';
import { deriveState } from '~core/log/state';
import type { Trial } from '~core/log/trial';
import { planSha256, sha256Of } from '~core/plan/seal';
import { bench, deviceId } from '../store/bench';
import { waitingFrom } from '../store/conflicts';
import { readSeries } from '../store/bulk';
import { keepClash, overruled, settleClash } from '../store/clashes';
import { inLock } from '../store/locks';
import { takeIn } from '../store/takeIn';
import { wholeTrial } from '../store/trials';
import { lettersAside, setAside, throwAway } from './setAside';
import { BenchHeldError, NewerBenchError } from '../store/errors';
import type { Bringer } from '~core/log/rights';
import { holdsRight } from '~core/model/right';
import { BoxError, letterCollected, lettersFor, postLetter, readLetter } from './box';
import { jobsToday } from './jobs';
import { type LetterHead, packLetter, unpackLetter } from './letter';
import { type KnownPeer, type Pairing, changePeers, pairing, refreshPeers, rightOf } from './pairing';
import { seal, unseal } from './seal';

/** Pictures that go in one letter, bytes. */
const LETTERFUL = 8 * 2 ** 20;

/** What came of one exchange. */
export interface Exchange {
  /** trials put into the letter-box */
  sent: number;
  received: number;
  /** letters that were set aside, with their reason */
  aside: number;
  /** trials whose plan is another there: a choice waits */
  clashes: number;
  /** lines of others that wait for a word here */
  waiting: number;
  /** what lies in the letter-box until the other is opened, and what waits for a word over there; whoever keeps all is left out */
  open: { name: string; trials: number; waiting: number }[];
  /** why nothing could be exchanged, in words; null where it went through */
  fault: string | null;
}

export const nothingExchanged: Exchange = {
  ...{ sent: 0, received: 0, aside: 0, clashes: 0, waiting: 0 },
  ...{ open: [], fault: null },
};

/** Answers and ticks that came from devices that don't keep a bench. */
export type OtherLetter = Extract<LetterHead, { kind: 'answers' | 'ticked' }>;
/** What became of a letter, in words. */
export interface Heard {
  kept: boolean;
  said: string;
}
type Hear = (letter: OtherLetter, from: KnownPeer) => Promise<Heard> | Heard;
let hears: Hear | null = null;
/** Hears of letters that aren't about a whole trial; while nobody does they lie in the box. */
export function onLetter(hear: Hear): () => void {
  hears = hear;
  return () => {
    if (hears === hear) hears = null;
  };
}

/** A trial as another device gets it: under codes while it is blind. */
function forOther(trial: Trial): Trial {
  const { blind } = shownOf(deriveState(trial.plan, trial.log), trial.key);
  const ids = new Set<string>(trial.log.map((e) => e.id));
  // What waits for a word here is nobody else's.
  const decided = { ...trial, conflicts: trial.conflicts.filter((c) => ids.has(c.id)) };
  return blind && !trial.plan.namesLeftOut ? scorersCopy(decided) : decided;
}

/** Puts one letter for a device into the box. */
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

type Known = KnownPeer['trials'][string];
const unknown: Known = { rev: 0, kept: -1, waiting: 0, plan: null };

/** Notes what is known of a trial over there; what isn't named stays. */
const remember = (peerId: string | null, trialId: string, now: Partial<Known>) =>
  changePeers((peers) =>
    peers.map((p) =>
      p.id === peerId
        ? { ...p, trials: { ...p.trials, [trialId]: { ...(p.trials[trialId] ?? unknown), ...now } } }
        : p,
    ),
  );

/** Puts what changed since the last time into the box. @returns how many trials */
async function send(now: Pairing, peer: KnownPeer): Promise<number> {
  const db = await bench();
  const writer = await deviceId();
  let sent = 0;
  for (const { id, rev } of await db.heads.toArray()) {
    const last = peer.trials[id];
    if (last && last.rev >= rev) continue;
    const trial = forOther(await wholeTrial(id));
    const head = {
      ...{ kind: 'trial' as const, trialId: id, base: last?.plan ?? null, writer, rev },
      overrules: await overruled(id),
    };
    await write(now, peer, head, exportForDevice(trial));
    await remember(peer.id, id, { rev });
    sent += 1;
  }
  return sent;
}

/** What another device hasn't said yet that it keeps. */
async function openAt({ id, name }: KnownPeer): Promise<Exchange['open'][number]> {
  const known = (await pairing())?.peers.find((p) => p.id === id)?.trials ?? {};
  const heads = await (await bench()).heads.toArray();
  const trials = heads.filter((h) => (known[h.id]?.kept ?? -1) < h.rev).length;
  const waiting = heads.reduce((sum, h) => sum + (known[h.id]?.waiting ?? 0), 0);
  return { name, trials, waiting };
}

/** Hands a helper today's jars and tasks, when they are others than before. */
async function sendJobs(now: Pairing, peer: KnownPeer): Promise<void> {
  const text = JSON.stringify(await jobsToday());
  const mark = sha256Of(text);
  if (peer.trials.jobs?.plan === mark) return;
  await write(now, peer, { kind: 'jobs', text });
  await remember(peer.id, 'jobs', { plan: mark });
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

/** What became of a letter; `later`: it stays in the box. */
type Took =
  | { tag: 'taken'; waiting?: number }
  | { tag: 'noted' | 'clash' | 'later' }
  | { tag: 'aside'; why: string };
const aside = (why: string): Took => ({ tag: 'aside', why });

/** Whose lines a device may bring: its own, and only what it may; whoever may all brings anybody's. */
async function bringerOf(peer: KnownPeer, writer: string | undefined): Promise<Bringer | null> {
  const right = rightOf(peer);
  if (right === 'all') return { right, device: null };
  if (writer === undefined) return null;
  const own = peer.writer ?? writer;
  const others = (await pairing())?.peers.filter((p) => p.id !== peer.id).map((p) => p.writer) ?? [];
  // Whoever says it is this device, or another that is known, is neither.
  if (own !== writer || own === (await deviceId()) || others.includes(own)) return null;
  if (peer.writer === null)
    await changePeers((peers) => peers.map((p) => (p.id === peer.id ? { ...p, writer: own } : p)));
  return { right, device: own };
}

async function takeTrial(
  now: Pairing,
  peer: KnownPeer,
  head: Extract<LetterHead, { kind: 'trial' }>,
  body: Uint8Array,
): Promise<Took> {
  const read = importTrial(body);
  if (!read.ok) return aside(`The trial in it can’t be read: ${read.error}`);
  const trial = read.value;
  if (trial.plan.id !== head.trialId) return aside('It names another trial than the one in it.');
  const by = await bringerOf(peer, head.writer);
  if (!by) return aside('It was written on another device than the one that was paired.');
  const db = await bench();
  const before = await db.heads.get(trial.plan.id);
  const own = before ? await wholeTrial(trial.plan.id) : null;
  const lastRev = peer.trials[trial.plan.id]?.rev ?? 0;
  const options = { base: head.base, bulk: bulkIn(body, trial), by, from: peer.name };
  let taken = await takeIn(trial, options);
  if (!taken.ok && taken.error.tag === 'unsound') return aside(taken.error.why);
  if (!taken.ok) {
    await keepClash(trial, peer.name);
    // Over there ours was decided against; a sealed plan is never given up, and who may not plan decides nothing.
    const theirs = head.overrules;
    if (!own || !holdsRight(by.right, 'plan') || !theirs.includes(planSha256(forOther(own).plan)))
      return { tag: 'clash' };
    const settled = await settleClash(trial.plan.id, 'theirs');
    if (!settled.ok) return { tag: 'clash' };
    taken = await takeIn(trial, options);
  }
  // Nothing of ours was waiting to be handed over: what came from there needn't go back.
  const after = await db.heads.get(trial.plan.id);
  const uptodate = !before || before.rev <= lastRev;
  const rev = uptodate ? (after?.rev ?? 0) : lastRev;
  await remember(peer.id, trial.plan.id, {
    ...{ rev, plan: planSha256(trial.plan) },
    ...(uptodate && { kept: rev }),
  });
  const kept = forOther(await wholeTrial(trial.plan.id));
  await write(now, peer, {
    ...{ kind: 'has', trialId: trial.plan.id, plan: planSha256(kept.plan) },
    ...(head.rev !== undefined && { rev: head.rev }),
    waiting: await waitingFrom(trial.plan.id, peer.name),
  });
  const wants = await lacking(trial);
  const key = `${peer.id}/${trial.plan.id}`;
  if (wants && Date.now() - (asked.get(key) ?? 0) > ASK_AGAIN_MS) {
    asked.set(key, Date.now());
    await write(now, peer, wants);
  }
  return { tag: 'taken', waiting: taken.ok ? taken.value.waiting.length : 0 };
}

/** Takes one letter in, as far as its sender has the right to what it says. */
async function take(now: Pairing, peer: KnownPeer, content: Uint8Array, id: string): Promise<Took> {
  const letter = unpackLetter(content);
  if (!letter) return aside('It isn’t a letter of this Palazzo.');
  const { head, body } = letter;
  const allowed: Record<KnownPeer['role'], LetterHead['kind'][]> = {
    log: now.role === 'log' ? ['trial', 'has', 'wants', 'answer'] : [],
    taste: ['answers'],
    help: ['ticked'],
  };
  if (!allowed[peer.role].includes(head.kind)) return aside('Its sender may not send such a letter.');
  switch (head.kind) {
    case 'trial':
      return takeTrial(now, peer, head, body);
    case 'has':
      await remember(peer.id, head.trialId, {
        ...{ plan: head.plan, waiting: head.waiting ?? 0 },
        ...(head.rev !== undefined && {
          kept: Math.max(head.rev, peer.trials[head.trialId]?.kept ?? -1),
        }),
      });
      return { tag: 'noted' };
    case 'wants':
      if (await (await bench()).heads.get(head.trialId)) await sendBulk(now, peer, head);
      return { tag: 'noted' };
    case 'answer':
      return head.kept
        ? { tag: 'noted' }
        : aside(`A letter from here was set aside over there: ${head.said}`);
    case 'answers':
    case 'ticked': {
      if (!hears) return { tag: 'later' };
      const heard = await hears(head, peer);
      await answer(now, peer, id, heard);
      return heard.kept ? { tag: 'taken' } : aside(heard.said);
    }
    case 'jobs':
      return aside('Its sender may not send such a letter.');
  }
}

const answer = (now: Pairing, peer: KnownPeer, to: string, { kept, said }: Heard) =>
  write(now, peer, { kind: 'answer', to, kept, said: said.slice(0, 500) });

/** Whether it is this device that can't, not the letter. */
const isOwnFault = (e: unknown) =>
  e instanceof BoxError ||
  e instanceof BenchHeldError ||
  e instanceof NewerBenchError ||
  /Quota|Database|OpenFailed|InvalidState|Abort|Transaction/.test((e as Error)?.name ?? '');

/**
 * Collects what lies in the box, oldest first. A letter is taken out only once it is kept here, or set aside with its reason;
 * what this device can't keep now stays, and the fault is said.
 */
async function collect(
  now: Pairing,
  peers: readonly KnownPeer[],
): Promise<Omit<Exchange, 'sent' | 'open' | 'fault'>> {
  const came = { received: 0, aside: 0, clashes: 0, waiting: 0 };
  for (const { id, from } of await lettersFor(now.token)) {
    const peer = peers.find((p) => p.id === from);
    const sealed = await readLetter(now.token, id);
    const content = peer ? await unseal(peer.key, from, now.device, sealed) : null;
    // The peer as it is now: an earlier letter may have changed what is known of it.
    const known = (await pairing())?.peers.find((p) => p.id === from) ?? peer;
    const took =
      !known || !content
        ? aside(
            known ? 'It was sealed with another key, or changed on its way.' : 'Its sender isn’t known here.',
          )
        : await take(now, known, content, id).catch((e: unknown) => {
            if (isOwnFault(e)) throw e;
            return aside((e as Error).message);
          });
    if (took.tag === 'later') continue;
    if (took.tag === 'aside') {
      await setAside({ peer: from, from: known?.name ?? '', why: took.why, content });
      // Whoever wrote a trial or a question hears of it too; an answer isn't answered.
      if (known && content && unpackLetter(content)?.head.kind === 'trial')
        await answer(now, known, id, { kept: false, said: took.why });
      came.aside += 1;
    }
    if (took.tag === 'taken') {
      came.received += 1;
      came.waiting += took.waiting ?? 0;
    }
    if (took.tag === 'clash') came.clashes += 1;
    await letterCollected(now.token, id);
  }
  return came;
}

/** Tries a letter again that was set aside; it goes from there once it is kept. @returns why not, in words; null: it is kept */
export async function tryAgain(seq: number): Promise<string | null> {
  const row = (await lettersAside()).find((l) => l.seq === seq);
  const now = await pairing();
  const peer = now?.peers.find((p) => p.id === row?.peer);
  if (!row || !now || !peer || !row.content)
    return 'Its sender isn’t paired any more, or it can’t be opened.';
  const took = await take(now, peer, row.content, String(seq)).catch((e: Error) => aside(e.message));
  if (took.tag === 'aside') return took.why;
  if (took.tag === 'later') return 'Open the bench first.';
  await throwAway(seq);
  return null;
}

/** Exchanges everything that changed with all paired devices, one tab at a time. */
export const exchange = (): Promise<Exchange> =>
  inLock('palazzo/lan', async () => {
    const now = await pairing();
    if (!now) return nothingExchanged;
    try {
      const peers = await refreshPeers(now);
      const came = await collect(now, peers);
      let sent = 0;
      const open: Exchange['open'] = [];
      if (now.role === 'log') {
        const others = (await pairing())?.peers.filter((p) => p.id !== null && p.role === 'log') ?? [];
        for (const peer of others) {
          sent += await send(now, peer);
          const lies = await openAt(peer);
          if (lies.trials + lies.waiting > 0) open.push(lies);
        }
        const helpers = peers.filter((p) => p.id !== null && p.role === 'help');
        for (const peer of helpers) await sendJobs(now, peer);
      }
      return { ...came, sent, open, fault: null };
    } catch (e) {
      if (e instanceof BoxError) return { ...nothingExchanged, fault: e.message };
      throw e;
    }
  });
