import 'fake-indexeddb/auto';
import { type Endpoint, expose } from 'comlink';
import { demoBench } from '../demo/demoBench';

/** The few browser objects the store touches, for tests that run in Node. */
const stored = new Map<string, string>();

const storage = {
  getItem: (k: string) => stored.get(k) ?? null,
  setItem: (k: string, v: string) => void stored.set(k, v),
};

/** The one worker the store starts, the maker of the demo: across a port as there, on the same thread. */
class DemoWorker {
  constructor() {
    const { port1, port2 } = new MessageChannel();
    expose({ make: demoBench }, port2 as Endpoint);
    return Object.assign(port1, { terminate: () => port1.close() });
  }
}

Object.assign(globalThis, {
  sessionStorage: storage,
  localStorage: storage,
  Worker: DemoWorker,
  document: { querySelector: () => null },
  window: Object.assign(new EventTarget(), {
    location: { assign: () => {}, pathname: '/trial/x', search: '?view=y' },
  }),
});

/** Puts this “tab” on a bench. */
export const onBench = (name: 'demo' | 'own') => stored.set('palazzo-bench', name);

/** Makes this the tab of that name. */
export const inTab = (name: string) => stored.set('palazzo-tab', name);
