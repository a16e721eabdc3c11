import { mkdirSync, renameSync, rmSync } from 'node:fs';
import { build } from 'vite';

/** Builds the command line into one file; several at once don't meet: each builds apart and puts the whole file in place. */
export async function buildCli(root) {
  const apart = `${root}build/cli-${process.pid}`;
  await build({
    root,
    configFile: false,
    logLevel: 'error',
    resolve: { alias: { '~core': `${root}core` } },
    ssr: { noExternal: true, external: ['pdfmake', '@napi-rs/canvas'] },
    build: {
      ssr: `${root}cli/palazzo.ts`,
      outDir: apart,
      target: 'node20',
      minify: true,
      copyPublicDir: false,
      rolldownOptions: { output: { codeSplitting: false } },
    },
  });
  mkdirSync(`${root}build/cli`, { recursive: true });
  renameSync(`${apart}/palazzo.js`, `${root}build/cli/palazzo.js`);
  rmSync(apart, { recursive: true, force: true });
}
