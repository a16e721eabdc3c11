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
  ['mixing', '/trial/demo-trial-par/mixing?bottle=D', desk, '.mix-steps'],
  ['rounds', '/trial/demo-trial-par/rounds', desk, '.tile.current'],
  ['rounds-phone', '/trial/demo-trial-par/rounds', phone, '.tile.current'],
  ['photos', '/trial/demo-trial-par/rounds?view=photos', desk, '.compare img'],
  ['panel', '/trial/demo-trial-cor/panel', desk, '.score-strip'],
  ['findings', '/trial/demo-trial-cor/findings', desk, 'figure svg'],
  ['verdict', '/trial/demo-trial-cor/verdict', desk, '.ledger'],
  ['scorecard', '/trial/demo-trial-cor/verdict?view=card', desk, '.points-strip'],
  ['claims', '/trial/demo-trial-cor/verdict?view=claims', desk, '.claim'],
  ['table', '/table', desk, '.read-table figure svg'],
  ['season', '/season', desk, 'form'],
  ['eye', '/eye', desk, '.figure-box svg'],
  ['review', '/trial/demo-trial-cor/review', desk, '.paper img'],
];

/** A made-up table, as it would be pasted. */
const table = [
  ['Basil on the upper level'],
  ['Feed', 'Pot', 'Yield (g)', 'Height cm'],
  ...[41.2, 38.9, 44, 40.1, 47.5, 49.1, 45.8, 48.2, 42.2, 43.1, 40.9, 44.2].map((g, i) => [
    ...[['Water', 'Verda Uno', 'Verda Due'][Math.floor(i / 4)]!, String(i + 1)],
    ...[String(g), String([18, 17, 19, 18, 22, 21, 20, 22, 19, 18, 19, 20][i])],
  ]),
];

const executablePath = ensureChromium();
if (!executablePath) process.exit(1);
mkdirSync(folder, { recursive: true });
const server = await serve({ port: 0, bench: 'demo' });
const base = `http://localhost:${(server.address() as AddressInfo).port}`;
const browser = await puppeteer.launch({ executablePath, args: chromiumFlags });
const page = await browser.newPage();
await page.evaluateOnNewDocument((grid) => {
  sessionStorage.setItem('palazzo/table', JSON.stringify({ grid, text: '', name: 'basil', named: {} }));
}, table);
for (const [name, path, size, ready] of views) {
  await page.setViewport(size);
  await page.goto(base + path, { waitUntil: 'networkidle0' });
  await page.waitForSelector(ready);
  await page.evaluate('document.fonts.ready');
  if (name === 'rehearsal') {
    await page.locator('xpath///button[starts-with(., "Rehearse")]').click();
    await page.waitForSelector('[data-testid="rehearsal-report"]');
  }
  if (name === 'season') {
    await page.locator('input[name="weeks"]').fill('13');
    await page.locator('xpath///button[starts-with(., "What would teach")]').click();
    await page.waitForSelector('.offer');
  }
  if (name === 'eye') {
    await page.locator('xpath///button[starts-with(., "too close")]').click();
    await page.waitForSelector('.eye-told');
  }
  await page.evaluate('window.scrollTo(0, 0)');
  await page.screenshot({ path: `${folder}${name}.png` });
  console.log(`docs/screenshots/${name}.png`);
}
await browser.close();
server.close();
process.exit(0);
