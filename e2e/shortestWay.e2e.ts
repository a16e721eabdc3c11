// From a product in the library to a sealed trial and its first value: how many presses it takes.
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
beforeAll(async () => {
  browser = await launch();
});
afterAll(() => leave(browser));

it('four trays of a product and four of water are sealed, and the first is measured, within 8 presses', async () => {
  const v = await Visitor.arrive(browser, inject('ownUrl'));
  await v.open('/library/new');
  await v.fill('name', 'Foglia Chiara');
  await v.fill('labelRate', '2 mL/L');
  await v.press('Put it in the library');
  await v.sees('Foglia Chiara');

  await v.open('/trials/new');
  let presses = 0;
  const counted = async (act: Promise<unknown>) => {
    presses += 1;
    await act;
  };
  await counted(v.page.locator('::-p-aria([name="What is compared"][role="combobox"])').click());
  await counted(v.page.locator('xpath///*[@role="option"][normalize-space()="Foglia Chiara"]').click());
  await v.fill('each', '4');
  await v.fill('crop', 'cress');
  await v.fill('solution', '0.5');
  await v.fill('question', 'Does Foglia Chiara make taller cress?');
  await v.fill('prediction', 'A tenth taller.');
  await v.fill('differencePercent', '10');
  await counted(v.press('Go on planning'));
  // The product has come with its label's rate, and what it costs is asked for where it isn't known.
  await v.sees('2 mL/L');
  await v.press('Open Foglia Chiara');
  expect(await v.valueOf('treatments.1.name')).toBe('Foglia Chiara');
  expect(await v.valueOf('treatments.1.products.0.amount')).toBe('2 mL/L');
  expect(await v.valueOf('treatments.1.products.0.solutionLPerUnit')).toBe('0.5');
  await counted(v.page.locator('.room-nav a[href$="/layout"]').click());
  await v.sees('8 trays seen from above');
  await counted(v.press('Seal the plan'));
  await v.page.waitForSelector('[data-testid="seal-hash"]');
  await counted(v.page.locator('.room-nav a[href$="/rounds"]').click());
  await v.page.waitForSelector('.tile.current');
  const unit = await v.page.$eval('.tile.current', (e) => e.getAttribute('data-unit')!);
  await v.enter('4.2');
  await v.tileSays(unit, /4\.2/);
  // One Enter a value; half of them by the thumb of one hand on a phone, without scrolling.
  for (const value of ['4.4', '3.9', '4.1']) await v.enter(value);
  await v.page.setViewport({ width: 390, height: 844 });
  await v.page.waitForFunction(
    () => getComputedStyle(document.querySelector('.side')!).position === 'sticky',
  );
  const scrolled = await v.page.evaluate(() => window.scrollY);
  const tap = async (label: string) => {
    const key = await v.page.waitForSelector(`::-p-aria([name="${label}"][role="button"])`);
    const box = (await key!.boundingBox())!;
    expect(box.y).toBeGreaterThan(844 * 0.45);
    expect(box.y + box.height).toBeLessThan(844 - 58);
    await v.page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
  };
  for (let i = 0; i < 4; i++) {
    for (const key of ['4', 'Decimal point', '3']) await tap(key);
    const keep = await v.page.$eval('.side .MuiButton-contained', (e) => e.textContent!);
    expect(keep).toMatch(/^Keep and go/);
    const box = (await (await v.page.$('.side .MuiButton-contained'))!.boundingBox())!;
    await v.page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
    await v.page.waitForFunction(() => document.querySelector('.pad-figure output')!.textContent === '–');
  }
  await v.sees('Plant height: written down of all 8 trays in this round.');
  expect(Math.abs((await v.page.evaluate(() => window.scrollY)) - scrolled)).toBeLessThan(844);
  expect(presses).toBeLessThanOrEqual(8);
  expect(v.complaints).toEqual([]);
});
