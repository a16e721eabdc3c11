const announcements = new EventTarget();

/** Says something from outside React: how an action answers when several are under way. */
export function announce(text: string): void {
  announcements.dispatchEvent(new CustomEvent('say', { detail: text }));
}

/** Hears what is announced. @returns a function that stops it */
export function onAnnouncement(hear: (text: string) => void): () => void {
  const listen = (e: Event) => hear((e as CustomEvent<string>).detail);
  announcements.addEventListener('say', listen);
  return () => announcements.removeEventListener('say', listen);
}
