// Two paired devices that type and exchange by themselves, each killed by turns, the server stopped and started with what
// is on its disk. What either screen said is kept must in the end be on both.
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import type { TrialId } from '~core/model/ids';
import type { Random } from '~core/stats/random';
import { certificate } from '../lan/authority.mjs';
import { LetterBox } from '../lan/letterBox.mjs';
import { shelf } from '../lan/shelf.mjs';
import { serve } from '../serve.mjs';
import { type Confirmed, ended, inDatabase, opened, tab } from './tab';

/** Until two devices that were left alone hold the same, ms: an unreached box is asked again after 15 s. */
const SETTLED_MS = 120_000;

/** The server in a network, which comes back with what is on its disk. */
async function network(folder: string) {
  const lan = await certificate({ folder, addresses: [] });
  let known: object[] = [];
  const start = async (port: number) => {
    const onDevices = (devices: object[]) => (known = devices);
    const box = new LetterBox({ known, onDevices, shelf: shelf(join(folder, 'letters')) });
    return serve({ port, bench: 'own', host: '127.0.0.1', lan: { ...lan, box } });
  };
  let server = await start(0);
  const { port } = server.address() as AddressInfo;
  const stop = () =>
    new Promise<void>((resolve) => {
      server.closeAllConnections();
      server.close(() => resolve());
    });
  return {
    url: `https://localhost:${port}`,
    code: () => server.box!.invite().code,
    stop,
    restart: async () => {
      await stop();
      server = await start(port);
    },
  };
}

/**
 * Types on two devices until one of them, or the server, is killed, so many times; then lets them exchange and holds both
 * databases against what was said.
 */
export async function tortureExchange(given: {
  kills: number;
  random: Random;
  executablePath: string;
  /** a sealed trial with rounds r0, r1 and so on, as a file: half of them for each device */
  trial: Uint8Array;
  rounds: number;
  trialId: TrialId;
}): Promise<{ confirmed: number; lost: number; half: number }> {
  const { kills, random, trialId } = given;
  if (kills === 0) return { confirmed: 0, lost: 0, half: 0 };
  const dir = mkdtempSync(join(tmpdir(), 'palazzo-exchange-'));
  const net = await network(join(dir, 'server'));
  const confirmed: Confirmed[] = [];
  const open = (device: number) =>
    opened(given.executablePath, join(dir, `device-${device}`), ['--ignore-certificate-errors']);

  const roundOf = (device: number, kill: number) =>
    `r${(device * given.rounds) / 2 + Math.floor((kill * given.rounds) / 2 / kills)}`;

  // The desk takes the trial in, the phone is paired with it and gets it.
  const browsers: Browser[] = [await open(0), await open(1)];
  const first = async (device: number) => browsers[device]!.newPage();
  const [desk, phone] = [await first(0), await first(1)];
  const path = join(dir, 'trial.zip');
  writeFileSync(path, given.trial);
  const go = (page: Page, to: string) => page.goto(`${net.url}${to}`, { waitUntil: 'load' });
  const press = (page: Page, text: string) =>
    page.locator(`::-p-xpath(//button[starts-with(., "${text}")])`).click();
  const sees = (page: Page, text: string) =>
    page.waitForFunction((t) => document.body.innerText.includes(t), { timeout: 60_000 }, text);
  const pair = async (page: Page, hash: string) => {
    await go(page, `/pair#${hash}`);
    await press(page, 'Pair this device');
    await page.waitForFunction(() => !document.body.innerText.includes('Pair this device'));
  };
  await go(desk, '/data');
  const input = await desk.waitForSelector('[data-testid="trial-file"]');
  await (input as unknown as { uploadFile: (path: string) => Promise<void> }).uploadFile(path);
  await sees(desk, 'is on the bench');
  await pair(desk, net.code());
  await go(desk, '/devices');
  await press(desk, 'Pair another device');
  const link = await desk.waitForFunction(() =>
    [...document.querySelectorAll('input')].map((i) => i.value).find((v) => /\/pair#.*\./.test(v)),
  );
  await pair(phone, new URL((await link.jsonValue()) as string).hash.slice(1));
  await go(phone, '/');
  await sees(phone, 'Is it worth it?');

  for (let kill = 0; kill < kills; kill++) {
    // The survivor of the last kill goes on where it is; the other one is opened again.
    const at = Math.floor(random.uniform() * 3);
    try {
      const pages: Page[] = [];
      for (const device of [0, 1]) {
        if (!browsers[device]!.connected) browsers[device] = await open(device);
        for (const page of await browsers[device]!.pages())
          if (!page.url().startsWith('about:')) await page.close();
        pages.push(await tab(browsers[device]!, { url: net.url, trialId, round: roundOf(device, kill), clockOffMs: 0, confirmed })); // prettier-ignore
      }
      let dead = false;
      const killer = setTimeout(
        () => {
          dead = true;
          if (at < 2) browsers[at]!.process()!.kill('SIGKILL');
        },
        // An exchange follows a value after 0.7 s and comes every 3 s.
        200 + random.uniform() * 6000,
      );
      for (let i = 0; !dead; i++) {
        const page = pages[i % 2]!;
        await page.keyboard.type((5 + random.uniform()).toFixed(1));
        await page.keyboard.press('Enter');
      }
      clearTimeout(killer);
      if (at === 2) await net.restart();
    } catch {
      // The browser went away in the middle of a step: that is what is tried.
    }
    if (at < 2) await ended(browsers[at]!);
    if ((kill + 1) % 10 === 0) console.log(`${kill + 1} kills of exchanges, ${confirmed.length} confirmed`);
  }

  const newest = new Map(confirmed.map((c) => [`${c.round}/${c.unit}`, c]));
  let [lost, half] = [0, 0];
  for (const device of [0, 1]) if (!browsers[device]!.connected) browsers[device] = await open(device);
  const looking = await Promise.all(browsers.map((b) => b.newPage()));
  for (const page of looking) {
    await page.evaluateOnNewDocument('globalThis.__name = (f) => f');
    await go(page, '/devices');
  }
  const until = Date.now() + SETTLED_MS;
  /** What the last look at a device lacks of what was confirmed on either. */
  const lacking = async (page: Page) => {
    const held = await inDatabase(page, trialId);
    return {
      half: held.half,
      missing: [...newest.values()].filter((c) => !held.values[`${c.round}/${c.unit}`]?.includes(c.value)),
    };
  };
  for (const [device, page] of looking.entries()) {
    let found = await lacking(page);
    while (found.missing.length > 0 && Date.now() < until) {
      // Whoever is looked at exchanges: the tabs take turns to be in front.
      await page.bringToFront();
      await page.waitForFunction((n) => performance.now() > n, {}, (await page.evaluate(() => performance.now())) + 1000); // prettier-ignore
      found = await lacking(page);
    }
    lost += found.missing.length;
    half += found.half;
    if (found.missing.length > 0) {
      const of = ['desk', 'phone'][device];
      console.log(`${of}: ${found.missing.length} not there, ${JSON.stringify(found.missing.slice(0, 3))}`);
      console.log((await page.evaluate(() => document.body.innerText)).slice(0, 600));
    }
  }
  for (const browser of browsers) await browser.close();
  await net.stop();
  rmSync(dir, { recursive: true, force: true });
  return { confirmed: newest.size, lost, half };
}
