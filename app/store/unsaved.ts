import { bench } from './bench';

/** Since when nothing is saved outside this browser, and how many trials changed since. */
export async function unsavedSince(): Promise<{ at: string | null; trials: number }> {
  const db = await bench();
  const [heads, last] = await Promise.all([db.heads.toArray(), db.settings.get('backedUp')]);
  const { at, revs } = last
    ? (JSON.parse(last.value) as { at: string; revs: Record<string, number> })
    : { at: null, revs: {} as Record<string, number> };
  return { at, trials: heads.filter((h) => revs[h.id] !== h.rev).length };
}
