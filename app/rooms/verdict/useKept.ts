import { useCallback, useState } from 'react';
import { usePost } from '../../form/usePost';

/**
 * Something that is kept with every change: shown at once, sent with what it began with, so that another tab's changes
 * stay. What comes back from the store takes its place when nothing is under way.
 */
export function useKept<T>(what: 'headings' | 'claims' | 'costs', stored: T) {
  const post = usePost();
  const [state, setState] = useState({ stored, shown: stored, base: stored });
  if (state.stored !== stored) setState({ stored, shown: stored, base: stored });
  const { shown, base } = state;
  const show = useCallback((next: T) => setState((s) => ({ ...s, shown: next })), []);
  const keep = useCallback(
    (next: T) => {
      setState((s) => ({ ...s, shown: next, base: next }));
      post({ what, form: { base, values: next } });
    },
    [post, what, base],
  );
  return { shown, show, keep };
}
