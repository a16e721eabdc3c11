import { Right } from '~core/model/right';
import { z } from 'zod';
import { safeJson } from '~core/formats/safeJson';

const sha = z.string().regex(/^[0-9a-f]{64}$/);

/** What a letter is about; a trial's zip or a text comes behind it. */
export const LetterHead = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('trial'),
    trialId: z.string().min(1).max(100),
    /** the plan the reader had as far as the writer knows: who still has it takes the new one without being asked */
    base: sha.nullable(),
    /** plans that whoever sends decided against */
    overrules: z.array(sha).max(50),
    /** the device the sender writes its own lines on */
    writer: z.string().min(1).max(40).optional(),
    /** the sender's count of changes; left out with pictures that were asked for */
    rev: z.number().int().min(0).optional(),
    /** lines of the reader's that wait for a word at the sender's */
    waiting: z.number().int().min(0).optional(),
    /** what the reader may bring unasked */
    may: Right.optional(),
  }),
  /** what it was sent is kept, up to that count of changes; which plan it has now, and how many lines wait for a word */
  z.object({
    kind: z.literal('has'),
    trialId: z.string().min(1).max(100),
    plan: sha,
    rev: z.number().int().min(0).optional(),
    waiting: z.number().int().min(0).optional(),
  }),
  /** what became of another letter, in words: it is kept, or was set aside */
  z.object({
    kind: z.literal('answer'),
    to: z.string().min(1).max(20),
    kept: z.boolean(),
    said: z.string().max(500),
  }),
  /** pictures and readings the writer lacks */
  z.object({
    kind: z.literal('wants'),
    trialId: z.string().min(1).max(100),
    photos: z.array(sha).max(5000),
    series: z.array(z.string().min(1).max(100)).max(500),
  }),
  /** a taster's answers, as the text that is pasted otherwise */
  z.object({ kind: z.literal('answers'), text: z.string().max(200_000) }),
  /** jars and tasks for a helper, under codes */
  z.object({ kind: z.literal('jobs'), text: z.string().max(500_000) }),
  /** a task the helper ticked off */
  z.object({
    kind: z.literal('ticked'),
    trialId: z.string().min(1).max(100),
    task: z.string().min(1).max(200),
  }),
]);
export type LetterHead = z.infer<typeof LetterHead>;

/** Longest head of a letter, bytes. */
const MOST_HEAD = 600_000;

/** A letter's head and what comes with it as bytes. */
export function packLetter(head: LetterHead, body: Uint8Array = new Uint8Array()): Uint8Array {
  const headBytes = new TextEncoder().encode(JSON.stringify(head));
  const packed = new Uint8Array(4 + headBytes.length + body.length);
  new DataView(packed.buffer).setUint32(0, headBytes.length);
  packed.set(headBytes, 4);
  packed.set(body, 4 + headBytes.length);
  return packed;
}

/** Reads a letter; null for what isn't one. */
export function unpackLetter(bytes: Uint8Array): { head: LetterHead; body: Uint8Array } | null {
  if (bytes.length < 4) return null;
  const length = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength).getUint32(0);
  if (length > MOST_HEAD || length > bytes.length - 4) return null;
  const read = safeJson(new TextDecoder().decode(bytes.subarray(4, 4 + length)));
  const head = read.ok ? LetterHead.safeParse(read.value) : null;
  return head?.success ? { head: head.data, body: bytes.subarray(4 + length) } : null;
}
