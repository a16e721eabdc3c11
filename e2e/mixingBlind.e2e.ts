import { strFromU8, unzipSync } from 'fflate';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
let v: Visitor;
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('demoUrl'));
});
afterAll(() => leave(browser));

// Before somebody is the helper in this tab.
it('whoever scores meets no name, nor what tells one: every view, its hints, its addresses, and the file', async () => {
  const trial = '/trial/demo-trial-fag';
  // The plan itself lists its contenders, without their codes; the card is behind the helper's button.
  const paths = [
    ...[
      'rounds',
      'weigh-in',
      'findings',
      'verdict',
      'review',
      'log',
      'layout',
      'rehearsal',
      'card',
      'mixing-card',
    ],
    ...['places', 'light', 'turns', 'sizes'].map((view) => `layout?view=${view}`),
    ...['photos', 'air', 'events'].map((view) => `rounds?view=${view}`),
    'layout?view=planting',
    ...['units', 'bottles', 'jars'].map((sheet) => `labels?for=${sheet}`),
    ...['day', 'compare', 'programme', 'reservoirs', 'stock'].map((view) => `mixing?view=${view}`),
  ];
  const names = /Palestra|Mosto|Ombretta|Untreated|plain water|nothing in it|mS\/cm/i;
  const told: string[] = [];
  for (const path of paths) {
    await v.open(`${trial}/${path}`);
    await v.page.waitForSelector('h1');
    const everything = await v.page.evaluate(() => {
      const attributes = [...document.querySelectorAll('*')].flatMap((e) =>
        ['title', 'aria-label', 'href', 'value', 'alt', 'placeholder'].map((a) => e.getAttribute(a) ?? ''),
      );
      return [document.body.innerText, document.title, location.href, ...attributes].join('\n');
    });
    const found = names.exec(everything)?.[0];
    if (found) told.push(`${path}: ${found}`);
  }
  expect(told).toEqual([]);
  for (const room of ['contenders', 'question']) {
    await v.open(`${trial}/${room}`);
    await v.page.waitForSelector('h1');
    expect(await v.page.evaluate(() => document.body.innerText)).not.toMatch(/Code [A-D]\b/);
  }
  await v.open(`${trial}/review`);
  await v.press('Copy for whoever scores (zip)');
  const zip = unzipSync(await v.downloaded('fag-to-score.zip'));
  for (const [file, bytes] of Object.entries(zip)) {
    expect(`${file}: ${strFromU8(bytes)}`).not.toMatch(/Palestra|Mosto|Ombretta|Untreated|palestra|mosto/);
  }
  // It opens on another device, blind, with the same letters as on the labels; the seal isn't called broken.
  const other = await Visitor.arrive(browser, inject('ownUrl'));
  await other.open('/data');
  await other.upload('trial-file', v.pathOfDownload('fag-to-score.zip'));
  await other.sees('Do root inoculants do anything');
  await other.open(`${trial}/findings`);
  await other.sees('Code A');
  expect(await other.page.evaluate(() => document.body.innerText)).not.toMatch(/changed outside/);
  expect(v.complaints).toEqual([]);
});

it('the blind helper’s card shows codes and nothing else', async () => {
  const shown = () => v.page.evaluate(() => document.body.innerText);
  const names = /Palestra|Mosto|Ombretta|Untreated|Officina|Fratelli/;
  await v.open('/trial/demo-trial-fag/mixing-card?day=42');
  await v.sees('The helper’s mixing card');
  await v.press('I am the helper: show it');
  await v.sees('from jar A1');
  expect(await shown()).not.toMatch(names);
  await v.isAccessible();
  await v.open('/trial/demo-trial-fag/mixing?day=42');
  await v.sees('jar A1');
  expect(await shown()).not.toMatch(names);
  await v.press('Mix another batch');
  await v.sees('Measure 4.4 mL from jar A1');
  // nobody has said what the syringe shows: it is asked here, and the recipe follows
  await v.sees('Reckoned with a syringe that shows everything.');
  await v.press('1 mL');
  await v.sees('Measure 4 mL from jar A1');
  expect(await shown()).not.toMatch(names);
  expect(await v.page.$('[data-testid="cost-per-litre"]')).toBeNull();
  for (const view of ['Compare doses', 'Stock']) {
    await v.press(view);
    await v.sees('its codes are closed');
  }
  await v.press('Programme');
  await v.sees('every 7 days');
  expect(await shown()).not.toMatch(names);
  await v.open('/trial/demo-trial-fag/log');
  await v.sees('newest first');
  expect(await shown()).not.toMatch(names);
  await v.open('/trial/demo-trial-fag/labels?for=jars');
  await v.sees('Jar A1');
  expect(await shown()).not.toMatch(names);
  expect(v.complaints).toEqual([]);
});
