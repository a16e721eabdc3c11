import { useCallback, useState } from 'react';
import { useSend } from '../../form/usePost';

/**
 * Something that is kept with every change: shown at once, sent with what it began with, so that another tab's changes
 * stay. What comes back from the store takes its place when nothing is under way.
 * @returns `keeping` until the store has it
 */
export function useKept<T>(what: 'headings' | 'claims' | 'costs', stored: T) {
  const send = useSend();
  const [underWay, setUnderWay] = useState(0);
  const [state, setState] = useState({ stored, shown: stored, base: stored });
  if (state.stored !== stored) setState({ stored, shown: stored, base: stored });
  const { shown, base } = state;
  const show = useCallback((next: T) => setState((s) => ({ ...s, shown: next })), []);
  const keep = useCallback(
    (next: T) => {
      setState((s) => ({ ...s, shown: next, base: next }));
      setUnderWay((n) => n + 1);
      void send({ what, form: { base, values: next } }).finally(() => setUnderWay((n) => n - 1));
    },
    [send, what, base],
  );
  return { shown, show, keep, keeping: underWay > 0 };
}
