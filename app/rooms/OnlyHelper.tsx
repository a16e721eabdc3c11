import Button from '@mui/material/Button';
import { type ReactNode, useState } from 'react';

/** Stands before what would tell a scorer which code is which. */
export function OnlyHelper({ children, onShow }: { children: ReactNode; onShow: () => void }) {
  return (
    <div className="empty">
      <h2>Only for the helper</h2>
      <p>{children}</p>
      <Button variant="outlined" color="secondary" onClick={onShow}>
        I am the helper: show it
      </Button>
    </div>
  );
}

const keyOf = (trialId: string) => `palazzo/helper/${trialId}`;

/** Whether whoever sits at this tab mixes a blind trial and doesn't score it; said once until the tab is closed. */
export function useHelper(trialId: string): [isHelper: boolean, say: () => void] {
  const [isSaid, setSaid] = useState(() => sessionStorage.getItem(keyOf(trialId)) !== null);
  return [
    isSaid,
    () => {
      sessionStorage.setItem(keyOf(trialId), 'yes');
      setSaid(true);
    },
  ];
}

/** What goes into the bottles of a blind trial: shown to whoever says they mix and don't score. */
export function MixingClosed({ onShow }: { onShow: () => void }) {
  return (
    <OnlyHelper onShow={onShow}>
      The trial is blind. What goes into each code’s bottle, how strong it is and which one gets nothing would
      tell whoever scores: mixing is for the one who mixes and doesn’t score.
    </OnlyHelper>
  );
}
