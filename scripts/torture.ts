// `npm run torture -- --kills 200 --seed 1`: works in every way (torture/works.ts, a third of the kills), exchanges
// between two devices (torture/exchange.ts, a sixth), types values through the real interface in two tabs, with a clock that
// jumps, kills the browser's process at random moments, opens it again and counts what was confirmed and what is there.
// Prints confirmed, found, lost, half (and values that show another one than the last confirmed); exits 1 unless 0 are
// lost, half or turned round.
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import type { IncomingMessage, RequestListener, Server, ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { exportTrial } from '~core/formats/dataPackage';
import type { RoundId, TrialId } from '~core/model/ids';
import { Plan } from '~core/model/plan';
import { planSha256 } from '~core/plan/seal';
import { seededRandom } from '~core/stats/random';
import { entry, heightTrait, plan, trialOf } from '~core/testing/trial';
import { ensureChromium } from './chromium.mjs';
import { ofBench } from './offline.mjs';
import { serve } from './serve.mjs';
import { tortureExchange } from './torture/exchange';
import { type Confirmed, ended, inDatabase, opened, pressed, tab } from './torture/tab';
import { tortureWorks } from './torture/works';

const { values: args } = parseArgs({
  options: {
    kills: { type: 'string', default: '200' },
    seed: { type: 'string', default: '1' },
    /** few rounds fill up, so that values are typed over others */
    rounds: { type: 'string', default: '24' },
    /** one kind alone: `rounds`, `works` or `exchange` */
    only: { type: 'string' },
  },
});
/** a third of them in every other kind of work, a sixth while two devices exchange */
const share = (kind: string, of: number) =>
  args.only === undefined ? Math.floor(Number(args.kills) * of) : args.only === kind ? Number(args.kills) : 0;
const otherKills = share('works', 1 / 3);
const exchangeKills = share('exchange', 1 / 6);
const kills = args.only === undefined ? Number(args.kills) - otherKills - exchangeKills : share('rounds', 1);
const random = seededRandom(Number(args.seed));
const between = (low: number, high: number) => low + random.uniform() * (high - low);

const ROUNDS = Number(args.rounds);
if (!(kills + otherKills + exchangeKills >= 1) || !(ROUNDS >= 2) || ROUNDS % 2 !== 0) {
  console.error('torture: --kills is 1 or more, --rounds an even number: half of them for each tab.');
  process.exit(2);
}
const trialId = 'torture' as TrialId;

/** A sealed trial with room for more values than any run types: 200 units in 24 rounds, all of them due. */
function bigTrial(): Uint8Array {
  const height = heightTrait();
  const base = plan({ treatments: [...'ABCDEFGHIJ'], replicates: 20, traits: [height] });
  const planned = Plan.parse({
    ...base,
    id: trialId,
    startDate: new Date(Date.now() - ROUNDS * 86_400_000).toISOString().slice(0, 10),
    rounds: Array.from({ length: ROUNDS }, (_, i) => ({
      ...{ id: `r${i}` as RoundId, name: `Round ${i}`, day: i, traitIds: [height.id] },
    })),
  });
  return exportTrial(trialOf(planned, [entry({ kind: 'seal', planSha256: planSha256(planned) }, 'seal')]));
}

const profile = mkdtempSync(join(tmpdir(), 'palazzo-torture-'));
const executablePath = ensureChromium();
if (!executablePath) process.exit(1);
const server = (await serve({ port: 0, bench: 'own' })) as Server;
// A new version of the app: another service worker, as a build with one page changed has.
let version = 0;
const worker = readFileSync(new URL('../build/client/sw.js', import.meta.url), 'utf8');
const app = server.listeners('request')[0] as RequestListener;
server.removeListener('request', app);
server.on('request', (req: IncomingMessage, res: ServerResponse) => {
  if (req.url !== '/sw.js' || version === 0) return app(req, res);
  res.writeHead(200, { 'Content-Type': 'text/javascript', 'Cache-Control': 'no-cache' });
  res.end(ofBench(worker, `own-${version}`));
});
const url = `http://localhost:${(server.address() as AddressInfo).port}`;
const confirmed: Confirmed[] = [];
const at = { url, trialId, confirmed };

const open = () => opened(executablePath, profile);

// The trial is taken in as anybody would.
let browser = await open();
const file = join(profile, 'torture.zip');
writeFileSync(file, bigTrial());
const first = await browser.newPage();
await first.goto(`${url}/data`, { waitUntil: 'load' });
const input = await first.waitForSelector('[data-testid="trial-file"]');
await (input as unknown as { uploadFile: (path: string) => Promise<void> }).uploadFile(file);
await first.waitForFunction(() => document.body.innerText.includes('is on the bench'));
await first.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
await browser.close();

let typed = 0;
for (let kill = 0; kill < kills; kill++) {
  browser = await open();
  const round = Math.floor((kill * ROUNDS) / 2 / kills);
  const off = () => Math.round(between(-3, 3) * 86_400_000);
  try {
    const tabs = [
      await tab(browser, { ...at, round: `r${round}`, clockOffMs: off() }),
      await tab(browser, { ...at, round: `r${round + ROUNDS / 2}`, clockOffMs: off() }),
    ];
    const process = browser.process()!;
    let dead = false;
    const killer = setTimeout(
      () => {
        dead = true;
        process.kill('SIGKILL');
      },
      between(20, 2500),
    );
    for (let i = 0; !dead; i++) {
      const value = between(5, 6).toFixed(1);
      // The tab in front gets real keys; the one behind, which the browser gives none, its buttons.
      if (i % 2 === 0) {
        await tabs[1]!.keyboard.type(value);
        await tabs[1]!.keyboard.press('Enter');
      } else await tabs[0]!.evaluate(pressed, value);
      typed += 1;
    }
    clearTimeout(killer);
  } catch {
    // The browser went away in the middle of a step: that is what is tried.
  }
  await ended(browser);
  if ((kill + 1) % 20 === 0) console.log(`${kill + 1} kills, ${typed} typed, ${confirmed.length} confirmed`);
}

browser = await open();
const last = await tab(browser, { ...at, round: 'r0', clockOffMs: 0 });
const { values, half } = await inDatabase(last, trialId);
if (process.env['SHOW']) console.log(JSON.stringify({ values, half, confirmed: confirmed.slice(0, 5) }));
const lost = confirmed.filter((c) => !values[`${c.round}/${c.unit}`]?.includes(c.value));
const found = confirmed.length - lost.length;
// What a screen shows is the value confirmed last.
let turned = 0;
const newest = new Map(confirmed.map((c) => [`${c.round}/${c.unit}`, c]));
for (const round of new Set(confirmed.map((c) => c.round))) {
  await last.goto(`${url}/trial/${trialId}/rounds?round=${round}`, { waitUntil: 'load' });
  await last.waitForSelector('[data-unit]');
  const shown = await last.$$eval('[data-unit]', (tiles) =>
    tiles.map(
      (t) => [t.getAttribute('data-unit')!, t.querySelector('.value')?.textContent?.trim() ?? ''] as const,
    ),
  );
  for (const [unit, value] of shown) {
    const wanted = newest.get(`${round}/${unit}`);
    // One that was typed later and killed before it was confirmed may stand there too.
    if (wanted && value !== wanted.value && values[`${round}/${unit}`]?.at(-1) === wanted.value) turned += 1;
  }
}
await browser.close();
const renew = () => {
  version += 1;
};
const works = await tortureWorks({ kills: otherKills, random, url, dir: profile, open, renew });
server.close();
const exchanges = await tortureExchange({
  kills: exchangeKills,
  random,
  executablePath,
  trial: bigTrial(),
  trialId,
  rounds: ROUNDS,
});
const other = {
  confirmed: works.confirmed + exchanges.confirmed,
  lost: works.lost + exchanges.lost,
  half: works.half + exchanges.half,
};
rmSync(profile, { recursive: true, force: true });
console.log(
  [
    `kills ${kills + otherKills + exchangeKills}`,
    `confirmed ${confirmed.length + other.confirmed}`,
    `found ${found + other.confirmed - other.lost}`,
    `lost ${lost.length + other.lost}`,
    `half ${half + other.half}`,
    `turned ${turned}`,
  ].join('\n'),
);
const faults = lost.length + other.lost + half + other.half + turned;
process.exit(faults === 0 && confirmed.length > 0 && (otherKills < 5 || other.confirmed > 0) ? 0 : 1);
