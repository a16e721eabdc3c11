import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Config } from '@react-router/dev/config';
import { generateSW } from 'workbox-build';
import { manifestIn, withPreloads } from './scripts/preloads.mjs';

const client = fileURLToPath(new URL('./build/client/', import.meta.url));

export default {
  appDirectory: 'app',
  ssr: false,
  /** The page names what its address needs; every file of the build goes into the service worker's list: each room, worker and font works without a server. */
  async buildEnd() {
    const manifest = readdirSync(`${client}assets`).find((f) => /^manifest-.*\.js$/.test(f))!;
    const page = readFileSync(`${client}index.html`, 'utf8');
    const routes = manifestIn(readFileSync(`${client}assets/${manifest}`, 'utf8'));
    writeFileSync(`${client}index.html`, withPreloads(page, routes));
    const { warnings } = await generateSW({
      globDirectory: client,
      globPatterns: ['**/*.{js,css,html,woff2,svg,png,webmanifest,wasm,json}'],
      // Fonts of other scripts come twice, the old format isn't asked for by any browser that runs the app.
      globIgnores: ['**/*.map'],
      dontCacheBustURLsMatching: /^assets\//,
      maximumFileSizeToCacheInBytes: 12_000_000,
      swDest: `${client}sw.js`,
      inlineWorkboxRuntime: true,
      navigateFallback: '/index.html',
      // Taken when the user says so, never in the middle of a walk; the first one at once.
      skipWaiting: false,
      clientsClaim: true,
      cleanupOutdatedCaches: true,
      sourcemap: false,
      mode: 'production',
    });
    if (warnings.length > 0) throw new Error(warnings.join('\n'));
  },
} satisfies Config;
