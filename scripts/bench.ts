// `npm run bench`: the design's speed table, measured. Each row says what must hold.
import type { AddressInfo } from 'node:net';
import {
  agenda,
  append,
  cover,
  findings,
  kindsOfValue,
  logistics,
  logger,
  permutations,
  rehearsal,
  reservoirs,
} from './bench/inCore';
import { coldStart, growth, keystroke, photos } from './bench/inBrowser';
import { rows } from './bench/rows';
import { shellSize } from './bench/shellSize';
import { ensureChromium } from './chromium.mjs';
import { serve } from './serve.mjs';

const executablePath = ensureChromium();
if (!executablePath) process.exit(1);
const [demo, own] = await Promise.all([serve({ port: 0, bench: 'demo' }), serve({ port: 0, bench: 'own' })]);
const urlOf = (s: typeof demo) => `http://localhost:${(s.address() as AddressInfo).port}`;
shellSize();
await coldStart(executablePath, urlOf(demo));
await keystroke(executablePath, urlOf(own));
await growth(executablePath, urlOf(own));
await photos(executablePath, urlOf(own));
append(20_000, 5);
append(100_000, 10);
reservoirs();
permutations();
await findings();
kindsOfValue();
logistics();
rehearsal();
cover();
logger();
agenda();
demo.close();
own.close();
for (const r of rows)
  console.log(`${r.held ? 'holds' : 'TOO SLOW'}  ${r.work}: ${r.measured}; must hold ${r.limit}`);
process.exit(0);
