import { bench } from '../store/bench';
import type { LetterRow } from '../store/db';

/** Letters that are kept with their reason; older ones go. */
const MOST = 60;
/** What is kept of them together, bytes. */
const MOST_BYTES = 64 * 2 ** 20;

/** Keeps a letter that wasn't taken in: the others go on. */
export async function setAside(letter: Omit<LetterRow, 'seq' | 'at'>): Promise<void> {
  const db = await bench();
  await db.transaction('rw', db.letters, async () => {
    await db.letters.add({ ...letter, at: new Date().toISOString() });
    const all = await db.letters.toArray();
    let [count, bytes] = [0, 0];
    for (const l of all.reverse()) {
      count += 1;
      bytes += l.content?.length ?? 0;
      if (count > MOST || (bytes > MOST_BYTES && count > 1)) await db.letters.delete(l.seq!);
    }
  });
}

/** Letters set aside, newest first. */
export const lettersAside = async (): Promise<LetterRow[]> =>
  (await bench()).letters.orderBy('seq').reverse().toArray();

/** Throws a letter away that was set aside. */
export const throwAway = async (seq: number): Promise<void> => (await bench()).letters.delete(seq);
