// Lists with hundreds of rows: only what is in sight is in the page, and the last row is reached all the same.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { exportTrial } from '~core/formats/dataPackage';
import { libraryToFile } from '~core/formats/libraryFile';
import { blankProduct } from '~core/model/blankProduct';
import type { ProductId } from '~core/model/ids';
import { Plan } from '~core/model/plan';
import { entry, height, plan, trialOf, unitId } from '~core/testing/trial';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
let v: Visitor;
const folder = mkdtempSync(join(tmpdir(), 'palazzo-'));
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('ownUrl'));
});
afterAll(() => leave(browser));
const rows = () => v.page.$$eval('tbody tr:not([aria-hidden])', (all) => all.length);
/** Scrolls to the end, as often as the list grows while its rows are measured. */
const toTheEnd = (text: string) =>
  v.page.waitForFunction(
    (t) => {
      window.scrollTo(0, document.documentElement.scrollHeight);
      return document.body.innerText.includes(t);
    },
    { polling: 'raf' },
    text,
  );

describe('a log of a thousand lines', () => {
  it('shows some of them, the oldest at its end, and takes one back from there', async () => {
    const log = Array.from({ length: 1000 }, (_, i) =>
      entry(height(unitId('Water', i % 3), i + 1, i % 2 ? 'r1' : 'r2'), `line-${i}`),
    );
    const zip = join(folder, 'long.zip');
    writeFileSync(zip, exportTrial(trialOf(Plan.parse(plan()), log)));
    await v.open('/data');
    await v.upload('trial-file', zip);
    await v.sees('is on the bench');
    await v.open('/trial/trial/log');
    await v.sees('Take back');
    // its lines, the day they were written on, and the heading
    expect(await v.page.$eval('table', (t) => t.getAttribute('aria-rowcount'))).toBe('1002');
    expect(await rows()).toBeLessThan(80);
    await v.isAccessible();
    await toTheEnd('height 1.0 cm');
    expect(await rows()).toBeLessThan(80);
    await v.page.$$eval('[aria-label^="Take back"]', (all) => (all.at(-1) as HTMLElement).click());
    await v.sees('Taken back by a new line');
  });
});

describe('a library of three hundred products', () => {
  it('shows some of them, and the last can be opened', async () => {
    const products = Array.from({ length: 300 }, (_, i) =>
      blankProduct(`many-${i}` as ProductId, `Prova ${String(i).padStart(3, '0')}`),
    );
    const file = join(folder, 'library.json');
    writeFileSync(file, libraryToFile(products));
    await v.open('/data');
    await v.upload('library-file', file);
    await v.sees('300 added');
    await v.open('/library');
    await v.sees('Prova 000');
    expect(await rows()).toBeLessThan(80);
    await toTheEnd('Prova 299');
    // On a phone a product is some lines one below the other, and nothing lies to the side of the page.
    await v.page.setViewport({ width: 390, height: 844 });
    await v.page.evaluate(() => window.scrollTo(0, 0));
    await v.sees('Prova 000');
    const [wide, room] = await v.page.$eval('table', (t) => [t.scrollWidth, t.parentElement!.clientWidth]);
    expect(wide).toBeLessThanOrEqual(room!);
    await toTheEnd('Prova 299');
    expect(await rows()).toBeLessThan(80);
    await v.pressLink('Prova 299');
    await v.page.waitForFunction(() => document.querySelector('h1')?.textContent === 'Prova 299');
    expect(v.complaints).toEqual([]);
  });
});
