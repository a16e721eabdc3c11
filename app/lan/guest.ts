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

/** The place this device has by its link, taken once; a reload finds it again. @throws where the code isn't good */
export async function guestBy(hash: string, name: string): Promise<Guest | null> {
  const link = readPairingHash(hash);
  if (!link?.key) return null;
  const kept = Guest.safeParse(JSON.parse(localStorage.getItem(KEY) ?? 'null'));
  if (kept.success && kept.data.code === link.code) return kept.data;
  const made = await pairWith(link.code, name);
  if (made.host === null) return null;
  const guest = { code: link.code, device: made.device, token: made.token, host: made.host, key: link.key };
  localStorage.setItem(KEY, JSON.stringify(guest));
  return guest;
}

/** Sends something to the host. */
export async function tellHost({ token, device, host, key }: Guest, head: LetterHead): Promise<void> {
  await postLetter(token, host, await seal(key, device, host, packLetter(head)));
}

/** What the host sent since the last time, oldest first; letters that can't be opened are left out. */
export async function fromHost({ token, device, host, key }: Guest): Promise<LetterHead[]> {
  const heads: LetterHead[] = [];
  for (const { id, from } of await lettersFor(token)) {
    const content = from === host ? await unseal(key, host, device, await readLetter(token, id)) : null;
    const letter = content && unpackLetter(content);
    if (letter) heads.push(letter.head);
    await letterCollected(token, id);
  }
  return heads;
}
