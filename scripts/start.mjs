// `npm run demo` and `npm start`: install, build, serve. The argument says which bench opens first.
import { install, run } from './install.mjs';

const bench = process.argv[2] === 'demo' ? 'demo' : 'own';
install();
console.log('Building …');
run('npx', ['react-router', 'build', '--logLevel', 'error'], { stdio: ['ignore', 'ignore', 'inherit'] });
const { serve } = await import('./serve.mjs');
const port = Number(process.env.PORT || 4810);
await serve({ port, bench, host: process.env.HOST || 'localhost' });
console.log(
  `Palazzo stands at http://localhost:${port} (${bench === 'demo' ? 'demo bench' : 'your own bench'}). Ctrl+C ends it.`,
);
