// From the empty bench to the seal, typed as a new user would, with products, label rates and prices: how many clicks.
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
beforeAll(async () => {
  browser = await launch();
});
afterAll(() => leave(browser));

/** A person at the page of a new trial; every click and every Enter counts, the words themselves don't. */
async function beginning(width = 1280, height = 800) {
  const v = await Visitor.arrive(browser, inject('ownUrl'), width, height);
  await v.open('/');
  let clicks = 0;
  const click = async (selector: string) => {
    clicks += 1;
    await v.page.locator(selector).click();
  };
  const press = (name: string) => click(`::-p-aria([name="${name}"][role="button"])`);
  await click('::-p-aria([name="Plan a trial"][role="link"])');
  await v.page.waitForSelector('input[name="each"]');
  return {
    v,
    press,
    clicks: () => clicks,
    kind: async (name: string) => {
      clicks += 2;
      await v.choose('Kind of trial', name);
    },
    compared: async (...names: string[]) => {
      await click('::-p-aria([name="What is compared"][role="combobox"])');
      for (const name of names) {
        await v.page.keyboard.sendCharacter(name);
        await v.keys('Enter');
        clicks += 1;
      }
    },
    fill: async (field: string, text: string) => {
      clicks += 1;
      await v.fill(field, text);
    },
    sealed: async () => {
      clicks += 1;
      await v.fill('differencePercent', '10');
      await press('Seal it and start');
      await v.page.waitForFunction(() => location.pathname.endsWith('/rounds'));
      await v.page.waitForSelector('.side h2');
    },
    at: async (room: string) => v.open(`/trial/${new URL(v.page.url()).pathname.split('/')[2]}/${room}`),
  };
}

describe('from the empty bench to the seal', () => {
  it('four trays of a three-part feed against water: within 30 clicks', async () => {
    const p = await beginning();
    await p.compared('Primo 12, 0.5 mL/L + Secondo 14, 1 mL/L + Terzo 9, 1 mL/L');
    await p.fill('each', '4');
    await p.fill('crop', 'cress');
    await p.fill('solution', '0.6');
    await p.fill('prediction', 'A third heavier.');
    await p.sealed();
    expect(p.clicks()).toBeLessThanOrEqual(10);
    await p.at('contenders');
    await p.v.sees('Primo + Secondo + Terzo');
    // 0.3 mL at 12.00, 0.6 mL at 14.00 and 0.6 mL at 9.00 a litre.
    await p.v.sees('$0.0174');
    await p.at('review?level=record');
    await p.v.sees('Which does best on cress: water or Primo + Secondo + Terzo?');
    await p.v.sees('A third heavier.');
    expect(p.v.complaints).toEqual([]);
  });

  it('two lawn halves, one strewn: within 25 clicks; how much ground is asked', async () => {
    const p = await beginning(390, 844);
    await p.kind('Lawn amendment strips');
    await p.compared('Prato 25, 30 g/m²');
    await p.fill('each', '1');
    await p.press('Seal it and start');
    await p.v.sees('How much ground has each strip? Prato is given by the ground.');
    await p.fill('areaCm2', '20');
    await p.press('Seal it and start');
    await p.v.sees('20 of what? Write 20 m² or 20 sq ft.');
    await p.fill('areaCm2', '20 m²');
    await p.sealed();
    expect(p.clicks()).toBeLessThanOrEqual(13);
    await p.at('contenders');
    await p.v.sees('600 g to each strip');
    await p.v.sees('$15.00');
    expect(p.v.complaints).toEqual([]);
  });

  it('eight supports, two kinds: within 20 clicks', async () => {
    const p = await beginning();
    await p.kind('Climbing supports and other accessories');
    await p.compared('Canna 3.50', 'Rete 7');
    await p.fill('each', '4');
    await p.fill('crop', 'pea');
    await p.sealed();
    expect(p.clicks()).toBeLessThanOrEqual(10);
    await p.at('contenders');
    await p.v.sees('$3.50');
    await p.v.sees('$7.00');
    await p.at('layout');
    await p.v.page.waitForSelector('[data-testid="seal-hash"]');
    expect(await p.v.page.$$('[data-unit]')).toHaveLength(8);
    expect(p.v.complaints).toEqual([]);
  });
});
