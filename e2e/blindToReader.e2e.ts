// From a finished blind trial to its reader: codes opened, scorecard turned, claims judged, the review written and saved in
// every form, the file taken in on a fresh profile, a retest planned from it, and what it adds over all trials.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { strFromU8, unzipSync } from 'fflate';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { prepare } from './profiles';
import { Visitor } from './visitor';

let browser: Browser;
let v: Visitor;
const folder = mkdtempSync(join(tmpdir(), 'palazzo-'));
const zip = join(folder, 'beans.zip');
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('demoUrl'));
});
afterAll(() => leave(browser));

const trial = '/trial/demo-trial-fag';
const paperSays = (text: string) =>
  v.page.waitForFunction((t) => document.querySelector('.paper')?.textContent?.includes(t), {}, text);

describe('a blind trial', () => {
  it('shows no name before its codes are opened, and asks twice', async () => {
    await v.open(`${trial}/verdict`);
    await v.sees('its codes are closed');
    expect(await v.page.evaluate(() => document.body.innerText)).not.toContain('Mosto Alga');
    await v.press('Open the codes');
    await v.press('Not yet');
    await v.press('Open the codes');
    await v.press('Open the codes now');
    await v.sees('Mosto Alga');
  });
  it('is weighed under headings of the reviewer’s own choice, and a weight turns it', async () => {
    await v.open(`${trial}/verdict?view=card`);
    await v.press('Begin a scorecard');
    await v.page.waitForSelector('input[aria-label="Weight of Plant weight"]');
    await v.choose('Add a heading', 'Roots');
    await v.page.waitForSelector('input[aria-label="Weight of Roots"]');
    const leader = (name: string) =>
      v.page.waitForFunction(
        (n) => document.querySelector('h2[aria-live]')!.textContent!.startsWith(n),
        {},
        name,
      );
    const weigh = async (heading: string, key: 'Home' | 'End') => {
      await v.page.focus(`input[aria-label="Weight of ${heading}"]`);
      await v.keys(key);
    };
    await weigh('Low cost', 'Home');
    await leader('Palestra Liquida');
    await weigh('Plant weight', 'Home');
    await weigh('Evenness', 'Home');
    await leader('Mosto Alga');
    // Kept, not only shown: the next page is opened anew.
    await v.page.waitForFunction(
      () =>
        new Promise<boolean>((done) => {
          const open = indexedDB.open('palazzo-demo');
          open.onsuccess = () => {
            const row = open.result.transaction('trials').objectStore('trials').get('demo-trial-fag');
            row.onsuccess = () => {
              const { headings } = (
                row.result as { review: { headings: { name: string; weight: number }[] } }
              ).review;
              open.result.close();
              done(headings.find((h) => h.name === 'Evenness')?.weight === 0);
            };
          };
        }),
      { polling: 100 },
    );
  });
  it('sets a claim against what it bears on, against another contender, by when the label says', async () => {
    await v.open(`${trial}/verdict?view=claims`);
    await v.sees(/“Roots twice as fast”\s+not tested here/);
    await v.choose('Bears on', 'Roots', 2);
    await v.sees(/“Roots twice as fast”\s+(borne out|not shown|in part)/);
    await v.choose('By when', 'Potted on, day 28');
    await v.sees(/By Potted on, day 28\. Roots against Untreated: [+−]\d.*no change was shown/);
    await v.choose('By when', 'Lifting, day 56');
    await v.choose('Against', 'Palestra Liquida');
    const said = /By Lifting, day 56\. Roots against Palestra Liquida: [+−]?\d/;
    await v.sees(said);
    await v.reload();
    await v.sees(said);
    await v.isAccessible();
  });
});

describe('its review', () => {
  it('has sections in the reviewer’s order, figures and days as the readers write them', async () => {
    await v.open(`${trial}/review?level=record`);
    await paperSays('Scorecard');
    await v.page.$$eval('details > summary', (all) => (all[0] as HTMLElement).click());
    const before = (one: string, other: string) =>
      v.page.waitForFunction(
        (a, b) => {
          const text = document.querySelector('.paper')!.textContent!;
          return text.indexOf(a) < text.indexOf(b);
        },
        {},
        one,
        other,
      );
    await before('Scorecard', 'What the labels claim');
    await v.press('What the labels claim up');
    await before('What the labels claim', 'How far a pack goes');
    await v.press('What the labels claim up');
    await before('What the labels claim', 'Scorecard');
    await v.choose('Figures and days are written', '12,5 · 27.11.2026');
    await v.press('The piece');
    await v.page.waitForFunction(() =>
      /written \d\d\.\d\d\.20\d\d/.test(document.querySelector('.paper')!.textContent!),
    );
    // Not one figure is left with a point: in no table, sentence or small print.
    const points = async () => {
      const text = await v.page.$eval('.paper', (p) => p.textContent!);
      expect(text).toMatch(/\d,\d\d?\s€/);
      return (text.match(/.{30}\d\.\d(?!\d\.).{10}/g) ?? []).filter((t) => !/\d\d\.\d\d\.\d/.test(t));
    };
    expect(await points()).toEqual([]);
    await v.press('The record');
    await paperSays('How it was done');
    expect(await points()).toEqual([]);
    await v.fill('introduction', 'Two bottles that promise roots, and one that promises nothing.');
    await v.sees('Saved as you type.');
    await v.press('The piece');
    await paperSays('Two bottles that promise roots');
    await v.isAccessible();
  });
  it('goes out as a page, a PDF, Markdown and a zip that say the same', async () => {
    await v.press('Review as one page (HTML)');
    const html = join(folder, 'review.html');
    writeFileSync(html, await v.downloaded('.html'));
    const page = await browser.newPage();
    await page.goto(pathToFileURL(html).href);
    const title = await page.$eval('h1', (e) => e.textContent!);
    expect(title).toBe('Do root inoculants do anything for dwarf beans?');
    const leader = await page.$eval('#card-said', (e) => e.textContent!);
    expect(leader).toMatch(/^Mosto Alga leads/);
    await page.focus('[data-heading="0"]');
    await page.keyboard.press('End');
    await page.focus('[data-heading="1"]');
    await page.keyboard.press('Home');
    await page.waitForFunction((t) => document.getElementById('card-said')!.textContent !== t, {}, leader);
    expect(await page.evaluate(() => document.body.innerText)).toContain('Two bottles that promise roots');
    await page.close();
    await v.press('PDF');
    const pdf = await getDocument({ data: new Uint8Array(await v.downloaded('.pdf')) }).promise;
    const first = await (await pdf.getPage(1)).getTextContent();
    expect(
      first.items
        .map((t) => ('str' in t ? t.str : ''))
        .join(' ')
        .replaceAll(/\s+/g, ' '),
    ).toContain('root inoculants');
    await v.press('Markdown (zip)');
    const files = unzipSync(new Uint8Array(await v.downloaded('-markdown.zip')));
    expect(strFromU8(files['review.md']!)).toContain('Two bottles that promise roots');
    await v.press('Trial and data (zip)');
    writeFileSync(zip, await v.downloaded('-trial.zip'));
  });
});

describe('whoever gets the file', () => {
  it('finds the same trial under the same seal, on an empty bench', async () => {
    const reader = await Visitor.arrive(browser, inject('ownUrl'), 390, 844);
    // The system's share sheet can't be opened from here: what it would be given is looked at.
    await prepare(reader.page, () => {
      Object.assign(navigator, {
        canShare: () => true,
        share: ({ files }: { files: File[] }) =>
          Promise.resolve(Object.assign(window, { shared: files.map((f) => f.name).join() })),
      });
    });
    await reader.open('/data');
    await reader.upload('trial-file', zip);
    await reader.sees('Do root inoculants do anything for dwarf beans?');
    await reader.open(`${trial}/review`);
    await reader.page.waitForFunction(() =>
      document.querySelector('.paper')?.textContent?.includes('Two bottles that promise roots'),
    );
    await reader.choose('What of the review', 'The record');
    await reader.sees(/The plan was sealed on .*SHA-256/);
    expect(await reader.page.$('.note.bad')).toBeNull();
    await reader.press('Hand it over …');
    await reader.page.waitForFunction(() => (window as { shared?: string }).shared === 'fag-trial.zip');
    await reader.open(`${trial}/verdict`);
    await reader.press('Plan a retest');
    await reader.arrives(/\/trial\/(?!demo-)[^/]+\/question/);
    await reader.sees('Deciding trait');
    expect(reader.complaints).toEqual([]);
  });
  it('and it counts beside the other trials', async () => {
    await v.open('/standings');
    await v.sees('Standings over 6 trials');
    await v.sees('Mosto Alga');
  });
  it('nothing went wrong on the way', () => {
    expect(v.complaints).toEqual([]);
  });
});
