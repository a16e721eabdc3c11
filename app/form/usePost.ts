import { useCallback } from 'react';
import { useSubmit } from 'react-router';
import { newId } from '~core/model/newId';

/**
 * Posts one value to the route's action, each on its own: several may be under way (a fast hand on the
 * pad), and a later one must never cancel an earlier. The action answers by `announce`.
 */
export function usePost(): (data: object) => void {
  const submit = useSubmit();
  return useCallback(
    (data) =>
      void submit(data as never, {
        method: 'post',
        encType: 'application/json',
        navigate: false,
        // Shown as being kept in the very next frame, not when there is time for it.
        flushSync: true,
        fetcherKey: newId(),
      }),
    [submit],
  );
}
