import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { z } from 'zod';
import { lineHashes, signedBy } from '../log/record';
import { sha256Of } from '../plan/seal';

/**
 * What a trial's file says of itself: the hash of the plan and of each line, and of all of it together. Whoever changes the file
 * can change this too: that is told by the hash the reviewer posted, or by the seal a bench has seen.
 */
export const FileRecord = z.object({
  /** SHA-256 of plan.json's plan, as it stands in the file */
  plan: z.string(),
  /** id and SHA-256 of each line, in the order of the log */
  lines: z.array(z.tuple([z.string(), z.string()])),
  /** SHA-256 of each table, by its path */
  tables: z.record(z.string(), z.string()),
  /** SHA-256 of plan and lines: one figure for the whole record */
  signed: z.string(),
});
export type FileRecord = z.infer<typeof FileRecord>;

export const RECORD_FILE = 'hashes.json';

const hashOf = (bytes: Uint8Array): string => bytesToHex(sha256(bytes));

/**
 * The record of a plan and its log.
 * @param tables their bytes, by path
 */
export function recordOf(
  plan: unknown,
  log: readonly unknown[],
  tables: Readonly<Record<string, Uint8Array>> = {},
): FileRecord {
  const [hash, lines] = [sha256Of(plan), lineHashes(log)];
  return {
    plan: hash,
    lines,
    tables: Object.fromEntries(Object.entries(tables).map(([path, bytes]) => [path, hashOf(bytes)])),
    signed: signedBy(hash, lines),
  };
}
