import { useEffect, useState } from 'react';
import { blobUrls } from '../../../store/blobUrls';

/** Addresses of pictures by what they are of, once they are read. @param of pairs of a name and a picture's hash */
export function usePictures(
  of: readonly (readonly [name: string, hash: string])[],
): ReadonlyMap<string, string> {
  const [urls, setUrls] = useState<ReadonlyMap<string, string>>(new Map());
  const hashes = of.map(([, hash]) => hash).join();
  useEffect(() => {
    let gone = false;
    if (hashes !== '') void blobUrls(hashes.split(',')).then((found) => !gone && setUrls(found));
    return () => {
      gone = true;
    };
  }, [hashes]);
  return new Map(of.flatMap(([name, hash]) => (urls.has(hash) ? [[name, urls.get(hash)!]] : [])));
}
