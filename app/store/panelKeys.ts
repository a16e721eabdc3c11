import type { PanelKey } from '~core/model/panel';
import { bench } from './bench';

/** What is in the cups of a session, where this device knows it; undefined where another one holds the key. */
export const panelKeyOf = async (trialId: string, sessionId: string): Promise<PanelKey | undefined> =>
  (await (await bench()).panelKeys.get([trialId, sessionId]))?.key;

/** Sessions of a trial whose key is on this device. */
export const panelKeysHere = async (trialId: string): Promise<ReadonlySet<string>> =>
  new Set(
    (await (await bench()).panelKeys.where('trialId').equals(trialId).toArray()).map((r) => r.sessionId),
  );

/** Keeps a key that came from the server's device. */
export const keepPanelKey = async (trialId: string, key: PanelKey): Promise<void> =>
  void (await (await bench()).panelKeys.put({ trialId, sessionId: key.sessionId, key }));
