import { fileURLToPath } from 'node:url';
import { reactRouter } from '@react-router/dev/vite';
import { type Plugin, defineConfig } from 'vite';
import { colourSheet } from './app/ui/colours.ts';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/** The style sheet of colours is made of the same figures that canvases and exported pages draw with. */
const colours: Plugin = {
  name: 'palazzo-colours',
  resolveId: (id) => (id === 'virtual:palazzo-colours.css' ? `\0${id}` : null),
  load: (id) => (id === '\0virtual:palazzo-colours.css' ? colourSheet : null),
};

/**
 * What many rooms share goes into few files: a hundred small ones cost more to fetch, one after the other, than all
 * that is in them.
 */
const groups = [
  { name: 'interface', test: /node_modules[\\/](@mui|@emotion|react)/, minShareCount: 30 },
  { name: 'shared', test: /[\\/](core|app|node_modules)[\\/]/, minShareCount: 30 },
];

export default defineConfig({
  plugins: [colours, reactRouter()],
  resolve: { alias: { '~core': here('./core'), '~': here('./app') } },
  build: {
    rolldownOptions: { output: { codeSplitting: { groups } } },
    // The largest are fonts of a saved PDF and the reader of older plans: loaded where they are asked for.
    chunkSizeWarningLimit: 1500,
  },
  worker: { format: 'es' },
  server: { port: 4811 },
});
