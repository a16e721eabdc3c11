// The service worker: every file of the build goes into its list, so that each room, worker and font works without a server.
import { createHash } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const worker = fileURLToPath(new URL('../app/workers/offline.sw.ts', import.meta.url));
const KEPT = /\.(js|css|html|woff2|svg|png|webmanifest|wasm|json)$/;
const NAME = 'sw.js';

/**
 * The files of a built app as Workbox wants them: those whose name has a hash are what they are, the others are told
 * apart by what is in them.
 *
 * @param {string} folder with a slash at its end
 * @returns {{ url: string, revision: string | null }[]} by name
 */
export function filesToKeep(folder) {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .map((file) => file.replaceAll('\\', '/'))
    .filter((file) => KEPT.test(file) && file !== NAME)
    .sort()
    .map((url) => ({
      url,
      revision: url.startsWith('assets/')
        ? null
        : createHash('sha256')
            .update(readFileSync(folder + url))
            .digest('hex')
            .slice(0, 32),
    }));
}

/** Writes the service worker beside the app it keeps. @param {string} folder of the built app, with a slash at its end */
export async function writeServiceWorker(folder) {
  const { build } = await import('vite');
  await build({
    configFile: false,
    logLevel: 'warn',
    publicDir: false,
    define: {
      PALAZZO_FILES: JSON.stringify(filesToKeep(folder)),
      'process.env.NODE_ENV': '"production"',
    },
    build: {
      outDir: folder,
      emptyOutDir: false,
      copyPublicDir: false,
      rolldownOptions: { input: worker, output: { format: 'iife', entryFileNames: NAME } },
    },
  });
}

/**
 * The service worker of a bench: the page says which one opens first, so that a worker that keeps it is another one
 * for the other bench.
 *
 * @param {string} worker as it was written @param {string} bench
 */
export function ofBench(worker, bench) {
  const page = /(url:["'`]index\.html["'`],revision:["'`])/;
  if (!page.test(worker)) throw new Error('The service worker’s list of files isn’t where it was.');
  return worker.replace(page, `$1${bench}-`);
}
