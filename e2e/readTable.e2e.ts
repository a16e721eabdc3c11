// A table somebody already has: pasted on an empty bench, put right at a heading, its finding, kept as a trial.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
let v: Visitor;
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('ownUrl'));
});
afterAll(() => leave(browser));

const table = `Basil, level 2, spring
Feed,Pot,Yield (g),Height cm
water,1,41.2,18
water,2,38.9,17
water,3,44.0,19
water,4,40.1,18
Verda Uno,5,47.5,22
Verda Uno,6,49.1,21
Verda Uno,7,45.8,20
Verda Uno,8,48.2,22
Verda Due,9,42.2,19
Verda Due,10,43.1,18
Verda Due,11,40.9,19
Verda Due,12,44.2,20
Sum,,525.2,`;
const paste = async (text: string) => {
  await v.page.locator('textarea').click();
  await v.page.keyboard.sendCharacter(text);
};

it('is led to from an empty bench, and says what it lacks', async () => {
  await v.open('/');
  await v.pressLink('read a table');
  await v.sees('pasted from a spreadsheet');
  await v.isAccessible();
  await paste('nothing, to read');
  await v.sees('No heading with figures below it was found');
  await v.isAccessible();
});

it('what is pasted is understood, and its finding stands beside it', async () => {
  await v.page.$eval('textarea', (t) => t.select());
  await v.page.keyboard.press('Backspace');
  await paste(table);
  await v.sees('Only Verda Uno beat water.');
  await v.sees('row 1 is left: above the heading');
  await v.sees('row 15 is left: a line of sums or means');
  await v.sees('A first look');
  await v.isAccessible();
});

it('another use is chosen at its heading, another control below; a reload keeps it all', async () => {
  await v.page.select('select[aria-label="What Height cm is"]', 'response');
  await v.sees('height, cm per pot');
  await v.page.select('.read-table p select', 'Verda Due');
  await v.sees('against Verda Due');
  await v.reload();
  await v.sees('against Verda Due');
  await v.page.select('.read-table p select', 'water');
  await v.page.select('select[aria-label="What Height cm is"]', '');
  await v.sees('Only Verda Uno beat water.');
});

it('second looks and the same in R stand there before anything is kept; a figure far off is asked about', async () => {
  await v.unfold('Would it be another finding, looked at otherwise?');
  await v.page.waitForFunction(
    () => (document.querySelector('.folded[open] .report-list, .folded[open] .quiet') ?? null) !== null,
  );
  await v.press('How this was worked out, and the same in R');
  await v.sees('The same in R');
  await v.sees(/c\(.*41\.2/);
  await v.press('Close');
  await v.press('Another table');
  await paste(table.replace('47.5', '475'));
  await v.sees('Row 7: 475 g, where the others lie between 38.9 and 49.1. A slip?');
  await v.press('Another table');
  await paste(table);
  await v.sees('Only Verda Uno beat water.');
  await v.gone('A slip?');
});

it('six pots of one tank are one: numbers, no winner', async () => {
  await v.press('one tank or tray for all of a product');
  await v.gone('beat water');
  await v.press('each unit');
  await v.sees('Only Verda Uno beat water.');
});

it('kept it is a trial, with the same finding, not sealed', async () => {
  await v.press('yes');
  await v.gone('A first look');
  await v.press('Keep as a trial');
  await v.arrives(/^\/trial\/[\w-]+\/findings$/);
  await v.sees('Only Verda Uno beat water.');
  const trial = (await v.page.evaluate(() => location.pathname)).replace('/findings', '');
  await v.sees('Taken in from a table, not sealed');
  await v.open(`${trial}/fairness`);
  await v.sees(/sealed/);
  await v.open('/');
  await v.sees('What does a table say?');
});

it('on a phone it stays within the page; a file is opened too', async () => {
  const phone = await Visitor.arrive(browser, inject('ownUrl'), 390, 844);
  await phone.open('/table');
  const file = join(phone.downloads, 'basil.csv');
  writeFileSync(file, table.replaceAll(',', ';').replaceAll('.', ','));
  await phone.upload('table-file', file);
  await phone.sees('Only Verda Uno beat water.');
  expect(await phone.page.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  await phone.isAccessible();
  expect(phone.complaints).toEqual([]);
});
