import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';

/**
 * SHA-256 over all numbers of a series, times first: what a line of the log names its readings by.
 * @param columns one array a column, NaN where nothing was read
 */
export function readingsSha256(times: Float64Array, columns: readonly Float64Array[]): string {
  const hash = sha256.create();
  for (const list of [times, ...columns])
    hash.update(new Uint8Array(list.buffer, list.byteOffset, list.byteLength));
  return bytesToHex(hash.digest());
}
