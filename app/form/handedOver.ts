/** Where an action's address says under which key its data lies. */
const PARAMETER = 'handed';

interface Handed {
  data: unknown;
  answer: (result: unknown) => void;
}

const underWay = new Map<string, Handed>();
/** Requests that were read, until they are answered. */
const read = new WeakMap<Request, Handed['answer']>();

/**
 * Hands data over to the route's own action in memory: read back out of a request they cost a frame and more, since
 * the browser fetches even a body made in the page from another process.
 *
 * @returns the action's address with the key in it, and what the action will say
 */
export function handOver<A>(
  data: object,
  { action, key }: { action: string; key: string },
): { address: string; answer: Promise<A> } {
  const answer = new Promise<A>((resolve) => {
    // As it would come out of the request.
    underWay.set(key, {
      data: JSON.parse(JSON.stringify(data)) as unknown,
      answer: resolve as Handed['answer'],
    });
  });
  return { address: `${action}${action.includes('?') ? '&' : '?'}${PARAMETER}=${key}`, answer };
}

/** What was sent to an action: as it was handed over, else as the request has it. */
export async function sentIn(request: Request): Promise<unknown> {
  const key = new URL(request.url).searchParams.get(PARAMETER);
  const handed = key === null ? undefined : underWay.get(key);
  if (key === null || !handed) return request.json();
  underWay.delete(key);
  read.set(request, handed.answer);
  return handed.data;
}

/** Says to whoever handed it over what the action came to. */
export function answerTo(request: unknown, result: unknown): void {
  if (request instanceof Request) read.get(request)?.(result);
}
