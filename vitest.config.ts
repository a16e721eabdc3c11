import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  resolve: { alias: { '~core': here('./core'), '~': here('./app') } },
  test: {
    testTimeout: 60_000,
    hookTimeout: 60_000,
    projects: [
      // Core is pure: its files can share their modules, which saves a minute of loading them anew.
      {
        extends: true,
        test: { name: 'core', include: ['core/**/*.test.ts', 'cli/**/*.test.ts'], isolate: false },
      },
      // The app has a database and a browser's globals, each test file its own.
      { extends: true, test: { name: 'app', include: ['app/**/*.test.ts', 'scripts/**/*.test.ts'] } },
    ],
  },
});
