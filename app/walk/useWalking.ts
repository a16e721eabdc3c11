import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { UnitId } from '~core/model/ids';
import type { Drafts, Stop } from './capture';
import type { Stops, WalkStep } from './stops';
import { type Move, type Walking, notKept, readPutBy, setOut, storePutBy, walking } from './walking';

/** Where a walk stands: who stood at one that died goes on where work is open. Null: nothing is left to go to. */
function hereOf({ unitId, sample }: Walking<unknown>, { units, open, several }: Stops): Stop | null {
  const unit = units.find((u) => u.id === unitId) ?? units.find((u) => open(u) !== undefined) ?? units[0];
  return unit ? { unit, sample: sample === undefined ? (open(unit) ?? (several ? 1 : null)) : sample } : null;
}

/**
 * A walk in hand. What is typed and isn't kept when the page goes away (another trait, another room, loaded anew) is put by
 * in this tab.
 *
 * @param scope the trial, round and trait
 * @returns the walk, where it stands, and two functions, always the same: one that makes a move, one that goes to a unit
 */
export function useWalking<D>(scope: string, drafts: Drafts<D>, stops: Stops, startAt: UnitId | undefined) {
  const [walk, setWalk] = useState(() => {
    const first = startAt ?? stops.units.find((u) => stops.open(u) !== undefined)?.id ?? stops.units[0]?.id;
    return setOut(drafts, first, readPutBy(scope, drafts));
  });
  const at = hereOf(walk, stops);
  const here: WalkStep | null = at && { unitId: at.unit.id, sample: at.sample };
  const now = useRef({ walk, here, drafts });
  const move = useCallback(
    (by: Move<D>) => {
      const next = walking(now.current.walk, by, now.current.drafts);
      // At once: a page that goes away within the same turn leaves nothing behind that was sent.
      now.current.walk = next;
      setWalk(next);
      if (!('put' in by || 'asking' in by || 'fault' in by)) storePutBy(scope, next.putBy);
    },
    [scope],
  );
  useLayoutEffect(() => {
    const was = now.current.here;
    now.current = { ...now.current, here, drafts };
    // The unit died meanwhile, in another tab: what is typed is its own, not the next one's.
    if (was && here && was.unitId !== here.unitId && now.current.walk.unitId === was.unitId)
      move({ leave: was, go: here.unitId });
  });
  useEffect(() => {
    const leave = () => {
      const { walk, here, drafts } = now.current;
      storePutBy(scope, notKept(walk, drafts, here));
    };
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, [scope]);
  const pick = useCallback(
    (go: UnitId) => {
      const { here } = now.current;
      if (here && here.unitId !== go) move({ leave: here, go });
    },
    [move],
  );
  return { walk, at, move, pick };
}
