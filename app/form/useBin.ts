import { useCallback } from 'react';
import { useNotice } from '../ui/Notices';
import { usePost } from './usePost';

/** Deletes by the route's action, with an Undo that brings the thing back from the bin. */
export function useBin(): (id: string, title: string) => void {
  const post = usePost();
  const notice = useNotice();
  return useCallback(
    (id, title) => {
      post({ intent: 'delete', id });
      notice({ text: `${title} is in the bin.`, undo: () => post({ intent: 'restore', id }) });
    },
    [post, notice],
  );
}
