import { type Bulk, bulkNamedIn, importBulk, noBulk } from '~core/formats/bulkFiles';
import { importTrial } from '~core/formats/dataPackage';
import type { Bringer } from '~core/log/rights';
import type { Trial } from '~core/log/trial';
import { holdsRight } from '~core/model/right';
import { planSha256 } from '~core/plan/seal';
import { bench, deviceId } from '../store/bench';
import { keepClash, settleClash } from '../store/clashes';
import { waitingFrom } from '../store/conflicts';
import { BenchHeldError, NewerBenchError } from '../store/errors';
import { takeIn } from '../store/takeIn';
import { wholeTrial } from '../store/trials';
import { BoxError, letterCollected, lettersFor, readLetter } from './box';
import { type LetterHead, unpackLetter } from './letter';
import { forOther, remember, sendBulk, write } from './outgoing';
import { type KnownPeer, type Pairing, changePeers, pairing, rightOf } from './pairing';
import { unseal } from './seal';
import { lettersAside, setAside, throwAway } from './setAside';

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

/** What a trial's log names and this device doesn't have. */
async function lacking(trial: Trial): Promise<Extract<LetterHead, { kind: 'wants' }> | null> {
  const db = await bench();
  const named = bulkNamedIn(trial);
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
  if (!read.ok)
    return aside(
      `The trial in it can’t be read${'message' in read.error ? `: ${read.error.message}` : '; the letter is damaged.'}`,
    );
  const trial = read.value;
  if (trial.plan.id !== head.trialId) return aside('It names another trial than the one in it.');
  const by = await bringerOf(peer, head.writer);
  if (!by) return aside('It was written on another device than the one that was paired.');
  const db = await bench();
  const before = await db.heads.get(trial.plan.id);
  const own = before ? await wholeTrial(trial.plan.id) : null;
  const lastRev = peer.trials[trial.plan.id]?.rev ?? 0;
  const options = { base: head.base, bulk: bulkIn(body, trial), by, from: peer.name };
  let takenIn = await takeIn(trial, options);
  if (!takenIn.ok && takenIn.error.tag === 'unsound') return aside(takenIn.error.why);
  if (!takenIn.ok) {
    await keepClash(trial, peer.name);
    // Over there ours was decided against; a sealed plan is never given up, and who may not plan decides nothing.
    const theirs = head.overrules;
    if (!own || !holdsRight(by.right, 'plan') || !theirs.includes(planSha256(forOther(own).plan)))
      return { tag: 'clash' };
    const settled = await settleClash(trial.plan.id, 'theirs');
    if (!settled.ok) return { tag: 'clash' };
    takenIn = await takeIn(trial, options);
  }
  // Nothing of ours was waiting to be handed over: what came from there needn't go back.
  const after = await db.heads.get(trial.plan.id);
  const uptodate = !before || before.rev <= lastRev;
  const rev = uptodate ? (after?.rev ?? 0) : lastRev;
  await remember(peer.id, trial.plan.id, {
    ...{ rev, plan: planSha256(trial.plan) },
    ...(uptodate && { kept: rev }),
    ...(head.waiting !== undefined && { waiting: head.waiting }),
  });
  const { may } = head;
  if (may !== undefined && may !== peer.granted)
    await changePeers((peers) => peers.map((p) => (p.id === peer.id ? { ...p, granted: may } : p)));
  const ownCopy = forOther(await wholeTrial(trial.plan.id));
  await write(now, peer, {
    ...{ kind: 'has', trialId: trial.plan.id, plan: planSha256(ownCopy.plan) },
    ...(head.rev !== undefined && { rev: head.rev }),
    waiting: await waitingFrom(trial.plan.id, peer.name),
  });
  const wants = await lacking(trial);
  const key = `${peer.id}/${trial.plan.id}`;
  if (wants && Date.now() - (asked.get(key) ?? 0) > ASK_AGAIN_MS) {
    asked.set(key, Date.now());
    await write(now, peer, wants);
  }
  return { tag: 'taken', waiting: takenIn.ok ? takenIn.value.waiting.length : 0 };
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

/** What was collected of the box. */
export interface Collected {
  /** letters that were taken in */
  received: number;
  /** letters that were set aside, with their reason */
  aside: number;
  /** trials whose plan is another there: a choice waits */
  clashes: number;
  /** lines of others that wait for a word here */
  waiting: number;
}

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
export async function collect(now: Pairing, peers: readonly KnownPeer[]): Promise<Collected> {
  const came: Collected = { received: 0, aside: 0, clashes: 0, waiting: 0 };
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
      const kind = content ? unpackLetter(content)?.head.kind : undefined;
      // What can't be read, or was itself an answer, can't be tried again.
      const again = kind === undefined || kind === 'answer' ? null : content;
      await setAside({ peer: from, from: known?.name ?? '', letter: id, why: took.why, content: again });
      // Whoever wrote a trial hears of it too; tasters and helpers are answered as they are heard.
      if (known && kind === 'trial') await answer(now, known, id, { kept: false, said: took.why });
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
  const took = await take(now, peer, row.content, row.letter).catch((e: Error) => aside(e.message));
  if (took.tag === 'aside') return took.why;
  if (took.tag === 'later') return 'Nobody listens to it on this page: load the page again.';
  await throwAway(seq);
  return null;
}
