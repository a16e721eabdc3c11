// `npm run bench`: the design's speed table, measured. Each row says what must hold. A part alone: `npm run bench -- size`
// (the bench of 300 trials; it takes minutes and runs only when it is asked for).
import { writeFileSync } from 'node:fs';
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
import { coldStart, growth, keystroke, largeBench, photos } from './bench/inBrowser';
import { rows } from './bench/rows';
import { shellSize } from './bench/shellSize';
import { type BeforeFirst, speedPage } from './bench/speedPage';
import { ensureChromium } from './chromium.mjs';
import { serve } from './serve.mjs';

const executablePath = ensureChromium();
if (!executablePath) process.exit(1);
const [demo, own] = await Promise.all([serve({ port: 0, bench: 'demo' }), serve({ port: 0, bench: 'own' })]);
const urlOf = (s: typeof demo) => `http://localhost:${(s.address() as AddressInfo).port}`;
let before: BeforeFirst[] = [];
/** What is measured; `npm run bench -- size` measures one of them alone. */
const parts: Record<string, () => unknown> = {
  shell: shellSize,
  cold: async () => {
    before = await coldStart(executablePath, urlOf(demo));
  },
  key: () => keystroke(executablePath, urlOf(own)),
  growth: () => growth(executablePath, urlOf(own)),
  photos: () => photos(executablePath, urlOf(own)),
  size: () =>
    largeBench(executablePath, urlOf(own), {
      trials: 300,
      photos: Number(process.env.BENCH_PHOTOS ?? 2000),
      rounds: 60,
      readings: 1_000_000,
    }),
  append: () => [append(20_000, 5), append(100_000, 10)],
  reservoirs,
  permutations,
  findings,
  kinds: kindsOfValue,
  logistics,
  rehearsal,
  cover,
  logger,
  agenda,
};
const asked = process.argv.slice(2).filter((a) => a !== '--write');
for (const [name, run] of Object.entries(parts))
  if (asked.length === 0 ? name !== 'size' : asked.includes(name)) await run();
demo.close();
own.close();
for (const r of rows)
  console.log(`${r.held ? 'holds' : 'TOO SLOW'}  ${r.work}: ${r.measured}; must hold ${r.limit}`);
if (process.argv.includes('--write'))
  writeFileSync(
    new URL('../docs/speed.md', import.meta.url),
    speedPage(rows, before, new Date().toISOString().slice(0, 10)),
  );
process.exit(0);
