import { type Bulk, bulkNamedIn } from '~core/formats/bulkFiles';
import { exportForDevice } from '~core/formats/dataPackage';
import { scorersCopy } from '~core/formats/scorersCopy';
import { shownOf } from '~core/account/shown';
import { deriveState } from '~core/log/state';
import type { Trial } from '~core/log/trial';
import { sha256Of } from '~core/plan/seal';
import { bench, deviceId } from '../store/bench';
import { readSeries } from '../store/bulk';
import { overruled } from '../store/clashes';
import { waitingFrom } from '../store/conflicts';
import { wholeTrial } from '../store/trials';
import { postLetter } from './box';
import { jobsToday } from './jobs';
import { type LetterHead, packLetter } from './letter';
import { type KnownPeer, type Pairing, changePeers, rightOf } from './pairing';
import { seal } from './seal';

/** Pictures that go in one letter, bytes. */
const LETTERFUL = 8 * 2 ** 20;

/** A trial as another device gets it: under codes while it is blind. */
export function forOther(trial: Trial): Trial {
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
export const remember = (peerId: string | null, trialId: string, now: Partial<Known>) =>
  changePeers((peers) =>
    peers.map((p) =>
      p.id === peerId
        ? { ...p, trials: { ...p.trials, [trialId]: { ...(p.trials[trialId] ?? unknown), ...now } } }
        : p,
    ),
  );

/** The head of every letter with a trial in it: whose it is, and what the reader needs to know of its own. */
const headOf = async (peer: KnownPeer, trialId: string) => ({
  ...{ kind: 'trial' as const, trialId, base: peer.trials[trialId]?.plan ?? null, overrules: [] as string[] },
  ...{ writer: await deviceId(), may: rightOf(peer), waiting: await waitingFrom(trialId, peer.name) },
});

/** Puts what changed since the last time into the box. @returns how many trials */
export async function send(now: Pairing, peer: KnownPeer): Promise<number> {
  const db = await bench();
  let sent = 0;
  for (const { id, rev } of await db.heads.toArray()) {
    const last = peer.trials[id];
    if (last && last.rev >= rev) continue;
    const trial = forOther(await wholeTrial(id));
    const head = { ...(await headOf(peer, id)), overrules: await overruled(id), rev };
    await write(now, peer, head, exportForDevice(trial));
    await remember(peer.id, id, { rev });
    sent += 1;
  }
  return sent;
}

/** Hands a helper today's jars and tasks, when they are others than before. */
export async function sendJobs(now: Pairing, peer: KnownPeer): Promise<void> {
  const text = JSON.stringify(await jobsToday());
  const mark = sha256Of(text);
  if (peer.trials.jobs?.plan === mark) return;
  await write(now, peer, { kind: 'jobs', text });
  await remember(peer.id, 'jobs', { plan: mark });
}

/** Answers with the pictures and readings another device lacks, some at a time. */
export async function sendBulk(
  now: Pairing,
  peer: KnownPeer,
  { trialId, photos, series }: Extract<LetterHead, { kind: 'wants' }>,
): Promise<void> {
  const db = await bench();
  const trial = forOther(await wholeTrial(trialId));
  const named = bulkNamedIn(trial);
  const head = await headOf(peer, trialId);
  const post = (bulk: Bulk) => write(now, peer, head, exportForDevice(trial, bulk));
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
