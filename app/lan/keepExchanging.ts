import { onCommitted } from '../store/committed';
import { sayStorageFault } from '../store/errors';
import { type Exchange, exchange, nothingExchanged } from './exchange';
import { onPairing, pairing } from './pairing';

/** How often the letter-box is looked at, ms; less often while it isn't reached. */
const EVERY_MS = 3000;
const UNREACHED_MS = 15_000;
/** A value typed is handed over after a pause, not key by key. */
const PAUSE_MS = 700;

let last: Exchange | null = null;
const told = new EventTarget();

/** What came of the last exchange. */
export const lastExchange = (): Exchange | null => last;

/** Hears of each exchange. */
export function onExchange(hear: () => void): () => void {
  told.addEventListener('exchange', hear);
  return () => told.removeEventListener('exchange', hear);
}

/** Exchanges now, and tells whoever listens. */
export async function exchangeNow(): Promise<Exchange> {
  last = await exchange();
  told.dispatchEvent(new Event('exchange'));
  return last;
}

/** Goes on exchanging as long as this device is paired and the page is looked at. @returns a function that stops it */
export function keepExchanging(): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let stopped = false;
  let running = false;
  /** One exchange. @returns how long to wait for the next; null: this device isn't paired */
  const turn = async (): Promise<number | null> => {
    try {
      if ((await pairing()) === null) return null;
      return (await exchangeNow()).fault === null ? EVERY_MS : UNREACHED_MS;
    } catch (e) {
      // Something of this page, not of the network: the next turn may find it mended.
      last = { ...nothingExchanged, fault: `Not exchanged: ${sayStorageFault(e)}` };
      told.dispatchEvent(new Event('exchange'));
      return EVERY_MS;
    }
  };
  const later = (ms: number) => {
    clearTimeout(timer);
    if (!stopped) timer = setTimeout(() => void once(), ms);
  };
  const once = async () => {
    if (running || document.visibilityState === 'hidden') return later(EVERY_MS);
    running = true;
    const wait = await turn();
    running = false;
    if (wait !== null) later(wait);
  };
  // Back in the network, or looked at again: at once.
  const soon = () => later(0);
  window.addEventListener('online', soon);
  document.addEventListener('visibilitychange', soon);
  const stops = [
    onCommitted(() => later(PAUSE_MS)),
    onPairing(soon),
    () => window.removeEventListener('online', soon),
    () => document.removeEventListener('visibilitychange', soon),
  ];
  later(PAUSE_MS);
  return () => {
    stopped = true;
    clearTimeout(timer);
    for (const stop of stops) stop();
  };
}
