// The eye: from an empty bench, by keyboard and on a phone; the warm-up of a trial reaches its log and its review.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import type { Browser } from 'puppeteer-core';
import { exportTrial } from '~core/formats/dataPackage';
import { Plan } from '~core/model/plan';
import { planSha256 } from '~core/plan/seal';
import { entry, plan, trait, trialOf } from '~core/testing/trial';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
let v: Visitor;
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('ownUrl'));
});
afterAll(() => leave(browser));

const text = () => v.page.$eval('main', (e) => (e as HTMLElement).innerText);

describe('call it', () => {
  it('is called by a key, explained, and goes on with Enter; the record outlives a reload', async () => {
    await v.open('/eye');
    await v.sees('Which one truly gives more, or is it too close?');
    await v.isAccessible();
    await v.page.keyboard.press('t');
    await v.sees('You called it too close.');
    await v.sees(/The test: (too close to call|[A-D] leads)\./);
    await v.isAccessible();
    await v.page.keyboard.press('Enter');
    await v.page.waitForFunction(() => !document.querySelector('.eye-told'));
    await v.press('A');
    await v.sees('You called A.');
    await v.load('/eye');
    await v.sees('Call it so far, 2 cases');
    expect(v.complaints).toEqual([]);
  });
});

describe('the other games', () => {
  it('find the fault: marking every line says which were none', async () => {
    await v.open('/eye?game=fault');
    await v.sees('Mark every line a reader could object to');
    await v.page.$$eval('.eye-line', (all) => all.forEach((e) => (e as HTMLElement).click()));
    await v.press('That is all of them');
    await v.sees(/lines were marked without one\./);
    await v.sees('Nothing is wrong with it.');
    await v.isAccessible();
  });
  it('dose it: what isn’t a number is said at its field, and every step gets its reason', async () => {
    await v.open('/eye?game=dose');
    await v.sees('How much is that for one litre?');
    await v.page.keyboard.type('a pinch');
    await v.page.keyboard.press('Enter');
    await v.sees('“a pinch” isn’t a number.');
    for (let step = 0; !(await v.page.$('.eye-told')) && step < 5; step++) {
      const field = await v.page.$('.eye-steps input');
      if (field) {
        await field.evaluate((e) => (e as HTMLInputElement).select());
        await field.type('1,5');
        await v.page.keyboard.press('Enter');
      } else await v.page.locator('.eye-answers button').click();
      await v.page.waitForFunction(
        (n) => document.querySelectorAll('.eye-steps [role="status"]').length > n,
        {},
        step,
      );
    }
    await v.sees(/\d of \d steps right\./);
    await v.isAccessible();
  });
  it('judge the claim: the stamp is judged with the figures', async () => {
    await v.open('/eye?game=claim');
    await v.press('not shown');
    await v.sees(/Cut weight against water: [+−]\d+ %/);
    await v.isAccessible();
    expect(v.complaints).toEqual([]);
  });
});

describe('a warm-up on a phone', () => {
  it('on the trial’s own scale is kept in its log and said in its review', async () => {
    await v.page.setViewport({ width: 390, height: 844 });
    const looks = trait({
      id: 'looks' as never,
      name: 'Looks',
      kind: 'score',
      unit: '',
      scale: [1, 2, 3].map((value) => ({ value, text: ['thin', 'fair', 'full'][value - 1]! })),
    });
    const base = Plan.parse(plan({ replicates: 3, traits: [trait(), looks] }));
    const sealed = [entry({ kind: 'seal', planSha256: planSha256(base) }, 'seal')];
    const zip = join(mkdtempSync(join(tmpdir(), 'palazzo-')), 'looks.zip');
    writeFileSync(zip, exportTrial(trialOf(base, sealed)));
    await v.open('/data');
    await v.upload('trial-file', zip);
    await v.sees('is on the bench');
    await v.open('/trial/trial/rounds?trait=looks');
    await v.pressLink('Ten warm-up pictures first');
    await v.sees('Warm-up: looks');
    for (let i = 1; i <= 10; i++) {
      await v.sees(`Picture ${i} of 10.`);
      if (i === 4) {
        // Left half-way, the scores would be gone without a word.
        await v.pressLink('Back to the round');
        await v.sees('The scores of this series would be lost.');
        await v.press('Stay');
      }
      await v.page.locator('.taster-scale button:nth-of-type(2)').click();
    }
    await v.sees('5 of 5 the same twice.');
    await v.isAccessible();
    await v.open('/trial/trial/log');
    await v.sees('5 of 5 pictures scored the same twice');
    await v.open('/trial/trial/review?level=record');
    await v.sees('5 of 5 pictures got the same step twice; all got one step');
    expect(await text()).not.toContain('undefined');
    expect(v.complaints).toEqual([]);
  });
});
