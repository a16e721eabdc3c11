import type { AddressInfo } from 'node:net';
import type { TestProject } from 'vitest/node';
import { serve } from '../scripts/serve.mjs';

declare module 'vitest' {
  export interface ProvidedContext {
    demoUrl: string;
    ownUrl: string;
  }
}

/** Serves the build twice, as `npm run demo` and `npm start` do. */
export default async function setup(project: TestProject) {
  const servers = await Promise.all([serve({ port: 0, bench: 'demo' }), serve({ port: 0, bench: 'own' })]);
  const [demo, own] = servers.map((s) => `http://localhost:${(s.address() as AddressInfo).port}`);
  project.provide('demoUrl', demo!);
  project.provide('ownUrl', own!);
  return () => servers.forEach((s) => s.close());
}
