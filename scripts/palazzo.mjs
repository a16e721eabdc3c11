// `npm run palazzo -- …`: the command line as one built file. It is built anew when a source is newer than it.
import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const built = join(root, 'build/cli/palazzo.js');

/** When the newest file of a folder was written, ms. */
const newestIn = (folder) =>
  readdirSync(folder, { recursive: true, withFileTypes: true }).reduce(
    (newest, f) =>
      f.isFile() && f.name.endsWith('.ts') && !f.name.endsWith('.test.ts')
        ? Math.max(newest, statSync(join(f.parentPath, f.name)).mtimeMs)
        : newest,
    0,
  );

function isFresh() {
  if (!existsSync(built)) return false;
  const { mtimeMs } = statSync(built);
  const sources = ['cli', 'core', 'app/demo'].map((f) => join(root, f));
  return [...sources.map(newestIn), statSync(join(root, 'package-lock.json')).mtimeMs].every(
    (t) => t <= mtimeMs,
  );
}

if (!isFresh()) {
  const { buildCli } = await import('./buildCli.mjs');
  await buildCli(root);
}
await import(pathToFileURL(built).href);
