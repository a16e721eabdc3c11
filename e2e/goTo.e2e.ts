// By name from anywhere; and copies: a trial, a product, a contender.
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
let v: Visitor;
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('demoUrl'));
});
afterAll(() => leave(browser));

describe('going by name', () => {
  it('by the keyboard: to a unit of this trial, to a product, to nothing', async () => {
    await v.open('/trial/demo-trial-par/findings');
    const ask = async (text: string) => {
      await v.page.waitForSelector('[role="dialog"]', { hidden: true });
      await v.page.keyboard.down('Control');
      await v.page.keyboard.press('k');
      await v.page.keyboard.up('Control');
      await v.page.waitForSelector('[role="dialog"] [role="option"]');
      await v.page.keyboard.type(text);
    };
    await ask('PAR-12');
    await v.isAccessible();
    await v.keys('Enter');
    await v.page.waitForSelector('[data-unit="PAR-12"].current');
    // A value goes to the unit one went to.
    await v.enter('9.3');
    await v.tileSays('PAR-12', /9\.3/);
    // The walk has gone on; gone to again, it is the pad's again.
    await v.page.waitForSelector('[data-unit="PAR-12"]:not(.current)');
    await ask('PAR-12');
    await v.keys('Enter');
    await v.page.waitForSelector('[data-unit="PAR-12"].current');
    await ask('duo lume');
    await v.keys('Enter');
    await v.page.waitForSelector('input[name="labelRate"]');
    // From one product to the next: each has its own label.
    expect(await v.valueOf('name')).toMatch(/Duo Lume/);
    await ask('palestra liquida');
    await v.keys('Enter');
    await v.page.waitForFunction(() => document.querySelector('h1')?.textContent?.includes('Palestra'));
    expect(await v.valueOf('name')).toMatch(/Palestra Liquida/);
    await ask('no such thing');
    await v.sees('Nothing of that name');
    await v.keys('Escape');
    await v.page.waitForSelector('[role="dialog"]', { hidden: true });
    expect(v.complaints).toEqual([]);
  });
  it('by a tap on a phone', async () => {
    await v.page.setViewport({ width: 320, height: 640 });
    await v.open('/');
    await v.press('Go to …');
    await v.page.waitForSelector('[role="dialog"] [role="option"]');
    await v.page.keyboard.type('calcul');
    await v.page.locator('xpath///*[@role="option"][starts-with(normalize-space(), "Calculator")]').click();
    await v.arrives(/^\/calculator$/);
    await v.page.setViewport({ width: 1280, height: 800 });
    expect(v.complaints).toEqual([]);
  });
});

describe('copies', () => {
  it('another trial like one that is here, begun anew', async () => {
    await v.open('/');
    await v.page.locator('.finished > summary').click();
    await v.fromMenu('More for Does a dearer feed earn its price on coriander?', 'Plan another like it');
    await v.sees('What is measured');
    await v.sees('being planned');
    expect(await v.valueOf('question')).toBe('Does a dearer feed earn its price on coriander?');
    expect(await v.valueOf('prediction')).toBe('');
    const trial = new URL(v.page.url()).pathname.replace('/question', '');
    expect(trial).not.toContain('demo-trial-cor');
    await v.open(`${trial}/contenders`);
    // A contender with half the dose is a copy with another name.
    await v.press('Open Duo Lume');
    const dose = await v.valueOf('treatments.2.products.0.amount');
    await v.press('Copy Duo Lume');
    await v.page.waitForSelector('[name="treatments.3.name"]');
    expect(await v.valueOf('treatments.3.name')).toBe('Duo Lume (copy)');
    expect(await v.valueOf('treatments.3.products.0.amount')).toBe(dose);
    await v.press('Save the contenders');
    await v.sees('The contenders are saved.');
    expect(v.complaints).toEqual([]);
  });
  it('a product with its label and packs', async () => {
    await v.open('/library');
    await v.press('Copy Duo Lume');
    await v.arrives(/^\/library\/(?!demo-)/);
    await v.page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('[name="name"]')?.value === 'Duo Lume (copy)',
    );
    await v.open('/library');
    await v.sees('Duo Lume (copy)');
    expect(v.complaints).toEqual([]);
  });
});
