import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  resolve: { alias: { '~core': here('./core'), '~': here('./app') } },
  test: {
    include: ['core/**/*.test.ts', 'cli/**/*.test.ts', 'app/**/*.test.ts', 'scripts/**/*.test.ts'],
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
