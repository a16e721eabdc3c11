import type { Entry } from '~core/log/entry';

const commits = new EventTarget();

/** Says that lines of a trial are in the database: heard before screens are worked out anew. */
export const tellCommitted = (entries: readonly Entry[]): void =>
  void commits.dispatchEvent(new CustomEvent('committed', { detail: entries }));

/** Hears of lines as they are committed. @returns a function that stops it */
export function onCommitted(hear: (entries: readonly Entry[]) => void): () => void {
  const listen = (e: Event) => hear((e as CustomEvent<readonly Entry[]>).detail);
  commits.addEventListener('committed', listen);
  return () => commits.removeEventListener('committed', listen);
}
