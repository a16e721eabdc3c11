import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';
import base from './vitest.config.ts';

export default defineConfig({
  resolve: base.resolve,
  test: {
    include: ['e2e/**/*.e2e.ts'],
    globalSetup: ['e2e/servers.ts'],
    testTimeout: 300_000,
    hookTimeout: 120_000,
    // As many as there are cores: two at least, six at most, a browser each.
    maxWorkers: Math.min(6, Math.max(2, availableParallelism())),
    // Each file starts a browser of its own; what drives it is loaded once for all.
    isolate: false,
  },
});
