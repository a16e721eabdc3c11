import type { Protocol } from './protocol';
import { indoorProtocols } from './indoor';
import { outdoorProtocols } from './outdoor';

export type { Protocol, ProtocolTrait } from './protocol';

/** Every kind of trial there is a protocol for. */
export const protocols: readonly Protocol[] = [...indoorProtocols, ...outdoorProtocols];

export const protocolOf = (id: string | null): Protocol | null => protocols.find((p) => p.id === id) ?? null;
