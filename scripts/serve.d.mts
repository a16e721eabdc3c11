import type { Server } from 'node:http';

export function serve(options: { port: number; bench: 'demo' | 'own'; host?: string }): Promise<Server>;
