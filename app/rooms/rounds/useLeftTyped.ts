import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { type LeftTyped, isBlank, leftOf, putBy, takeAway } from './leftTyped';

/**
 * What is typed on a pad and isn't kept when its unit is left (another one is tapped, another room gone to, the page
 * loaded anew) is put by, to be taken up again.
 *
 * @param scope the trial, round and trait
 * @param now what stands on the pad; null where there is none
 * @returns `leave` before another unit is gone to, `kept` when what stands there was sent to the log, `refused` where
 *   the log didn't take it
 */
export function useLeftTyped(scope: string, now: LeftTyped | null) {
  const [left, setLeft] = useState(() => leftOf(scope));
  const pad = useRef<LeftTyped | null>(null);
  useLayoutEffect(() => {
    pad.current = now;
  });
  const putByNow = useCallback(() => {
    const at = pad.current;
    pad.current = null;
    return at && !isBlank(at) ? putBy(scope, at) : null;
  }, [scope]);
  useEffect(() => {
    window.addEventListener('pagehide', putByNow);
    return () => {
      window.removeEventListener('pagehide', putByNow);
      putByNow();
    };
  }, [putByNow]);
  const leave = useCallback(() => {
    const all = putByNow();
    if (all) setLeft(all);
  }, [putByNow]);
  const drop = useCallback(
    (at: Pick<LeftTyped, 'unitId' | 'sample'>) => setLeft(takeAway(scope, at)),
    [scope],
  );
  const kept = () => {
    pad.current = null;
    if (now && left.length > 0) drop(now);
  };
  const refused = useCallback((at: LeftTyped) => setLeft(putBy(scope, at)), [scope]);
  return { left, leave, kept, refused, drop };
}
