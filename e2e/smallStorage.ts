import type { Visitor } from './visitor';

/** Gives a visitor's address 30 MB. @returns what fills it to the last kilobyte, and what makes room again */
export async function smallStorage({ page }: Visitor, origin: string) {
  const session = await page.createCDPSession();
  await session.send('Storage.overrideQuotaForOrigin', { origin, quotaSize: 30_000_000 });
  return {
    /** Another database of this address takes all that is left. */
    fill: () =>
      page.evaluate(async () => {
        const db = await new Promise<IDBDatabase>((done) => {
          const asked = indexedDB.open('filler');
          asked.onupgradeneeded = () => asked.result.createObjectStore('bytes', { autoIncrement: true });
          asked.onsuccess = () => done(asked.result);
        });
        const put = (size: number) =>
          new Promise<boolean>((done) => {
            const t = db.transaction('bytes', 'readwrite');
            t.objectStore('bytes').add(crypto.getRandomValues(new Uint8Array(Math.min(size, 65_536))));
            for (let more = size - 65_536; more > 0; more -= 65_536)
              t.objectStore('bytes').add(crypto.getRandomValues(new Uint8Array(65_536)));
            t.oncomplete = () => done(true);
            t.onabort = () => done(false);
          });
        for (const size of [4_000_000, 400_000, 40_000, 4000, 400]) while (await put(size));
        db.close();
      }),
    free: () =>
      page.evaluate(
        () =>
          new Promise<void>((done) => {
            indexedDB.deleteDatabase('filler').onsuccess = () => done();
          }),
      ),
  };
}
