import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
beforeAll(async () => {
  browser = await launch();
});
afterAll(() => leave(browser));

it('a feeding chart is pasted as the maker prints it, and comes to a programme', async () => {
  const v = await Visitor.arrive(browser, inject('demoUrl'));
  const paste = (label: string, text: string) =>
    v.page.$eval(
      `[aria-label="${label}"]`,
      (cell, block) => {
        const clipboardData = new DataTransfer();
        clipboardData.setData('text', block);
        cell.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
      },
      text,
    );
  const uses = () =>
    v.page.$$eval('input[name*="treatments.1.products"][name$="amount"]', (all) => all.length);
  await v.open('/trial/demo-trial-rad/contenders');
  await v.sees('Save the contenders');
  await v.press('Open Duo Lume');
  await v.press('Feeding chart …');
  await v.sees('Feeding chart of Duo Lume');
  await v.sees('don’t fit into one chart');
  await v.isAccessible();
  await v.press('Use this chart');
  await v.sees('There is no rate in it yet.');
  // what is wrong is marked, and the cursor stands in it
  const here = () => v.page.evaluate(() => document.activeElement?.getAttribute('aria-label'));
  expect(await here()).toBe('Rate of line 1, column 1');
  await v.retype('First day of column 2', 'x');
  await v.press('Use this chart');
  await v.sees('The first day of column 2 has to be a whole day');
  await v.page.waitForSelector('[aria-label="First day of column 2"][aria-invalid="true"]');
  expect(await here()).toBe('First day of column 2');
  await v.retype('First day of column 2', '7');
  await paste('Rate of line 1, column 1', '0.5 g/L\t1 g/L\t1 g/L\t1 g/L\n\t\t2 smidgens/L\t2 mL/L');
  await v.press('Use this chart');
  await v.sees('Choose the product of line 2.');
  await v.choose('Product of line 2', 'Mosto Alga');
  await v.press('Use this chart');
  await v.sees('Mosto Alga, “2 smidgens/L”: “smidgens” isn’t a measure known here.');
  expect(await here()).toBe('Rate of line 2, column 3');
  await v.retype('Rate of line 2, column 3', '2 mL/L');
  await v.press('Use this chart');
  await v.sees('The chart is 3 doses');
  expect(await uses()).toBe(3);
  // what stood there before comes back, and the chart again
  await v.press('Undo');
  await v.page.waitForFunction(
    () => document.querySelectorAll('input[name*="treatments.1.products"][name$="amount"]').length === 1,
  );
  await v.press('Feeding chart …');
  await v.sees('Feeding chart of Duo Lume');
  await paste('Rate of line 1, column 1', '0.5 g/L\t1 g/L\t1 g/L\t1 g/L');
  await v.press('Use this chart');
  await v.sees('The chart is 2 doses');
  await v.press('Save the contenders');
  await v.sees('The contenders are saved.');
  await v.open('/trial/demo-trial-rad/mixing?view=programme');
  await v.sees(/Duo Lume week 1 0\.5 g per L 100 % day 0 /);
  await v.sees(/Duo Lume week 2 to week 4 1 g per L 100 % every 7 days, day 7 to 21, 3 times/);
  expect(v.complaints).toEqual([]);
});
