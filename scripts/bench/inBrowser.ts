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
import { largeTrial } from './largeTrial';

export async function coldStart(executablePath: string, url: string) {
  const times: number[] = [];
  for (let i = 0; i < 3; i++) {
    const browser = await puppeteer.launch({ executablePath, args: chromiumFlags });
    const page = await browser.newPage();
    await page.setViewport({ width: 1280, height: 800 });
    const from = performance.now();
    await page.goto(url, { waitUntil: 'commit' as 'load' }).catch(() => page.goto(url));
    await page.waitForSelector('.ledger tbody tr');
    times.push(performance.now() - from);
    await browser.close();
  }
  report('first screen with the demo bench, cold profile', median(times), 2000);
}

/** From the Enter key to the value in the database, and to the frame in which it is painted. */
export async function keystroke(executablePath: string, url: string) {
  const { plan, log } = largeTrial(9);
  const zip = join(mkdtempSync(join(tmpdir(), 'palazzo-bench-')), 'large.zip');
  const kept = log.slice(0, 20_000);
  writeFileSync(zip, exportTrial(trialOf(plan, kept)));
  const browser = await puppeteer.launch({ executablePath, args: chromiumFlags });
  const page: Page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  await page.goto(`${url}/data`);
  const input = await page.waitForSelector('[data-testid="trial-file"]');
  await (input as ElementHandle<HTMLInputElement>).uploadFile(zip);
  await page.waitForSelector('a[href="/trial/trial"]');
  await page.goto(`${url}/trial/trial/rounds?round=r8&trait=t11`);
  await page.waitForSelector('.tile.current');
  // tsx names inner functions through this
  await page.evaluate('globalThis.__name = (f) => f');
  const saved: number[] = [];
  const painted: number[] = [];
  const keeping: number[] = [];
  for (let i = 0; i < 25; i++) {
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
    saved.push(s);
    painted.push(v);
    keeping.push(shown);
  }
  await browser.close();
  report('a key to the value painted as being kept', median(keeping), 50);
  report(
    `a key to the value saved and painted, 200 units, ${kept.length.toLocaleString('en')} entries`,
    median(painted),
    50,
    ` (committed after ${median(saved).toFixed(0)} ms)`,
  );
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
