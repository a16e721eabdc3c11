// The app without its server: kept on the device at the first visit, opened again with the server stopped and the
// browser restarted in the middle of a round; a newer version is announced and taken when asked.
import { mkdtempSync, rmSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { serve } from '../scripts/serve.mjs';
import { launch } from './browser';
import { Visitor } from './visitor';

const profile = mkdtempSync(join(tmpdir(), 'palazzo-profile-'));
let server: Server;
let browser: Browser;
let v: Visitor;
let base = '';

const stop = (s: Server) =>
  new Promise<void>((resolve) => {
    s.closeAllConnections();
    s.close(() => resolve());
  });

/** A visitor in the profile itself, which outlives the browser. */
async function arrive(): Promise<void> {
  browser = await launch([`--user-data-dir=${profile}`]);
  v = await Visitor.arriveIn(browser.defaultBrowserContext(), base);
}

const kept = (page: Page) =>
  page.waitForFunction(async () => {
    if (!navigator.serviceWorker.controller) return false;
    const { active } = await navigator.serviceWorker.ready;
    return active?.state === 'activated';
  });

beforeAll(async () => {
  server = (await serve({ port: 0, bench: 'demo' })) as Server;
  base = `http://localhost:${(server.address() as AddressInfo).port}`;
  await arrive();
});
afterAll(async () => {
  await browser.close();
  await stop(server);
  rmSync(profile, { recursive: true, force: true });
});

it('a page names at once the files its address needs, each of them there', async () => {
  await v.open('/trial/demo-trial-par/rounds');
  const named = await v.page.$$eval('link[rel="modulepreload"]', (all) => all.map((l) => l.href));
  expect(named.filter((f) => /\/(TrialLayout|rounds)-/.test(f)).length).toBeGreaterThanOrEqual(2);
  const answers = await v.page.evaluate(
    (files) => Promise.all(files.map(async (f) => (await fetch(f)).status)),
    named,
  );
  expect(new Set(answers)).toEqual(new Set([200]));
});

describe('without a server', () => {
  it('a round goes on after the browser was restarted, and what was kept is there', async () => {
    await v.open('/trial/demo-trial-par/rounds');
    await v.page.waitForSelector('.tile.current');
    const unit = await v.page.$eval('.tile.current', (e) => e.getAttribute('data-unit')!);
    await v.enter('8.4');
    await v.tileSays(unit, /8\.4/);
    await kept(v.page);
    await stop(server);
    await browser.close();

    await arrive();
    await v.open('/trial/demo-trial-par/rounds');
    await v.tileSays(unit, /8\.4/);
    const next = await v.page.$eval('.tile.current', (e) => e.getAttribute('data-unit')!);
    expect(next).not.toBe(unit);
    await v.enter('9.1');
    await v.tileSays(next, /9\.1/);
  });
  it.each([
    ['/', 'Parsley'],
    ['/library', 'Duo Lume'],
    ['/standings', 'Standings'],
    ['/calculator', 'Calculator'],
    ['/data', 'Everything stays in this browser'],
    ['/trial/demo-trial-cor/findings', 'beat Water'],
    ['/trial/demo-trial-cor/verdict?view=card', 'leads in'],
    ['/trial/demo-trial-cor/review', 'Verdict'],
    ['/trial/demo-trial-cor/panel', 'Panel'],
    ['/trial/demo-trial-cor/rehearsal', 'Rehearsal'],
    ['/trial/demo-trial-par/mixing', 'Mixing'],
    ['/trial/demo-trial-par/labels', 'Label'],
    ['/trial/demo-trial-par/rounds?view=air', 'day'],
    ['/trial/demo-trial-fag/layout', 'Layout'],
  ])('%s opens', async (path, text) => {
    await v.open(path);
    await v.sees(new RegExp(text, 'i'));
  });
  it('has its own fonts', async () => {
    await v.page.evaluate(() => document.fonts.ready);
    expect(await v.page.evaluate(() => document.fonts.check('600 20px "Fraunces Variable"'))).toBe(true);
  });
});

describe('a newer version', () => {
  it('is announced, nothing happens by itself, and it is taken when asked', async () => {
    // The page of the other bench is another version of what is kept.
    server = (await serve({ port: Number(new URL(base).port), bench: 'own' })) as Server;
    await v.load('/trial/demo-trial-par/rounds');
    await v.sees('A new version of Palazzo is ready.');
    expect(await v.page.$eval('meta[name="palazzo-bench"]', (e) => e.getAttribute('content'))).toBe('demo');
    await v.isAccessible();
    const loaded = v.page.waitForNavigation({ waitUntil: 'load' });
    await v.press('Take it now');
    await loaded;
    await v.page.waitForFunction(
      () => document.querySelector('meta[name="palazzo-bench"]')?.getAttribute('content') === 'own',
    );
  });
});
