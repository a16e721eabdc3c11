/** What on the page isn't kept yet, by who said so, as a sentence begins with it; the newest last. */
const held = new Map<symbol, string>();
const asking = new EventTarget();

const onLeave = (e: BeforeUnloadEvent) => e.preventDefault();

/** Whoever leaves the page, or a part of it, is asked first. @returns a function that lets go */
export function holdPage(what: string): () => void {
  const who = Symbol(what);
  held.set(who, what);
  if (held.size === 1) window.addEventListener('beforeunload', onLeave);
  return () => {
    held.delete(who);
    if (held.size === 0) window.removeEventListener('beforeunload', onLeave);
  };
}

/** What would be lost by leaving; null where nothing would. */
export const wouldBeLost = (): string | null => [...held.values()].at(-1) ?? null;

/** Goes on to another part of the same page, at once or when the person says so. */
export function leaveFor(go: () => void): void {
  if (wouldBeLost() === null) go();
  else asking.dispatchEvent(new CustomEvent('ask', { detail: go }));
}

/** Hears of parts that are to be left while something on them isn't kept. @returns a function that stops it */
export function onAsked(hear: (go: () => void) => void): () => void {
  const listen = (e: Event) => hear((e as CustomEvent<() => void>).detail);
  asking.addEventListener('ask', listen);
  return () => asking.removeEventListener('ask', listen);
}
