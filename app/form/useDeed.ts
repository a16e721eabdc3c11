import { useCallback } from 'react';
import { useSubmit } from 'react-router';

/**
 * Sends one deed to the route's action, each on its own: several may be under way (a fast hand on the
 * pad), and a later one must never cancel an earlier. The action answers by `announce`.
 */
export function useDeed(): (data: object) => void {
  const submit = useSubmit();
  return useCallback(
    (data) =>
      void submit(data as never, {
        method: 'post',
        encType: 'application/json',
        navigate: false,
        fetcherKey: crypto.randomUUID(),
      }),
    [submit],
  );
}
