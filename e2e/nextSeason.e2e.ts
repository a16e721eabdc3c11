// Season: on an empty bench with two products, wrongly, and with the demo's trials behind it.
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import type { Browser } from 'puppeteer-core';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
beforeAll(async () => {
  browser = await launch();
});
afterAll(() => leave(browser));

describe('on one’s own bench, on a phone', () => {
  let v: Visitor;
  beforeAll(async () => {
    v = await Visitor.arrive(browser, inject('ownUrl'), 390, 844);
  });
  it('asks for products first; then for a place, and says what is wrong at its field', async () => {
    await v.open('/season');
    await v.sees('It takes products in the library');
    for (const name of ['Prova Uno', 'Prova Due', 'Prova Tre']) await v.addProduct(name, '2 mL/L');
    await v.open('/season');
    await v.sees('No finished trial tells of these products yet');
    await v.isAccessible();
    await v.press('What would teach most?');
    await v.sees('How many fit?');
    await v.fill('areas.0.places', '18');
    await v.sees('How many weeks?');
    await v.fill('weeks', '13');
    await v.fill('trialWeeks', '20');
    await v.press('What would teach most?');
    await v.sees('Longer than the season: no trial would end in it.');
    await v.fill('trialWeeks', '4');
    await v.fill('crop', 'cress');
    await v.fill('solution', '0.3 L');
    await v.press('What would teach most?');
    await v.sees('Nothing is known of any of them yet');
    await v.sees(/the best named rightly in \d+ of 100 such seasons/);
    await v.sees('practice: no trial has shown it yet');
    await v.isAccessible();
  });
  it('one press plans the first trial, dosed by the label, and the season knows of it', async () => {
    const arms = await v.page.$eval('.offer h2', (e) => e.textContent!.replace(/^1\. /, ''));
    await v.press(`Plan this trial, number 1: ${arms}`);
    await v.arrives(/contenders$/);
    for (const name of arms.split(', ').filter((n) => n !== 'nothing added')) await v.sees(name);
    await v.open('/season');
    await v.sees('It is planned: open it');
    expect(v.complaints).toEqual([]);
  });
  it('too little room is said, not proposed around', async () => {
    await v.fill('areas.0.places', '7');
    await v.press('What would teach most?');
    await v.sees('Too little room: two contenders take eight places at least');
    expect(await v.page.$('.offer')).toBeNull();
  });
});

describe('with trials behind it', () => {
  it('goes by what they tell, and takes the pair that is asked about', async () => {
    const v = await Visitor.arrive(browser, inject('demoUrl'));
    await v.open('/season');
    await v.fill('weeks', '13');
    await v.choose('I want to know', 'whether one is worth it against another');
    await v.choose('Is', 'Sarmenta Fine');
    await v.choose('worth it against', 'Sarmenta Fine').catch(() => undefined);
    await v.press('What would teach most?');
    await v.sees('Two that differ.');
    await v.choose('worth it against', 'Duo Lume');
    await v.press('What would teach most?');
    await v.sees(
      /It does most for (Duo Lume against Sarmenta Fine|Sarmenta Fine against Duo Lume): uncertain by ±[\d.]+ %/,
    );
    await v.sees('as in the trials so far');
    await v.isAccessible();
    expect(v.complaints).toEqual([]);
  });
});
