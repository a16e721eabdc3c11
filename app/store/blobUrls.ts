import { bench } from './bench';

/** Addresses of kept pictures, newest use last; the oldest are given back. */
const urls = new Map<string, string>();
const MOST = 600;

/** An address each for pictures by their hash; one that isn't on this device is missing. */
export async function blobUrls(hashes: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const wanted = [...new Set(hashes)];
  const missing = wanted.filter((h) => !urls.has(h));
  if (missing.length > 0) {
    for (const row of await (await bench()).blobs.bulkGet(missing)) {
      if (row)
        urls.set(row.sha256, URL.createObjectURL(new Blob([row.bytes as BlobPart], { type: row.type })));
    }
  }
  for (const hash of wanted) {
    const url = urls.get(hash);
    if (url === undefined) continue;
    urls.delete(hash);
    urls.set(hash, url);
  }
  for (const [hash, url] of urls) {
    if (urls.size <= Math.max(MOST, wanted.length)) break;
    URL.revokeObjectURL(url);
    urls.delete(hash);
  }
  return new Map(wanted.flatMap((h) => (urls.has(h) ? [[h, urls.get(h)!]] : [])));
}
