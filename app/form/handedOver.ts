/** Where an action's address says under which key its data lies. */
const PARAMETER = 'handed';

const underWay = new Map<string, unknown>();

/**
 * Hands data over to the route's own action in memory: read back out of a request they cost a frame and more, since
 * the browser fetches even a body made in the page from another process.
 *
 * @returns the action's address with the key in it
 */
export function handOver(data: object, { action, key }: { action: string; key: string }): string {
  // As it would come out of the request.
  underWay.set(key, JSON.parse(JSON.stringify(data)));
  return `${action}${action.includes('?') ? '&' : '?'}${PARAMETER}=${key}`;
}

/** What was sent to an action: as it was handed over, else as the request has it. */
export async function sentIn(request: Request): Promise<unknown> {
  const key = new URL(request.url).searchParams.get(PARAMETER);
  if (key === null || !underWay.has(key)) return request.json();
  const data = underWay.get(key);
  underWay.delete(key);
  return data;
}
