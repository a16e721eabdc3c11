import { useCallback } from 'react';
import { useNotice } from '../ui/Notices';
import { useDeed } from './useDeed';

/** Deletes by the route's action, with an Undo that brings the thing back from the bin. */
export function useBin(): (id: string, title: string) => void {
  const deed = useDeed();
  const notice = useNotice();
  return useCallback(
    (id, title) => {
      deed({ intent: 'delete', id });
      notice({ text: `${title} is in the bin.`, undo: () => deed({ intent: 'restore', id }) });
    },
    [deed, notice],
  );
}
