import { useEffect, useEffectEvent, useRef } from 'react';
import { useFetchers, useNavigation, useRevalidator } from 'react-router';
import { followBench } from '../store/follow';

/** So long a change is left to what this tab itself is doing. */
const PAUSE_MS = 100;

/**
 * Reads the screen's data again when another tab of the same bench changed a trial. Never while this tab is sending or
 * going somewhere: reading again would drop where its own action sends it.
 */
export function useOtherTabs(): void {
  const { revalidate } = useRevalidator();
  const going = useNavigation().state !== 'idle';
  const sending = useFetchers().some((f) => f.state !== 'idle');
  const busy = going || sending;
  const changed = useRef(false);
  const readAgain = useEffectEvent(() => {
    if (!changed.current || busy) return;
    changed.current = false;
    void revalidate();
  });
  useEffect(() => {
    let timer = 0;
    const stop = followBench(() => {
      changed.current = true;
      window.clearTimeout(timer);
      timer = window.setTimeout(readAgain, PAUSE_MS);
    });
    return () => {
      stop();
      window.clearTimeout(timer);
    };
  }, []);
  useEffect(() => {
    if (busy) return;
    const timer = window.setTimeout(readAgain, PAUSE_MS);
    return () => window.clearTimeout(timer);
  }, [busy]);
}
