// The shortest way: four trays sealed and the first value logged, every click and key counted; wrong input; a phone.
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
beforeAll(async () => {
  browser = await launch();
});
afterAll(() => leave(browser));

/** Counts what a person does. */
function counting(v: Visitor) {
  const count = { clicks: 0, keys: 0 };
  return {
    count,
    click: async (selector: string) => {
      count.clicks += 1;
      await v.page.locator(selector).click();
    },
    type: async (text: string) => {
      count.keys += text.length;
      await v.page.keyboard.type(text);
    },
    key: async (key: 'Enter' | 'Tab') => {
      count.keys += 1;
      await v.page.keyboard.press(key);
    },
  };
}

async function firstValue(v: Visitor, by: ReturnType<typeof counting>): Promise<string> {
  await v.page.waitForSelector('.tile.current');
  const unit = await v.page.$eval('.tile.current', (e) => e.getAttribute('data-unit')!);
  await by.type('4.2');
  await by.key('Enter');
  await v.tileSays(unit, /4\.2/);
  return unit;
}

describe('a quick plan', () => {
  it('with a product in the library: sealed and measured within 15 clicks and 60 keys', async () => {
    const v = await Visitor.arrive(browser, inject('ownUrl'));
    await v.open('/library/new');
    await v.fill('name', 'Foglia Chiara');
    await v.fill('labelRate', '2 mL/L');
    await v.press('Put it in the library');
    await v.sees('Foglia Chiara');
    await v.open('/');
    const by = counting(v);
    await by.click('::-p-aria([name="Plan a trial"][role="link"])');
    await v.page.waitForSelector('[role="combobox"]');
    await by.click('::-p-aria([name="What is compared"][role="combobox"])');
    await by.click('xpath///*[@role="option"][normalize-space()="Foglia Chiara"]');
    await by.click('input[name="crop"]');
    await by.type('cress');
    // Given by the litre: how many litres is asked.
    await by.click('input[name="solution"]');
    await by.type('0.5');
    await by.click('input[name="differencePercent"]');
    await by.type('10');
    await by.click('::-p-aria([name="Seal it and start"][role="button"])');
    await firstValue(v, by);
    expect(by.count.clicks).toBeLessThanOrEqual(15);
    expect(by.count.keys).toBeLessThanOrEqual(60);
    await v.sees('sealed');
    const trial = new URL(v.page.url()).pathname.split('/')[2]!;
    await v.open(`/trial/${trial}/layout`);
    await v.page.waitForSelector('[data-testid="seal-hash"]');
    expect(await v.page.$$('[data-unit]')).toHaveLength(4);
    // What the short way left open is said.
    await v.open(`/trial/${trial}/fairness`);
    await v.sees('No prediction');
    expect(v.complaints).toEqual([]);
  });

  it('from an empty bench, by names and prices alone, on a phone: within 40 clicks', async () => {
    const v = await Visitor.arrive(browser, inject('ownUrl'), 390, 844);
    await v.open('/');
    const by = counting(v);
    await by.click('::-p-aria([name="Plan a trial"][role="link"])');
    await v.page.waitForSelector('[role="combobox"]');
    await v.isAccessible();
    await by.click('::-p-aria([name="What is compared"][role="combobox"])');
    await by.type('Foglia 12.90');
    await by.key('Enter');
    // The last name needn't be finished.
    await by.type('Bosco 8');
    await by.click('input[name="differencePercent"]');
    await by.type('10');
    await by.click('::-p-aria([name="Seal it and start"][role="button"])');
    await firstValue(v, by);
    expect(by.count.clicks).toBeLessThanOrEqual(40);
    await v.open('/library');
    await v.sees('Foglia');
    await v.sees('Bosco');
    expect(v.complaints).toEqual([]);
  });

  it('says at the field what is wrong, and keeps what was typed', async () => {
    const v = await Visitor.arrive(browser, inject('ownUrl'));
    await v.open('/trials/new');
    await v.press('Seal it and start');
    await v.sees('Choose a product, or write a name.');
    // What is put in place is bought by the piece: no water stands beside it, and nothing is given.
    await v.choose('Kind of trial', 'Grow lamps');
    await v.sees('Lamp areas of each');
    const text = await v.text('main');
    expect(text).not.toContain('Water alone beside them');
    expect(text).not.toContain('Feed a lamp area gets');
    // An additive is seen beside its base alone.
    await v.choose('Kind of trial', 'Base feed against base and additives');
    await v.press('Seal it and start');
    await v.sees('Name the base feed: all get it');
    await v.choose('Kind of trial', 'height now and then, weight at the end');
    await v.sees('Water alone beside them');
    await v.page.locator('::-p-aria([name="What is compared"][role="combobox"])').click();
    await v.page.keyboard.type('Bosco');
    await v.keys('Enter');
    await v.fill('each', '99');
    await v.press('Seal it and start');
    await v.sees('Up to 40.');
    await v.sees('Bosco');
    await v.fill('each', '3');
    await v.fill('solution', '4');
    await v.press('Go on planning');
    await v.sees('How much of Bosco each gets isn’t in the plan, nor is the feed of 4 L');
    await v.sees('What is compared with what.');
    await v.sees('Bosco');

    await v.open('/trials/new');
    await v.choose('Kind of trial', 'Base feed against base and additives');
    await v.page.locator('::-p-aria([name="What is compared"][role="combobox"])').click();
    await v.page.keyboard.type('Gemma 9');
    await v.page.locator('::-p-aria([name="Base feed"][role="combobox"])').click();
    await v.page.keyboard.type('Bosco');
    await v.press('Go on planning');
    await v.sees('What is compared with what.');
    await v.press('Open Bosco alone');
    expect(await v.valueOf('treatments.0.name')).toBe('Bosco alone');
    expect(await v.valueOf('treatments.0.role')).toBe('base');
    await v.press('Open Bosco + Gemma');
    expect(await v.valueOf('treatments.1.name')).toBe('Bosco + Gemma');
    expect(v.complaints).toEqual([]);
  });
});
