// `npm run demo` and `npm start`: install, build, serve. The argument says which bench opens first; with `--lan` the
// local network is served too.
import { install, run } from './install.mjs';

const bench = process.argv.includes('demo') ? 'demo' : 'own';
const inNetwork = process.argv.includes('--lan');
install(false);
console.log('Building …');
run('npx', ['react-router', 'build', '--logLevel', 'error'], { stdio: ['ignore', 'ignore', 'inherit'] });
const { serve } = await import('./serve.mjs');
const port = Number(process.env.PORT || 4810);
if (inNetwork) {
  const { LetterBox } = await import('./lan/letterBox.mjs');
  const { certificate, keepDevices, knownDevices } = await import('./lan/authority.mjs');
  const { sayPairing } = await import('./lan/sayPairing.mjs');
  const { shelf } = await import('./lan/shelf.mjs');
  const lan = await certificate();
  const onDevices = (devices) => keepDevices(devices);
  const box = new LetterBox({ known: knownDevices(), onDevices, shelf: shelf() });
  await serve({ port, bench, host: process.env.HOST || '0.0.0.0', lan: { ...lan, box } });
  console.log(await sayPairing({ lan, port, code: box.invite().code }));
} else {
  await serve({ port, bench, host: process.env.HOST || 'localhost' });
  console.log(
    `Palazzo stands at http://localhost:${port} (${bench === 'demo' ? 'demo bench' : 'your own bench'}). Ctrl+C ends it.`,
  );
}
