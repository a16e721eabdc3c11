import { useCallback } from 'react';
import { useFormAction, useSubmit } from 'react-router';
import { newId } from '~core/model/newId';
import { handOver } from './handedOver';
import { announce } from '../ui/announce';
import { type ActionResult, saidBy } from './schemaFields';

const sending = new EventTarget();

/** What was sent, and when the screen has been worked out anew with it, or it was refused. */
interface Sent {
  data: object;
  done: Promise<void>;
}

let underWay = 0;
const onLeave = (e: BeforeUnloadEvent) => e.preventDefault();

/** Whoever closes or reloads the page before what was sent is answered is asked first: it would be lost unseen. */
async function askedUntil(over: Promise<unknown>): Promise<void> {
  underWay += 1;
  if (underWay === 1) window.addEventListener('beforeunload', onLeave);
  await over.catch(() => undefined);
  underWay -= 1;
  if (underWay === 0) window.removeEventListener('beforeunload', onLeave);
}

/** Hears of all that is sent, at once. @returns a function that stops it */
export function onSent(hear: (sent: Sent) => void): () => void {
  const listen = (e: Event) => hear((e as CustomEvent<Sent>).detail);
  sending.addEventListener('sent', listen);
  return () => sending.removeEventListener('sent', listen);
}

interface Options {
  /** whoever sends says itself what came of it */
  silent?: boolean;
  /** what is sent is shown by the tiles of a plan, which hear of it themselves */
  tiles?: boolean;
}

/**
 * Sends one value to the route's action, each on its own: several may be under way (a fast hand on the pad), and a
 * later one must never cancel an earlier. What the action answers is announced. Unless tiles show it, the whole screen is
 * drawn with it in the very next frame, before anything is written.
 *
 * @returns a function that sends, and gives the action's answer; nothing where it goes elsewhere
 */
export function useSendForAnswer({ tiles = false, silent = false }: Options = {}): (
  data: object,
) => Promise<ActionResult | undefined> {
  const submit = useSubmit();
  const action = useFormAction();
  return useCallback(
    (data) => {
      const key = newId();
      const { address, answer } = handOver<ActionResult>(data, { action, key });
      const done = submit(data as never, {
        action: address,
        method: 'post',
        encType: 'application/json',
        navigate: false,
        flushSync: !tiles,
        fetcherKey: key,
      });
      sending.dispatchEvent(new CustomEvent<Sent>('sent', { detail: { data, done } }));
      // An action that goes elsewhere says nothing.
      const over = Promise.race([answer, done.then(() => undefined)]);
      void askedUntil(over);
      return over.then((result) => {
        const text = result && saidBy(result);
        if (!silent && text) announce('errors' in result ? `Not kept: ${text}` : text);
        return result;
      });
    },
    [submit, action, tiles, silent],
  );
}

/** As `useSendForAnswer`. @returns a function that sends, and says whether it was kept: what was typed is cleared then */
export function useSend(options: Options = {}): (data: object) => Promise<boolean> {
  const send = useSendForAnswer(options);
  return useCallback((data) => send(data).then(isKept), [send]);
}

const isKept = (answer: ActionResult | undefined): boolean =>
  !answer || !('errors' in answer || 'conflicts' in answer);

/** As `useSendForAnswer`, where nothing waits for it: what is sent stays on the screen, or is named where it isn't kept. */
export function usePost(options: Options = {}): (data: object) => void {
  const send = useSendForAnswer(options);
  return useCallback((data) => void send(data), [send]);
}
