import { useCallback, useMemo, useState } from 'react';
import type { Plan } from '~core/model/plan';
import { timeNow, todayDate } from '../ui/clock';
import type { When } from '../form/happened';
import { type Occasion, type Sitting, faultOfSitting, plannedDay, usualSitting, whenOf } from './sitting';

/** A sitting as the screen holds it. */
export interface SittingInHand {
  said: Sitting;
  say: (said: Sitting) => void;
  /** the day the occasion was planned for */
  planned: string | null;
  /** when its acts are written to have happened */
  when: When;
  /** why it can't have been then: nothing is written */
  fault: string | null;
}

/**
 * When what is written at this sitting happened: asked once, for all traits and units of it, and kept as long as the tab and
 * the day last.
 */
export function useSitting(plan: Pick<Plan, 'id' | 'startDate'>, occasion: Occasion): SittingInHand {
  const today = todayDate();
  const { id: planId, startDate } = plan;
  const { id, day } = occasion;
  const key = `palazzo-sitting/${planId}/${id}/${today}`;
  const read = (): Sitting => {
    const stored = sessionStorage.getItem(key);
    return stored === null ? usualSitting(plan, occasion, today) : (JSON.parse(stored) as Sitting);
  };
  const [held, setHeld] = useState(() => ({ key, said: read() }));
  if (held.key !== key) setHeld({ key, said: read() });
  const { said } = held;
  const say = useCallback(
    (to: Sitting) => {
      sessionStorage.setItem(key, JSON.stringify(to));
      setHeld({ key, said: to });
    },
    [key],
  );
  const planned = plannedDay({ startDate }, { day });
  return useInHand(said, say, planned);
}

/** What is said, with all that follows from it now. */
function useInHand(said: Sitting, say: (said: Sitting) => void, planned: string | null): SittingInHand {
  const [today, now] = [todayDate(), timeNow()];
  return useMemo(
    () => ({
      ...{ said, say, planned },
      when: whenOf(said, planned, today),
      fault: faultOfSitting(said, today, now),
    }),
    [said, say, planned, today, now],
  );
}

/** A moment of its own for one act within a sitting: the others of the sitting keep theirs. */
export function useMomentWithin({ said: begun, planned }: SittingInHand): SittingInHand {
  const [said, say] = useState(begun);
  return useInHand(said, say, planned);
}
