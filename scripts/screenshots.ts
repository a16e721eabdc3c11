// `npm run screenshots`: one picture of each main view, made from the demo bench.
import { mkdirSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';
import puppeteer from 'puppeteer-core';
import { chromiumFlags, ensureChromium } from './chromium.mjs';
import { serve } from './serve.mjs';

const folder = fileURLToPath(new URL('../docs/screenshots/', import.meta.url));
const desk = { width: 1280, height: 800 };
const phone = { width: 390, height: 844, deviceScaleFactor: 2 };

const views: [name: string, path: string, size: typeof desk, ready: string][] = [
  ['today', '/', desk, '.acts'],
  ['question', '/trial/demo-trial-fag/question', desk, 'form'],
  ['contenders', '/trial/demo-trial-rad/contenders', desk, 'form'],
  ['layout', '/trial/demo-trial-fag/layout', desk, '.tile'],
  ['fairness', '/trial/demo-trial-rad/fairness', desk, '.finding'],
  ['rehearsal', '/trial/demo-trial-cor/rehearsal', desk, '.sizes'],
  ['labels', '/trial/demo-trial-par/labels', desk, '.label img'],
  ['mixing', '/trial/demo-trial-par/mixing?bottle=D', desk, '.mix-steps'],
  ['rounds', '/trial/demo-trial-par/rounds', desk, '.tile.current'],
  ['rounds-phone', '/trial/demo-trial-par/rounds', phone, '.tile.current'],
  ['photos', '/trial/demo-trial-par/rounds?view=photos', desk, '.compare img'],
  ['air', '/trial/demo-trial-par/rounds?view=air&band=temperature:17:26', desk, 'figure canvas'],
  ['weigh-in', '/trial/demo-trial-cor/weigh-in', desk, '.steady'],
  ['panel', '/trial/demo-trial-cor/panel', desk, '.score-strip'],
  ['findings', '/trial/demo-trial-cor/findings', desk, 'canvas[data-drawn]'],
  [
    'second-looks',
    '/trial/demo-trial-cor/findings?trait=demo-COR-trait-height&view=looks',
    desk,
    'figure svg',
  ],
  ['verdict', '/trial/demo-trial-cor/verdict', desk, '.ledger'],
  ['scorecard', '/trial/demo-trial-cor/verdict?view=card', desk, '.points-strip'],
  ['review', '/trial/demo-trial-cor/review', desk, '.paper img'],
];

const executablePath = ensureChromium();
if (!executablePath) process.exit(1);
mkdirSync(folder, { recursive: true });
const server = await serve({ port: 0, bench: 'demo' });
const base = `http://localhost:${(server.address() as AddressInfo).port}`;
const browser = await puppeteer.launch({ executablePath, args: chromiumFlags });
const page = await browser.newPage();
for (const [name, path, size, ready] of views) {
  await page.setViewport(size);
  await page.goto(base + path, { waitUntil: 'networkidle0' });
  await page.waitForSelector(ready);
  await page.evaluate('document.fonts.ready');
  if (name === 'rehearsal') {
    await page.locator('xpath///button[starts-with(., "Rehearse")]').click();
    await page.waitForSelector('[data-testid="rehearsal-report"]');
  }
  await page.screenshot({ path: `${folder}${name}.png` });
  console.log(`docs/screenshots/${name}.png`);
}
await browser.close();
server.close();
process.exit(0);
