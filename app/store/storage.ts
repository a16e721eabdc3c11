/** What the browser says of the room it gives, where it says anything. */
export interface StorageRoom {
  /** bytes used and left; null where the browser doesn't say */
  used: number | null;
  left: number | null;
  /** it promised not to clear this by itself; null where it can't be asked */
  lasting: boolean | null;
}

export async function storageRoom(): Promise<StorageRoom> {
  const store = (globalThis.navigator as Navigator | undefined)?.storage;
  const [estimate, lasting] = await Promise.all([
    store?.estimate?.().catch(() => null) ?? null,
    store?.persisted?.().catch(() => null) ?? null,
  ]);
  const used = estimate?.usage ?? null;
  return {
    used,
    left: estimate?.quota === undefined || used === null ? null : Math.max(0, estimate.quota - used),
    lasting,
  };
}

/** Asks the browser to keep this bench until the user clears it; some ask the user, some decide by themselves. */
export async function askToLast(): Promise<boolean> {
  try {
    return (await navigator.storage?.persist?.()) ?? false;
  } catch {
    return false;
  }
}

/** @example sayBytes(2_500_000) // '2.5 MB' */
export function sayBytes(bytes: number): string {
  const units = ['B', 'kB', 'MB', 'GB', 'TB'];
  let [value, i] = [bytes, 0];
  while (value >= 1000 && i < units.length - 1) [value, i] = [value / 1000, i + 1];
  return `${i === 0 || value >= 100 ? Math.round(value) : value.toFixed(1)} ${units[i]}`;
}
