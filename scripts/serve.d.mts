import type { Server } from 'node:http';
import type { Certificate } from './lan/authority.mjs';
import type { LetterBox } from './lan/letterBox.mjs';

export function serve(options: {
  port: number;
  bench: 'demo' | 'own';
  host?: string;
  lan?: Certificate & { box?: LetterBox };
}): Promise<Server & { box?: LetterBox }>;
