// `npm run torture -- --kills 200 --seed 1`: works in every way (see torture/works.ts for a third of the kills), types values through the real interface in two tabs, with a clock that
// jumps, kills the browser's process at random moments, opens it again and counts what was confirmed and what is there.
// Prints confirmed, found, lost, half (and values that show another one than the last confirmed); exits 1 unless 0 are
// lost, half or turned round.
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import puppeteer, { type Browser, type Page } from 'puppeteer-core';
import { exportTrial } from '~core/formats/dataPackage';
import type { RoundId, TrialId } from '~core/model/ids';
import { Plan } from '~core/model/plan';
import { planSha256 } from '~core/plan/seal';
import { seededRandom } from '~core/stats/random';
import { entry, heightTrait, plan, trialOf } from '~core/testing/trial';
import { chromiumFlags, ensureChromium } from './chromium.mjs';
import { serve } from './serve.mjs';
import { tortureWorks } from './torture/works';

const { values: args } = parseArgs({
  options: {
    kills: { type: 'string', default: '200' },
    seed: { type: 'string', default: '1' },
    /** few rounds fill up, so that values are typed over others */
    rounds: { type: 'string', default: '24' },
  },
});
/** a third of them in every other kind of work */
const otherKills = Math.floor(Number(args.kills) / 3);
const kills = Number(args.kills) - otherKills;
const random = seededRandom(Number(args.seed));
const between = (low: number, high: number) => low + random.uniform() * (high - low);

const ROUNDS = Number(args.rounds);
if (!(kills >= 1) || !(ROUNDS >= 2) || ROUNDS % 2 !== 0) {
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

/** A value the screen said is kept: the tile shows it, without the mark of being kept. */
interface Confirmed {
  round: string;
  unit: string;
  value: string;
}

const profile = mkdtempSync(join(tmpdir(), 'palazzo-torture-'));
const executablePath = ensureChromium();
if (!executablePath) process.exit(1);
const server = (await serve({ port: 0, bench: 'own' })) as Server;
const url = `http://localhost:${(server.address() as AddressInfo).port}`;
const confirmed: Confirmed[] = [];

const open = (): Promise<Browser> =>
  puppeteer.launch({
    executablePath,
    args: [
      ...chromiumFlags,
      `--user-data-dir=${profile}`,
      // Two tabs are typed in by turns; neither is put to sleep.
      '--disable-renderer-backgrounding',
      '--disable-backgrounding-occluded-windows',
      '--disable-background-timer-throttling',
    ],
  });

/** Waits until a browser that was killed is gone. */
const ended = (browser: Browser) =>
  new Promise<void>((resolve) => {
    const p = browser.process();
    if (!p || p.exitCode !== null || p.signalCode !== null) return resolve();
    p.once('exit', () => resolve());
    p.kill('SIGKILL');
  });

/** A tab whose clock is off by so much, which tells of every value it shows as kept. */
async function tab(browser: Browser, round: string, clockOffMs: number): Promise<Page> {
  const page = await browser.newPage();
  // What the compiler wraps functions in, for those that run in the page.
  await page.evaluateOnNewDocument('globalThis.__name = (f) => f');
  await page.evaluateOnNewDocument((off) => {
    const [Real, now] = [Date, Date.now.bind(Date)];
    Date.now = () => now() + off;
    window.Date = new Proxy(Real, {
      construct: (target, given: []) => (given.length === 0 ? new target(now() + off) : new target(...given)),
      apply: () => new Real(now() + off).toString(),
    });
  }, clockOffMs);
  // Two tabs are typed in by turns: each takes itself for the one in front.
  const session = await page.createCDPSession();
  await session.send('Emulation.setFocusEmulationEnabled', { enabled: true });
  page.on('console', (m) => {
    if (m.text().startsWith('kept ')) confirmed.push(JSON.parse(m.text().slice(5)) as Confirmed);
  });
  await page.goto(`${url}/trial/${trialId}/rounds?round=${round}`, { waitUntil: 'load' });
  await page.waitForSelector('.tile.current');
  await page.evaluate((of) => {
    const shown = new Map<string, string>();
    const look = (first: boolean) => {
      for (const tile of document.querySelectorAll<HTMLElement>('[data-unit]:not(.current)')) {
        const value = tile.querySelector('.value')?.textContent?.trim() ?? '';
        if (!/^\d/.test(value) || tile.querySelector('.keeping') || shown.get(tile.dataset.unit!) === value)
          continue;
        shown.set(tile.dataset.unit!, value);
        if (!first) console.log(`kept ${JSON.stringify({ round: of, unit: tile.dataset.unit, value })}`);
      }
    };
    look(true);
    new MutationObserver(() => look(false)).observe(document.body, {
      ...{ subtree: true, childList: true, characterData: true, attributes: true },
    });
  }, round);
  return page;
}

/** Presses the keys of the pad on the screen, and the one that keeps the value. */
function pressed(value: string): void {
  const press = (of: (b: HTMLButtonElement) => boolean) =>
    [...document.querySelectorAll<HTMLButtonElement>('main button')].find(of)?.click();
  for (const c of value) press((b) => b.closest('.pad-keys') !== null && b.textContent?.trim() === c);
  press((b) => b.textContent?.startsWith('Keep') === true);
}

/** What the database holds: every value by round and unit as the screens show it, and lines or heads that are torn. */
async function inDatabase(page: Page): Promise<{ values: Record<string, string[]>; half: number }> {
  return page.evaluate(async (id) => {
    const db = await new Promise<IDBDatabase>((resolve, reject) => {
      const asked = indexedDB.open('palazzo-own');
      asked.onsuccess = () => resolve(asked.result);
      asked.onerror = () => reject(new Error('the database can’t be opened'));
    });
    const all = (table: string) =>
      new Promise<Record<string, unknown>[]>((resolve) => {
        const asked = db.transaction(table).objectStore(table).getAll();
        asked.onsuccess = () => resolve(asked.result as Record<string, unknown>[]);
      });
    type Body = { kind: string; unitId: string; roundId: string; value: number };
    type Line = {
      rev: number;
      id: string;
      entry: Body & { id: string; kind: string; counter: number; replacement?: Body };
    };
    type Row = { id: string; rev: number; lines: Line['entry'][] };
    const [rows, heads, trials] = [
      (await all('entries')) as unknown as Row[],
      await all('heads'),
      await all('trials'),
    ];
    // A row holds the lines of one change, under the id of its first.
    const lines = rows.flatMap((r): Line[] => r.lines.map((entry) => ({ rev: r.rev, id: entry.id, entry })));
    db.close();
    const plan = (trials.find((t) => t['id'] === id) as unknown as { plan: { units: { id: string; code: string }[] } }).plan; // prettier-ignore
    const codes = new Map(plan.units.map((u) => [u.id, u.code]));
    const rev = Number(heads.find((h) => h['id'] === id)?.['rev'] ?? -1);
    const values: Record<string, string[]> = {};
    let half = 0;
    // The table is in the order of its keys, which is none: the newest value of a place is the one counted last.
    lines.sort((a, b) => a.entry.counter - b.entry.counter);
    for (const line of lines) {
      // A value typed over another one is a correction: what it puts in its place is the value.
      const said = line.entry.kind === 'correction' ? line.entry.replacement : line.entry;
      if (!said || line.rev > rev) half += 1;
      if (said?.roundId && Number.isFinite(said.value)) {
        const key = `${said.roundId}/${codes.get(said.unitId) ?? '?'}`;
        (values[key] ??= []).push(said.value.toFixed(1));
      }
    }
    // No two lines of one device share a count: that is what their order goes by.
    const counters = lines.map((l) => l.entry.counter);
    half += counters.length - new Set(counters).size;
    half += rows.filter((r) => r.lines[0]?.id !== r.id).length;
    return { values, half };
  }, trialId);
}

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
      await tab(browser, `r${round}`, off()),
      await tab(browser, `r${round + ROUNDS / 2}`, off()),
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
const last = await tab(browser, 'r0', 0);
const { values, half } = await inDatabase(last);
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
const other = await tortureWorks({ kills: otherKills, random, url, dir: profile, open, ended });
server.close();
rmSync(profile, { recursive: true, force: true });
console.log(
  [
    `kills ${kills + otherKills}`,
    `confirmed ${confirmed.length + other.confirmed}`,
    `found ${found + other.confirmed - other.lost}`,
    `lost ${lost.length + other.lost}`,
    `half ${half + other.half}`,
    `turned ${turned}`,
  ].join('\n'),
);
const faults = lost.length + other.lost + half + other.half + turned;
process.exit(faults === 0 && confirmed.length > 0 && (otherKills < 5 || other.confirmed > 0) ? 0 : 1);
