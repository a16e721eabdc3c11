import { useCallback, useState } from 'react';
import { useSending } from '../../form/usePost';
import { type KeptState, answered, arrived, begun, drawn, sent } from './keptState';

/**
 * Something that is kept with every change: shown at once, sent with what it began with, so that another tab's changes
 * stay.
 * @returns `keeping` until the store has it; `again` where the store refused what is shown: sends it once more
 */
export function useKept<T>(what: 'headings' | 'claims' | 'costs', stored: T) {
  const send = useSending();
  const [state, setState] = useState(() => begun(stored));
  const now = arrived(state, stored);
  if (now !== state) setState(now);
  const { shown, base, underWay, refused } = now;
  const show = useCallback((next: T) => setState((s) => ({ ...s, shown: next })), []);
  const keep = useCallback(
    (next: T) => {
      const step = (by: (s: KeptState<T>) => KeptState<T>) => setState(by);
      step((s) => sent(s, next));
      const { kept, done } = send({ what, form: { base, values: next } });
      void kept.then((yes) => step((s) => answered(s, next, yes)));
      void done.finally(() => step(drawn));
    },
    [send, what, base],
  );
  return { shown, show, keep, keeping: underWay > 0, again: refused ? () => keep(shown) : null };
}
