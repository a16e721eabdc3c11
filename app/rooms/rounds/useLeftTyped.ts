import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { UnitId } from '~core/model/ids';
import { type LeftTyped, isBlank, leftOf, putBy, takeAway } from './leftTyped';

/**
 * What is typed on a pad and isn't kept when its unit is left (another one is tapped, another room gone to, the page
 * loaded anew) is put by, to be taken up again.
 *
 * @param scope the trial, round and trait
 * @param now what stands on the pad; null where there is none
 * @param goTo goes to a unit; must stay the same function
 * @returns `pick` to go to a unit and leave this one, `leave` before another is gone to otherwise, `kept` when what stands
 *   there was sent to the log, `refused` where the log didn't take it
 */
export function useLeftTyped(scope: string, now: LeftTyped | null, goTo: (id: UnitId) => void) {
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
  const pick = useCallback(
    (id: UnitId) => {
      leave();
      goTo(id);
    },
    [leave, goTo],
  );
  const drop = useCallback(
    (at: Pick<LeftTyped, 'unitId' | 'sample'>) => {
      const still = takeAway(scope, at);
      setLeft((before) => (before.length === 0 && still.length === 0 ? before : still));
    },
    [scope],
  );
  const kept = () => {
    pad.current = null;
    // A page that was hidden and came back has it on the pad and put by.
    if (now) drop(now);
  };
  const refused = useCallback((at: LeftTyped) => setLeft(putBy(scope, at)), [scope]);
  return { left, leave, pick, kept, refused, drop };
}
