import { z } from 'zod';
import { letterCollected, lettersFor, pairWith, postLetter, readLetter } from './box';
import { type LetterHead, packLetter, unpackLetter } from './letter';
import { readPairingHash } from './pairing';
import { isKey, seal, unseal } from './seal';

/** A device that only tastes or helps: it keeps no bench, only its place in the letter-box. */
const Guest = z.object({
  code: z.string(),
  device: z.string(),
  token: z.string(),
  host: z.string(),
  key: z.string().refine(isKey),
});
export type Guest = z.infer<typeof Guest>;

const KEY = 'palazzo/guest';

/** Places that are being taken: a code is good once, whoever of the page asks first. */
const taking = new Map<string, Promise<Guest | null>>();

/** The place this device has by its link, taken once; a reload finds it again. @throws where the code isn't good */
export async function guestBy(hash: string, name: string): Promise<Guest | null> {
  const link = readPairingHash(hash);
  const key = link?.key;
  if (!link || !key) return null;
  const under = taking.get(link.code) ?? placeOf({ code: link.code, key }, name);
  taking.set(link.code, under);
  return under.finally(() => taking.delete(link.code));
}

async function placeOf(link: { code: string; key: string }, name: string): Promise<Guest | null> {
  const stored = Guest.safeParse(JSON.parse(localStorage.getItem(KEY) ?? 'null'));
  if (stored.success && stored.data.code === link.code) return stored.data;
  const made = await pairWith(link.code, name);
  if (made.host === null) return null;
  const guest = { code: link.code, device: made.device, token: made.token, host: made.host, key: link.key };
  localStorage.setItem(KEY, JSON.stringify(guest));
  return guest;
}

/**
 * What became of something that was sent: it lies in the letter-box; it arrived, and the host has set it aside; it is kept in
 * the trial's log.
 */
export const Sent = z.object({
  /** number of its letter in the box */
  letter: z.string(),
  /** what was sent, by a name of the page's own */
  what: z.string(),
  state: z.enum(['sent', 'arrived', 'kept']),
  said: z.string(),
});
export type Sent = z.infer<typeof Sent>;

const SENT_KEY = 'palazzo/sent';
/** Things that are remembered as sent; older ones go. */
const MOST_SENT = 200;

/** What this device sent, as it is known to have fared; a reload finds it again. */
export function sentBy({ device }: Guest): Sent[] {
  try {
    const read = z.array(Sent).safeParse(JSON.parse(localStorage.getItem(`${SENT_KEY}/${device}`) ?? '[]'));
    return read.success ? read.data : [];
  } catch {
    return [];
  }
}

const keepSent = ({ device }: Guest, sent: readonly Sent[]): void =>
  localStorage.setItem(`${SENT_KEY}/${device}`, JSON.stringify(sent.slice(-MOST_SENT)));

/**
 * Puts something for the host into the letter-box.
 * @param what its name, by which its fate is found
 */
export async function tellHost(guest: Guest, what: string, head: LetterHead): Promise<void> {
  const { token, device, host, key } = guest;
  const letter = await postLetter(token, host, await seal(key, device, host, packLetter(head)));
  keepSent(guest, [
    ...sentBy(guest).filter((s) => s.what !== what),
    { letter, what, state: 'sent', said: '' },
  ]);
}

/** Forgets what was sent: the host has shown itself what became of it. */
export const forgetSent = (guest: Guest, whats: ReadonlySet<string>): void =>
  keepSent(
    guest,
    sentBy(guest).filter((s) => !whats.has(s.what)),
  );

/** What the host sent since the last time, oldest first; letters that can't be opened are left out. */
export async function fromHost(guest: Guest): Promise<LetterHead[]> {
  const { token, device, host, key } = guest;
  const heads: LetterHead[] = [];
  for (const { id, from } of await lettersFor(token)) {
    const content = from === host ? await unseal(key, host, device, await readLetter(token, id)) : null;
    const head = content ? unpackLetter(content)?.head : undefined;
    if (head?.kind === 'answer')
      keepSent(
        guest,
        sentBy(guest).map((s) =>
          s.letter === head.to ? { ...s, state: head.kept ? 'kept' : 'arrived', said: head.said } : s,
        ),
      );
    else if (head) heads.push(head);
    await letterCollected(token, id);
  }
  return heads;
}
