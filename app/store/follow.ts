import { liveQuery } from 'dexie';
import { bench } from './bench';
import { knownRev } from './trialMemory';

const beside = new EventTarget();

/** Says that this tab wrote something no screen of it asked for: a letter that came in. */
export const tellWrittenBeside = (): void => void beside.dispatchEvent(new Event('written'));

/**
 * Calls back when a trial of this bench was changed by somebody else: another tab, an import. The database tells; no
 * message of our own has to arrive.
 */
export function followBench(onChange: () => void): () => void {
  let gone = false;
  let stop = () => {};
  let seen: string | null = null;
  void bench()
    .then((db) => {
      if (gone) return;
      const following = liveQuery(() => db.heads.toArray()).subscribe({
        next: (heads) => {
          const now = heads.map((h) => h.id).join();
          const ours = heads.every((h) => knownRev(h.id) === undefined || knownRev(h.id) === h.rev);
          const changed = seen !== null && (!ours || now !== seen);
          seen = now;
          if (changed) onChange();
        },
      });
      stop = () => following.unsubscribe();
    })
    .catch(() => undefined);
  beside.addEventListener('written', onChange);
  return () => {
    gone = true;
    beside.removeEventListener('written', onChange);
    stop();
  };
}
