import { useCallback } from 'react';
import { useFormAction, useSubmit } from 'react-router';
import { newId } from '~core/model/newId';
import { handOver } from './handedOver';

const sending = new EventTarget();

/** What was sent, and when the screen has been worked out anew with it, or it was refused. */
interface Sent {
  data: object;
  done: Promise<void>;
}

/** Hears of all that is sent, at once. @returns a function that stops it */
export function onSent(hear: (sent: Sent) => void): () => void {
  const listen = (e: Event) => hear((e as CustomEvent<Sent>).detail);
  sending.addEventListener('sent', listen);
  return () => sending.removeEventListener('sent', listen);
}

/**
 * Posts one value to the route's action, each on its own: several may be under way (a fast hand on the
 * pad), and a later one must never cancel an earlier. The action answers by `announce`.
 *
 * @param tiles what is sent is shown by the tiles of a plan, which hear of it themselves; otherwise the whole screen
 *   is drawn with it in the very next frame, before anything is written
 */
export function usePost({ tiles = false } = {}): (data: object) => void {
  const submit = useSubmit();
  const action = useFormAction();
  return useCallback(
    (data) => {
      const key = newId();
      const done = submit(data as never, {
        action: handOver(data, { action, key }),
        method: 'post',
        encType: 'application/json',
        navigate: false,
        flushSync: !tiles,
        fetcherKey: key,
      });
      sending.dispatchEvent(new CustomEvent<Sent>('sent', { detail: { data, done } }));
    },
    [submit, action, tiles],
  );
}
