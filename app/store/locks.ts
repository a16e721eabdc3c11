const turns = new Map<string, Promise<unknown>>();

/**
 * Runs one thing at a time under a name, over all tabs. Pages without a secure context have no locks between tabs:
 * there the database's own transactions keep changes apart, and turns are taken inside the page.
 */
export function inLock<T>(name: string, run: () => PromiseLike<T>): Promise<T> {
  const locks = typeof navigator === 'undefined' ? undefined : (navigator.locks as LockManager | undefined);
  if (locks) return locks.request(name, run) as Promise<T>;
  const mine = (turns.get(name) ?? Promise.resolve()).then(run, run);
  turns.set(name, mine);
  return mine as Promise<T>;
}
