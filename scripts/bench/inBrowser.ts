// Rows of the speed table that are measured on the built app.
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { encode } from 'jpeg-js';
import { drawPlants } from '~core/imaging/drawPlants';
import type { Entry } from '~core/log/entry';
import { planSha256 } from '~core/plan/seal';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Browser, type ElementHandle, type Page } from 'puppeteer-core';
import { exportTrial } from '~core/formats/dataPackage';
import { entry, plan as smallPlan, trialOf } from '~core/testing/trial';
import { chromiumFlags } from '../chromium.mjs';
import { median, report, rows } from './rows';
import type { BeforeFirst } from './speedPage';
import { type BenchSize, writeLargeBench } from './largeBench';
import { largeTrial } from './largeTrial';

export async function coldStart(executablePath: string, url: string) {
  const times: number[] = [];
  let before: BeforeFirst[] = [];
  for (let i = 0; i < 5; i++) {
    const browser = await puppeteer.launch({ executablePath, args: chromiumFlags });
    const page = await browser.newPage();
    await page.setViewport({ width: 1280, height: 800 });
    // The browser's own start isn't ours to measure: it loads pages of its own in its first second.
    await new Promise((settled) => setTimeout(settled, 2000));
    const from = performance.now();
    await page.goto(url, { waitUntil: 'domcontentloaded' });
    await page.waitForSelector('.ledger tbody tr');
    times.push(performance.now() - from);
    before = await page.evaluate(() =>
      (performance.getEntriesByType('resource') as PerformanceResourceTiming[])
        .filter((r) => r.name.endsWith('.js'))
        .map((r) => ({
          name: r.name.replace(/.*\/|-[\w-]{8}\.js$/g, ''),
          kB: r.decodedBodySize / 1024,
        })),
    );
    await browser.close();
  }
  report('first screen with the demo bench, cold profile', median(times), 1000);
  return before;
}

/** A bench with the large trial in it, cut to so many entries: imported as a user would. */
async function benchWith(executablePath: string, url: string, entries: number, rounds: number) {
  const { plan, log } = largeTrial(rounds);
  const zip = join(mkdtempSync(join(tmpdir(), 'palazzo-bench-')), 'large.zip');
  const kept = log.slice(0, entries);
  writeFileSync(zip, exportTrial(trialOf(plan, kept)));
  const browser = await puppeteer.launch({ executablePath, args: chromiumFlags, protocolTimeout: 600_000 });
  const page: Page = await browser.newPage();
  page.setDefaultTimeout(300_000);
  await page.setViewport({ width: 1280, height: 800 });
  await page.goto(`${url}/data`);
  const input = await page.waitForSelector('[data-testid="trial-file"]');
  await (input as ElementHandle<HTMLInputElement>).uploadFile(zip);
  await page.waitForSelector('a[href="/trial/trial"]');
  // tsx names inner functions through this
  await page.evaluateOnNewDocument('globalThis.__name = (f) => f');
  return { browser, page };
}

/** Types values into the last round: when each was painted as being kept, in the database, and painted as kept. */
async function typeValues(page: Page, url: string, rounds: number, times: number) {
  await page.goto(`${url}/trial/trial/rounds?round=r${rounds - 1}&trait=t11`);
  await page.waitForSelector('.tile.current');
  const measured = { saved: [] as number[], painted: [] as number[], keeping: [] as number[] };
  for (let i = 0; i < times; i++) {
    await page.keyboard.type('12.5');
    await page.evaluate(() => {
      const w = window as unknown as { times: Promise<[number, number, number]> };
      w.times = new Promise((resolve) => {
        let from = 0;
        let savedAt = 0;
        let shownAt = 0;
        window.addEventListener('keydown', () => (from = performance.now()), { capture: true, once: true });
        // Heard before Palazzo hears it: the transaction that took the entry is committed.
        const add = IDBObjectStore.prototype.add;
        IDBObjectStore.prototype.add = function (...args: Parameters<typeof add>) {
          this.transaction.addEventListener('complete', () => (savedAt ||= performance.now()));
          return add.apply(this, args);
        };
        const unit = document.querySelector('.tile.current')!.getAttribute('data-unit')!;
        const check = () => {
          const tile = document.querySelector(`[data-unit="${unit}"]`)!;
          const shown = !tile.classList.contains('current') && /12\.5/.test(tile.textContent ?? '');
          // Shown as being kept, in the frame before this one.
          if (shown) shownAt ||= performance.now();
          const done = savedAt > 0 && shown && !tile.querySelector('.keeping');
          if (!done) return requestAnimationFrame(check);
          IDBObjectStore.prototype.add = add;
          // Painted when the frame after the change begins.
          return requestAnimationFrame(() =>
            resolve([savedAt - from, performance.now() - from, shownAt - from]),
          );
        };
        requestAnimationFrame(check);
      });
    });
    await page.keyboard.press('Enter');
    const [s, v, shown] = await page.evaluate(
      () => (window as unknown as { times: Promise<[number, number, number]> }).times,
    );
    measured.saved.push(s);
    measured.painted.push(v);
    measured.keeping.push(shown);
    // Nobody reads the next ruler faster.
    await new Promise((r) => setTimeout(r, 150));
  }
  return measured;
}

/** From the Enter key to the value in the database, and to the frame in which it is painted. */
export async function keystroke(executablePath: string, url: string) {
  const { browser, page } = await benchWith(executablePath, url, 20_000, 9);
  const { saved, painted, keeping } = await typeValues(page, url, 9, 25);
  await browser.close();
  report('a key to the value painted as being kept', median(keeping), 50);
  report(
    'a key to the value saved and painted, 200 units, 20,000 entries',
    median(painted),
    50,
    ` (committed after ${median(saved).toFixed(0)} ms)`,
  );
}

/** What a press on a link of the trial's own takes until its room is there and painted. */
async function warmRoom(page: Page, link: string, heading: string): Promise<number> {
  return page.evaluate(
    async (link, heading) => {
      const a = [...document.querySelectorAll('a')].find((x) => x.textContent?.trim().startsWith(link))!;
      const from = performance.now();
      a.click();
      for (;;) {
        await new Promise(requestAnimationFrame);
        const there = [...document.querySelectorAll('h1')].some((h) => h.textContent?.includes(heading));
        if (there && !document.querySelector('main[aria-busy]')) break;
      }
      await new Promise(requestAnimationFrame);
      return performance.now() - from;
    },
    link,
    heading,
  );
}

/** How a key, a warm room and opening the trial grow with the log. */
export async function growth(executablePath: string, url: string) {
  const sizes = [1_000, 10_000, 100_000];
  const found = { opened: [] as number[], key: [] as number[], room: [] as number[] };
  for (const entries of sizes) {
    const rounds = Math.ceil(entries / 2400);
    const { browser, page } = await benchWith(executablePath, url, entries, rounds);
    const from = performance.now();
    await page.goto(`${url}/trial/trial/rounds?round=r${rounds - 1}&trait=t11`);
    await page.waitForSelector('.tile.current');
    found.opened.push(performance.now() - from);
    found.key.push(median((await typeValues(page, url, rounds, 9)).painted));
    const rooms: number[] = [];
    for (let i = 0; i < 3; i++) {
      await warmRoom(page, 'Question', 'Question');
      rooms.push(await warmRoom(page, 'Rounds', 'Round'));
    }
    found.room.push(median(rooms));
    await browser.close();
  }
  const say = (ms: number[]) => ms.map((x) => x.toFixed(0)).join(', ');
  const grows = (work: string, ms: number[], limit: number) =>
    rows.push({
      work: `${work}, with 1,000, 10,000 and 100,000 entries`,
      measured: `${say(ms)} ms`,
      limit: `${limit} ms at 100,000`,
      held: ms.at(-1)! < limit,
    });
  grows('opening a trial from nothing', found.opened, 10_000);
  grows('a key to the value saved and painted', found.key, 100);
  grows('the Rounds room, warm', found.room, 300);
}

/** Memory of the largest page process, MB: what the machine really holds for it. */
async function pageMemoryMb(browser: Browser): Promise<number> {
  const session = await browser.target().createCDPSession();
  const { processInfo } = await session.send('SystemInfo.getProcessInfo');
  const sizes = processInfo
    .filter((p) => p.type === 'renderer')
    .map((p) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${p.id}/status`, 'utf8'))?.[1] ?? 0) / 1024);
  return Math.max(...sizes);
}

/** A trial with 200 photos: from the press on Photos to the pictures in sight; and what the page then holds. */
export async function photos(executablePath: string, url: string) {
  const plan = smallPlan({ treatments: ['Water', 'A', 'B', 'C', 'D'], replicates: 8 });
  const log: Entry[] = [entry({ kind: 'seal', planSha256: planSha256(plan) })];
  const files = Array.from({ length: 200 }, (_, i) => {
    const picture = drawPlants({
      ...{ width: 480, height: 360, cover: 0.1 + 0.004 * i, seed: i },
      ...{ leaf: [78, 138, 52] as const, ground: [94, 74, 58] as const },
    });
    const bytes = new Uint8Array(encode({ ...picture, data: Buffer.from(picture.data) }, 80).data);
    const hash = bytesToHex(sha256(bytes));
    const day = Math.floor(i / 40) * 2;
    log.push({
      ...entry({
        ...{
          kind: 'photo',
          unitId: plan.units[i % 40]!.id,
          file: `${i}.jpg`,
          sha256: hash,
          thumbSha256: hash,
        },
        ...{ caption: '', width: 480, height: 360 },
      }),
      at: new Date(Date.parse(`${plan.startDate}T09:00:00Z`) + day * 86_400_000 + i * 1000).toISOString(),
    });
    return { sha256: hash, type: 'image/jpeg', bytes };
  });
  const zip = join(mkdtempSync(join(tmpdir(), 'palazzo-bench-')), 'photos.zip');
  writeFileSync(zip, exportTrial(trialOf(plan, log), { photos: files, series: [] }));
  const browser = await puppeteer.launch({ executablePath, args: chromiumFlags });
  const page: Page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  await page.goto(`${url}/data`);
  const input = await page.waitForSelector('[data-testid="trial-file"]');
  await (input as ElementHandle<HTMLInputElement>).uploadFile(zip);
  await page.waitForSelector('a[href="/trial/trial"]');
  const times: number[] = [];
  for (let i = 0; i < 5; i++) {
    await page.goto(`${url}/trial/trial/rounds?view=events`);
    await page.waitForSelector('::-p-xpath(//button[contains(., "Photos")])');
    times.push(
      await page.evaluate(async () => {
        const from = performance.now();
        [...document.querySelectorAll('button')].find((b) => b.textContent === 'Photos')!.click();
        for (;;) {
          await new Promise(requestAnimationFrame);
          const shown = [...document.querySelectorAll<HTMLImageElement>('.compare img')];
          if (shown.length > 0 && shown.every((img) => img.complete && img.naturalWidth > 0)) break;
        }
        await new Promise(requestAnimationFrame);
        return performance.now() - from;
      }),
    );
  }
  report('the photo view of 200 photos', median(times), 1000);
  const held = await pageMemoryMb(browser);
  rows.push({
    work: 'memory of the page with 200 photos',
    measured: `${held.toFixed(0)} MB`,
    limit: '500 MB',
    held: held < 500,
  });
  await browser.close();
}

/** A press on a link until its page is there and painted; the page before may be any. */
async function warmPage(page: Page, href: string): Promise<number> {
  return page.evaluate(async (href) => {
    const a = document.querySelector<HTMLAnchorElement>(`a[href="${href}"]`);
    if (!a) throw new Error(`There is no link to ${href}.`);
    const from = performance.now();
    a.click();
    const path = new URL(a.href).pathname;
    const before = document.querySelector('h1');
    for (;;) {
      await new Promise(requestAnimationFrame);
      const now = document.querySelector('main:not([aria-busy]) h1');
      if (location.pathname === path && now && (now !== before || performance.now() - from > 2000)) break;
    }
    await new Promise(requestAnimationFrame);
    return performance.now() - from;
  }, href);
}

/** Memory of a page while something runs: the most it held. */
async function mostMemory<T>(browser: Browser, work: () => Promise<T>): Promise<[T, number]> {
  let most = 0;
  const watch = setInterval(() => {
    void pageMemoryMb(browser).then((mb) => (most = Math.max(most, mb)));
  }, 500);
  try {
    return [await work(), most];
  } finally {
    clearInterval(watch);
  }
}

/** What nobody holds any more is let go: a browser does it when it is short of memory. */
async function collected(page: Page): Promise<void> {
  const session = await page.createCDPSession();
  await session.send('HeapProfiler.collectGarbage');
  const { usedSize } = await session.send('Runtime.getHeapUsage');
  console.log(`held by the page's own scripts: ${(usedSize / 2 ** 20).toFixed(0)} MB`);
}

const memoryRow = (work: string, mb: number) =>
  rows.push({ work, measured: `${mb.toFixed(0)} MB`, limit: '500 MB', held: mb < 500 });

/** A bench of 300 trials, one of them of 144,000 entries, with 2,000 photos and a million readings. */
export async function largeBench(executablePath: string, url: string, size: BenchSize) {
  const zip = await writeLargeBench(size);
  const browser = await puppeteer.launch({ executablePath, args: chromiumFlags, protocolTimeout: 900_000 });
  const page: Page = await browser.newPage();
  page.setDefaultTimeout(900_000);
  // Nobody is there to choose where the backup goes.
  await page.evaluateOnNewDocument('globalThis.__name = (f) => f; delete window.showSaveFilePicker;');
  await page.setViewport({ width: 1280, height: 800 });
  await page.goto(`${url}/data`);
  const input = (await page.waitForSelector(
    '[data-testid="backup-file"]',
  )) as ElementHandle<HTMLInputElement>;
  const timed = async (work: string, limit: number, run: () => Promise<unknown>) => {
    const from = performance.now();
    const [, most] = await mostMemory(browser, run);
    report(work, performance.now() - from, limit);
    memoryRow(`memory at its most: ${work}`, most);
    console.log(
      rows
        .slice(-2)
        .map((r) => `${r.work}: ${r.measured}`)
        .join('\n'),
    );
  };
  await timed('reading the backup of a large bench', 60_000, async () => {
    await input.uploadFile(zip);
    await page.waitForSelector('::-p-xpath(//button[contains(., "Bring it back")])');
  });
  await timed('bringing it back', 120_000, async () => {
    await page.click('::-p-xpath(//button[contains(., "Bring it back")])');
    await page.waitForSelector('::-p-xpath(//*[contains(text(), "The backup is on the bench")])');
  });
  await timed('its first screen from nothing', 3_000, async () => {
    await page.goto(url, { waitUntil: 'domcontentloaded' });
    await page.waitForSelector('.ledger tbody tr');
  });
  await page.goto(url);
  await page.waitForSelector('.ledger tbody tr');
  const walk = ['/library', '/', '/standings', '/', '/data', '/', '/trials/new', '/'];
  const times = new Map<string, number[]>();
  for (let turn = 0; turn < 4; turn++)
    for (const href of walk) {
      const ms = await warmPage(page, href);
      if (turn > 0) times.set(href, [...(times.get(href) ?? []), ms]);
    }
  for (const [href, ms] of times) report(`large bench, warm: ${href}`, median(ms), 300);
  await collected(page);
  memoryRow(
    'memory of the page on the large bench, what is no more used collected',
    await pageMemoryMb(browser),
  );
  console.log(rows.map((r) => `${r.work}: ${r.measured}`).join('\n'));
  await page.goto(`${url}/trial/trial`);
  await page.waitForSelector('nav a[href^="/trial/trial/"]');
  const rooms = await page.$$eval('nav a[href^="/trial/trial/"]', (as) => [
    ...new Set(as.map((a) => a.getAttribute('href')!).filter((href) => !href.includes('?'))),
  ]);
  for (let turn = 0; turn < 3; turn++)
    for (const href of rooms) {
      const ms = await warmPage(page, href);
      if (turn === 2) report(`large trial, warm: ${href.replace('/trial/trial/', '')}`, ms, 300);
    }
  await collected(page);
  memoryRow('memory of the page after all rooms of the large trial', await pageMemoryMb(browser));
  console.log(
    rows
      .slice(-20)
      .map((r) => `${r.work}: ${r.measured}`)
      .join('\n'),
  );
  await page.goto(`${url}/data`);
  await timed('writing the backup and reading it back', 120_000, async () => {
    const save = await page.waitForSelector('::-p-xpath(//button[contains(., "Save a backup")])');
    await save!.click();
    await page.waitForSelector('::-p-xpath(//*[contains(text(), "and was read back")])');
  });
  await browser.close();
}
