import { sha256Of } from '../plan/seal';

/** Id and SHA-256 of a line. */
type LineHash = [id: string, sha256: string];

const idOf = (line: unknown): string =>
  typeof line === 'object' && line !== null && 'id' in line && typeof line.id === 'string' ? line.id : '?';

/** Lines never change: each is hashed once. */
const hashes = new WeakMap<object, LineHash>();

/** Each line's hash, in the order of the log. */
export const lineHashes = (log: readonly unknown[]): LineHash[] =>
  log.map((line) => {
    const known = typeof line === 'object' && line !== null ? hashes.get(line) : undefined;
    if (known) return known;
    const made: LineHash = [idOf(line), sha256Of(line)];
    if (typeof line === 'object' && line !== null) hashes.set(line, made);
    return made;
  });

/** One hash for a plan's own and those of its lines: SHA-256 of both in canonical JSON. */
export const signedBy = (plan: string, lines: readonly LineHash[]): string => sha256Of([plan, lines]);

/**
 * One hash for a whole record, plan and log: whoever knows it can tell any change of either.
 * @param plan as it was planned, without units that came later
 */
export const signedOf = (plan: unknown, log: readonly unknown[]): string =>
  signedBy(sha256Of(plan), lineHashes(log));
