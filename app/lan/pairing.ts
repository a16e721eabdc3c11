import { z } from 'zod';
import { Right } from '~core/model/right';
import { bench } from '../store/bench';
import { inLock } from '../store/locks';
import { BoxError, type PeerThere, Role, devices, forgetDevice, invite, pairWith } from './box';
import { isKey, newKey } from './seal';

/** What was exchanged of a trial with another device last. */
const Exchanged = z.object({
  /** the trial's count of changes when it was put into the letter-box */
  rev: z.number(),
  /** the count of changes up to which the other device has said that it keeps it */
  kept: z.number().default(-1),
  /** lines from here that wait for a word over there */
  waiting: z.number().default(0),
  /** SHA-256 of the plan the other device has, as far as is known here; null: not known */
  plan: z.string().nullable(),
});

const KnownPeer = z.object({
  /** the invitation it came by; null for whoever invited this device */
  invite: z.string().nullable(),
  /** null: invited, not here yet */
  id: z.string().nullable(),
  name: z.string(),
  role: Role,
  key: z.string().refine(isKey),
  /** what it may bring unasked; whoever invited this device may all */
  right: Right.default('score'),
  /** what this device may bring unasked over there, as it was last said; null: it wasn't said */
  granted: Right.nullable().default(null),
  /** the device its lines are written on, as its first letter said; null: none came yet */
  writer: z.string().nullable().default(null),
  trials: z.record(z.string(), Exchanged),
});
export type KnownPeer = z.infer<typeof KnownPeer>;

/** This device's place in the letter-box, and whom it shares keys with. */
export const Pairing = z.object({
  origin: z.string(),
  device: z.string(),
  token: z.string(),
  role: Role,
  peers: z.array(KnownPeer),
});
export type Pairing = z.infer<typeof Pairing>;

/** What a device may bring unasked: whoever invited this one may all. */
export const rightOf = (peer: KnownPeer): Right => (peer.invite === null ? 'all' : peer.right);

const KEY = 'lan';
/** Invitations that wait to be taken at once. */
const MOST_OPEN = 23;

/** How this device is paired at the address it was opened from; null where it isn't. */
export async function pairing(): Promise<Pairing | null> {
  const row = await (await bench()).settings.get(KEY);
  const read = row ? Pairing.safeParse(JSON.parse(row.value)) : null;
  return read?.success && read.data.origin === location.origin ? read.data : null;
}

const changed = new EventTarget();
/** Hears when this device is paired, or no longer is. */
export function onPairing(hear: () => void): () => void {
  changed.addEventListener('pairing', hear);
  return () => changed.removeEventListener('pairing', hear);
}

const keep = async (next: Pairing | null): Promise<void> => {
  const db = await bench();
  if (next) await db.settings.put({ key: KEY, value: JSON.stringify(next) });
  else await db.settings.delete(KEY);
  changed.dispatchEvent(new Event('pairing'));
};

/** Changes what is known of the other devices, one tab at a time. */
export const changePeers = (change: (peers: KnownPeer[]) => KnownPeer[]): Promise<void> =>
  inLock('palazzo/pairing', async () => {
    const now = await pairing();
    if (now) await keep({ ...now, peers: change(now.peers) });
  });

/** What stands behind # in a pairing link: the code, and for all but the first device the key. */
export function readPairingHash(hash: string): { code: string; key: string | null } | null {
  const [code = '', key = ''] = hash.replace(/^#/, '').split('.');
  if (!/^[A-Za-z0-9]{6,16}$/.test(code)) return null;
  return { code, key: isKey(key) ? key : null };
}

/** Pairs this device by a code, with the key that came beside it. */
export async function pairByCode(code: string, key: string | null, name: string): Promise<Pairing> {
  const made = await pairWith(code, name);
  if (made.host !== null && key === null)
    throw new BoxError(400, 'The link isn’t whole: scan the code once more, with its key.');
  const next: Pairing = {
    ...{ origin: location.origin, device: made.device, token: made.token, role: made.role },
    peers:
      made.host !== null && key !== null
        ? [
            {
              ...{ invite: null, id: made.host, name: 'the desk', role: 'log', right: 'all' as const },
              ...{ key, granted: null, writer: null, trials: {} },
            },
          ]
        : [],
  };
  await keep(next);
  return next;
}

/** What a device that was invited here may bring unasked. */
export const setRight = (id: string, right: Right): Promise<void> =>
  changePeers((peers) => peers.map((p) => (p.id === id && p.invite !== null ? { ...p, right } : p)));

/**
 * A link that pairs one more device, once, within a quarter of an hour; its key never goes to the server.
 * @param right of a device that keeps a bench: what its lines may do unasked
 */
export async function pairingLink(role: Role, at: string, right: Right = 'score'): Promise<string> {
  const now = await pairing();
  if (!now) throw new BoxError(401, 'This device isn’t paired yet.');
  const { code, id } = await invite(now.token, role);
  const key = newKey();
  await changePeers((peers) => [
    ...peers.filter((p) => p.id !== null),
    // Invitations nobody took yet: several tasters are shown theirs one after the other.
    ...peers.filter((p) => p.id === null).slice(-MOST_OPEN),
    { invite: id, id: null, name: '', role, key, right, granted: null, writer: null, trials: {} },
  ]);
  const page = role === 'log' ? 'pair' : role === 'help' ? 'help' : 'taste';
  return `${at}/${page}#${code}.${key}`;
}

/** Brings what is known of the others up to what the letter-box says; whom it doesn't know any more is gone. */
export async function refreshPeers(now: Pairing): Promise<KnownPeer[]> {
  const there = await devices(now.token);
  const named = (p: KnownPeer): PeerThere | undefined =>
    there.peers.find((t) => (p.id === null ? t.invite === p.invite : t.id === p.id));
  let peers: KnownPeer[] = [];
  await changePeers((known) => {
    peers = known.flatMap((p) => {
      const device = named(p);
      if (device) return [{ ...p, id: device.id, name: device.name || p.name, role: device.role }];
      return p.id === null ? [p] : [];
    });
    return peers;
  });
  return peers;
}

/** Sends another device away; it keeps what it has. */
export async function sendAway(id: string): Promise<void> {
  const now = await pairing();
  if (!now) return;
  await forgetDevice(now.token, id);
  await changePeers((peers) => peers.filter((p) => p.id !== id));
}

/** Takes this device out: what is on it stays. */
export async function unpair(): Promise<void> {
  const now = await pairing();
  if (now) await forgetDevice(now.token, now.device).catch(() => undefined);
  await keep(null);
}
