import { bench } from '../store/bench';
import { inLock } from '../store/locks';
import { BoxError } from './box';
import { type Collected, collect } from './incoming';
import { send, sendJobs } from './outgoing';
import { type KnownPeer, pairing, refreshPeers } from './pairing';

/** What came of one exchange. */
export interface Exchange extends Collected {
  /** trials put into the letter-box */
  sent: number;
  /** what lies in the letter-box until the other is opened, and what waits for a word over there; whoever keeps all is left out */
  open: { name: string; trials: number; waiting: number }[];
  /** why nothing could be exchanged, in words; null where it went through */
  fault: string | null;
}

export const nothingExchanged: Exchange = {
  ...{ sent: 0, received: 0, aside: 0, clashes: 0, waiting: 0 },
  ...{ open: [], fault: null },
};

/** What another device hasn't said yet that it keeps. */
async function openAt({ id, name }: KnownPeer): Promise<Exchange['open'][number]> {
  const known = (await pairing())?.peers.find((p) => p.id === id)?.trials ?? {};
  const heads = await (await bench()).heads.toArray();
  const trials = heads.filter((h) => (known[h.id]?.kept ?? -1) < h.rev).length;
  const waiting = heads.reduce((sum, h) => sum + (known[h.id]?.waiting ?? 0), 0);
  return { name, trials, waiting };
}

/** Exchanges everything that changed with all paired devices, one tab at a time. */
export const exchange = (): Promise<Exchange> =>
  inLock('palazzo/lan', async () => {
    const now = await pairing();
    if (!now) return nothingExchanged;
    try {
      const peers = await refreshPeers(now);
      const came = await collect(now, peers);
      let sent = 0;
      const open: Exchange['open'] = [];
      if (now.role === 'log') {
        const others = (await pairing())?.peers.filter((p) => p.id !== null && p.role === 'log') ?? [];
        for (const peer of others) {
          sent += await send(now, peer);
          const lies = await openAt(peer);
          if (lies.trials + lies.waiting > 0) open.push(lies);
        }
        const helpers = peers.filter((p) => p.id !== null && p.role === 'help');
        for (const peer of helpers) await sendJobs(now, peer);
      }
      return { ...came, sent, open, fault: null };
    } catch (e) {
      if (e instanceof BoxError) return { ...nothingExchanged, fault: e.message };
      throw e;
    }
  });
