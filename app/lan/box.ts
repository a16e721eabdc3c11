import { z } from 'zod';

/** The server's letter-box, as far as this page can reach it. Only the origin the app came from is ever asked. */

export const Role = z.enum(['log', 'taste', 'help']);
export type Role = z.infer<typeof Role>;

const Here = z.object({ fingerprint: z.string(), addresses: z.array(z.string()) });
const Paired = z.object({ device: z.string(), token: z.string(), role: Role, host: z.string().nullable() });
const Peer = z.object({ id: z.string(), name: z.string(), role: Role, invite: z.string(), seen: z.number() });
const Devices = z.object({ id: z.string(), role: Role, peers: z.array(Peer) });
const Letters = z.array(z.object({ id: z.string(), from: z.string(), role: Role, size: z.number() }));

type Here = z.infer<typeof Here>;
export type PeerThere = z.infer<typeof Peer>;

/** What the letter-box said no with; status 0: it can't be reached. */
export class BoxError extends Error {
  readonly status: number;
  constructor(status: number, message: string) {
    super(message);
    this.status = status;
  }
}

async function ask(path: string, token: string | null, init: RequestInit = {}): Promise<Response> {
  let answer: Response;
  try {
    answer = await fetch(`/lan${path}`, {
      ...init,
      headers: { ...init.headers, ...(token && { Authorization: `Bearer ${token}` }) },
      cache: 'no-store',
    });
  } catch {
    throw new BoxError(
      0,
      'The desk isn’t reached: is it in this network, and is Palazzo running with --lan?',
    );
  }
  if (answer.ok) return answer;
  const errorBody = z.object({ error: z.string() }).safeParse(await answer.json().catch(() => null));
  throw new BoxError(
    answer.status,
    errorBody.success ? errorBody.data.error : 'The letter-box didn’t understand.',
  );
}

const asJson = (body: unknown): RequestInit => ({
  method: 'POST',
  body: JSON.stringify(body),
  headers: { 'Content-Type': 'application/json' },
});

/** What is served here in the network; null where this isn't served with `--lan`. */
export async function lanHere(): Promise<Here | null> {
  try {
    const answer = await ask('/here', null);
    const read = Here.safeParse(await answer.json());
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}

export const pairWith = async (code: string, name: string) =>
  Paired.parse(await (await ask('/pair', null, asJson({ code, name }))).json());

export const invite = async (token: string, role: Role) =>
  z
    .object({ code: z.string(), id: z.string() })
    .parse(await (await ask('/invites', token, asJson({ role }))).json());

export const devices = async (token: string) => Devices.parse(await (await ask('/devices', token)).json());

export const forgetDevice = (token: string, id: string) =>
  ask(`/devices/${encodeURIComponent(id)}`, token, { method: 'DELETE' });

/** @returns the letter's number in the box, by which it is answered */
export const postLetter = async (
  token: string,
  to: string,
  letter: Uint8Array<ArrayBuffer>,
): Promise<string> => {
  const answer = await ask(`/letters/${encodeURIComponent(to)}`, token, {
    method: 'POST',
    body: letter,
    headers: { 'Content-Type': 'application/octet-stream' },
  });
  return z.object({ id: z.string() }).parse(await answer.json()).id;
};

export const lettersFor = async (token: string) => Letters.parse(await (await ask('/letters', token)).json());

export const readLetter = async (token: string, id: string) =>
  new Uint8Array(await (await ask(`/letters/${id}`, token)).arrayBuffer());

export const letterCollected = (token: string, id: string) =>
  ask(`/letters/${id}`, token, { method: 'DELETE' });
