import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Config } from '@react-router/dev/config';
import { manifestIn, withPreloads } from './scripts/preloads.mjs';
import { writeServiceWorker } from './scripts/offline.mjs';

const client = fileURLToPath(new URL('./build/client/', import.meta.url));

export default {
  appDirectory: 'app',
  ssr: false,
  future: {
    v8_middleware: true,
    v8_splitRouteModules: true,
    v8_viteEnvironmentApi: true,
    v8_passThroughRequests: true,
    v8_trailingSlashAwareDataRequests: true,
  },
  /** The page names what its address needs; every file of the build goes into the service worker's list: each room, worker and font works without a server. */
  async buildEnd() {
    const manifest = readdirSync(`${client}assets`).find((f) => /^manifest-.*\.js$/.test(f))!;
    const page = readFileSync(`${client}index.html`, 'utf8');
    const routes = manifestIn(readFileSync(`${client}assets/${manifest}`, 'utf8'));
    writeFileSync(`${client}index.html`, withPreloads(page, routes));
    await writeServiceWorker(client);
  },
} satisfies Config;
