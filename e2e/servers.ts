import { mkdtempSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { certificate } from '../scripts/lan/authority.mjs';
import { serve } from '../scripts/serve.mjs';

declare module 'vitest' {
  export interface ProvidedContext {
    demoUrl: string;
    ownUrl: string;
    /** served as `npm start -- --lan` does */
    lanUrl: string;
    /** codes that pair a first device there */
    lanCodes: string[];
  }
}

/** Serves the build twice, as `npm run demo` and `npm start` do. */
export default async function setup(project: TestProject) {
  const folder = mkdtempSync(join(tmpdir(), 'palazzo-authority-'));
  const lan = await certificate({ folder, addresses: [] });
  const servers = await Promise.all([
    serve({ port: 0, bench: 'demo' }),
    serve({ port: 0, bench: 'own' }),
    serve({ port: 0, bench: 'own', lan }),
  ]);
  const [demo, own] = servers.map((s) => `http://localhost:${(s.address() as AddressInfo).port}`);
  project.provide('demoUrl', demo!);
  project.provide('ownUrl', own!);
  const { box } = servers[2];
  project.provide('lanUrl', `https://localhost:${(servers[2].address() as AddressInfo).port}`);
  project.provide('lanCodes', [box!.invite().code, box!.invite().code]);
  return () => servers.forEach((s) => s.close());
}
