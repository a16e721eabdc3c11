import { useCallback, useState } from 'react';
import { type KeptState, answered, arrived, begun, sent } from './keptState';
import { useSendForAnswer } from './usePost';

/** What isn't kept, why, and what can be done. */
export interface Refused {
  because: 'store' | 'otherTab';
  /** sends what is shown once more */
  again: () => void;
  /** goes back to what the store has */
  drop: () => void;
}

/**
 * Something that is kept with every change: shown at once, sent to the route's action by its name with what it
 * began with, so that another tab's changes stay.
 * @param rev of the trial that `stored` is read from
 * @returns `keeping` until the store has it
 */
export function useKept<T>(what: string, stored: T, rev: number) {
  const send = useSendForAnswer();
  const [state, setState] = useState(() => begun(stored));
  const now = arrived(state, stored, rev);
  if (now !== state) setState(now);
  const { shown, base, underWay } = now;
  const show = useCallback((next: T) => setState((s) => ({ ...s, shown: next })), []);
  const keep = useCallback(
    (next: T) => {
      const step = (by: (s: KeptState<T>) => KeptState<T>) => setState(by);
      step((s) => sent(s, next));
      void send({ what, base, values: next }).then((a) => step((s) => answered(s, next, a)));
    },
    [send, what, base],
  );
  const refused: Refused | null = now.refused && {
    because: now.refused,
    again: () => keep(shown),
    drop: () => setState(begun(stored)),
  };
  return { shown, show, keep, keeping: underWay > 0, refused };
}
