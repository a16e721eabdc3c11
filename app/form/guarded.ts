import { sayStorageFault } from '../store/errors';
import { answerTo } from './handedOver';
import type { ActionResult } from './schemaFields';

/** The path of a message that belongs to no field: what is typed is right, and wasn't stored. */
export const NOT_STORED = 'notStored';

/**
 * A route's action that answers where the browser doesn't store (full, cleared, held by another tab), instead of
 * throwing: the page stays, with all that is typed in it.
 */
export const guarded =
  <A extends { request: Request }, R>(action: (args: A) => Promise<R>) =>
  async (args: A): Promise<R | ActionResult> => {
    const result = await answerOf(action, args);
    answerTo(args.request, result);
    return result;
  };

async function answerOf<A, R>(action: (args: A) => Promise<R>, args: A): Promise<R | ActionResult> {
  try {
    return await action(args);
  } catch (fault) {
    // A redirect travels as a response.
    if (fault instanceof Response) throw fault;
    const message = `${sayStorageFault(fault)} What is typed here stays.`;
    return { errors: { [NOT_STORED]: message } };
  }
}
