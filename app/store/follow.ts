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
  let seen: ReadonlyMap<string, number> | null = null;
  void bench()
    .then((db) => {
      if (gone) return;
      const following = liveQuery(() => db.heads.toArray()).subscribe({
        next: (heads) => {
          const before = seen;
          seen = new Map(heads.map((h) => [h.id, h.rev]));
          // What this tab wrote itself is in its memory. At first what it has read tells, if it has read any of it.
          const moved = heads.some((h) => {
            const own = knownRev(h.id);
            return before === null
              ? own !== undefined && own !== h.rev
              : before.get(h.id) !== h.rev && own !== h.rev;
          });
          if (moved || (before !== null && before.size !== heads.length)) onChange();
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
