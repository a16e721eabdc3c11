/** What isn't kept yet, as a sentence begins with it. */
interface Held {
  what: string;
  /** it is on its way to the store: a moment tells whether it is kept or refused */
  isOnItsWay: boolean;
}

/** What on the page isn't kept yet, by who said so; the newest last. */
const held = new Map<symbol, Held>();
const asking = new EventTarget();

const onLeave = (e: BeforeUnloadEvent) => e.preventDefault();
const sayChanged = () => asking.dispatchEvent(new Event('held'));

/** Whoever leaves the page, or a part of it, is asked first. @returns a function that lets go */
export function holdPage(what: string, isOnItsWay = false): () => void {
  const who = Symbol(what);
  held.set(who, { what, isOnItsWay });
  if (held.size === 1) window.addEventListener('beforeunload', onLeave);
  sayChanged();
  return () => {
    held.delete(who);
    if (held.size === 0) window.removeEventListener('beforeunload', onLeave);
    sayChanged();
  };
}

/** What would be lost by leaving; null where nothing would. */
export const wouldBeLost = (): string | null => [...held.values()].at(-1)?.what ?? null;

/** Whether all that isn't kept is on its way to the store: there is nothing to ask until that is answered. */
export const isAllOnItsWay = (): boolean => held.size > 0 && [...held.values()].every((h) => h.isOnItsWay);

/** Hears of all that is held or let go. @returns a function that stops it */
export function onHeld(hear: () => void): () => void {
  asking.addEventListener('held', hear);
  return () => asking.removeEventListener('held', hear);
}

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
