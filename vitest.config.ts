import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

const alone = 'app/**/*.alone.test.ts';

export default defineConfig({
  resolve: { alias: { '~core': here('./core'), '~': here('./app') } },
  test: {
    testTimeout: 60_000,
    hookTimeout: 60_000,
    projects: [
      // Files share their modules, which saves a minute of loading them anew …
      {
        extends: true,
        test: { name: 'core', include: ['core/**/*.test.ts', 'cli/**/*.test.ts'], isolate: false },
      },
      {
        extends: true,
        test: {
          name: 'app',
          include: ['app/**/*.test.ts', 'scripts/**/*.test.ts'],
          exclude: [alone],
          isolate: false,
          pool: 'threads',
        },
      },
      // … but for those that put a database and a browser's globals in place, or other modules.
      { extends: true, test: { name: 'alone', include: [alone], pool: 'threads' } },
    ],
  },
});
