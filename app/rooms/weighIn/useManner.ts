import { useState } from 'react';
import { type Manner, manners } from './Container';

const keyOf = (trialId: string) => `palazzo/weighed/${trialId}`;

/** How a trial's harvest is weighed: asked once, remembered in this tab. */
export function useManner(trialId: string): [Manner, (manner: Manner) => void] {
  const [manner, setManner] = useState<Manner>(() => {
    const stored = sessionStorage.getItem(keyOf(trialId));
    return (Object.keys(manners) as Manner[]).find((m) => m === stored) ?? 'same';
  });
  return [
    manner,
    (to) => {
      sessionStorage.setItem(keyOf(trialId), to);
      setManner(to);
    },
  ];
}
