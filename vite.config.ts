import { fileURLToPath } from 'node:url';
import { reactRouter } from '@react-router/dev/vite';
import { defineConfig } from 'vite';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  plugins: [reactRouter()],
  resolve: { alias: { '~core': here('./core'), '~': here('./app') } },
  worker: { format: 'es' },
  server: { port: 4811 },
});
