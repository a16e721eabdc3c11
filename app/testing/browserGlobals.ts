import 'fake-indexeddb/auto';

/** The few browser objects the store touches, for tests that run in Node. */
const stored = new Map<string, string>();

Object.assign(globalThis, {
  sessionStorage: {
    getItem: (k: string) => stored.get(k) ?? null,
    setItem: (k: string, v: string) => void stored.set(k, v),
  },
  document: { querySelector: () => null },
  window: Object.assign(new EventTarget(), {
    location: { assign: () => {}, pathname: '/trial/x', search: '?view=y' },
  }),
});

/** Puts this “tab” on a bench. */
export const onBench = (name: 'demo' | 'own') => stored.set('palazzo-bench', name);

/** Makes this the tab of that name. */
export const inTab = (name: string) => stored.set('palazzo-tab', name);
