import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
let v: Visitor;
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('demoUrl'), 390, 844);
});
afterAll(() => leave(browser));

describe('mixing at the bench, on a phone', () => {
  const fits = async () =>
    expect(
      await v.page.evaluate(() => document.documentElement.scrollWidth - innerWidth),
    ).toBeLessThanOrEqual(0);

  it('the calculator works without a trial, and mixing fits a phone', async () => {
    await v.open('/calculator');
    // 12 g in 5 gal, for one: 2.4 g become 2
    await v.sees('−16.7 %');
    await v.retype('Rate', '12 caps per bath');
    await v.sees('“bath” isn’t a measure known here.');
    await v.retype('Rate', '12 g / 5 gal');
    await v.press('Mix 4.7 L instead');
    await v.sees('−0.7 %'.replace('−0.7', '+0.7'));
    await v.isAccessible();
    await v.open('/trial/demo-trial-par/mixing');
    await v.sees('Mixed: write it down');
    const wide = await v.page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect(wide).toBeLessThanOrEqual(0);
    const small = await v.page.$$eval(
      '.mix-steps label, .mix-card .MuiButton-root, .mix-card .MuiInputBase-root, .mix-tools .MuiButton-root',
      (all) =>
        all
          .map((l) => l as HTMLElement)
          .filter((l) => l.offsetHeight > 0 && l.offsetHeight < 44)
          .map((l) => l.textContent),
    );
    expect(small).toEqual([]);
    await v.isAccessible();
    expect(v.complaints).toEqual([]);
  });

  it('starts from what is due today', async () => {
    await v.open('/');
    await v.sees('0/5 bottles');
    await v.pressLink('Start mixing');
    await v.sees('The control gets the same water');
    await v.press('Mixed: write it down');
    await v.sees('Batch PAR-A-d17 is in the log.');
    await v.sees('Fed to all 4 trays');
    await v.press('Next: bottle B');
    await v.sees('Label the vessel PAR-B-d17 before anything goes in.');
    await fits();
  });

  it('says at the figure what is wrong, and keeps what was typed', async () => {
    await v.open('/trial/demo-trial-par/mixing?bottle=D');
    await v.fill('volume', 'a bucket');
    await v.press('Mixed: write it down');
    await v.sees('“a bucket” isn’t a volume');
    await v.fill('volume', '2.64');
    await v.fill('lines.0.actual', 'some');
    await v.choose('Meter shows', 'ppm, ×500');
    await v.fill('ec', '800');
    await v.press('Mixed: write it down');
    await v.sees('“some” isn’t a number.');
    expect(await v.valueOf('ec')).toBe('800');
    await fits();
  });

  it('asks about ten times the dose before it is written down', async () => {
    await v.fill('lines.0.actual', '13,2');
    await v.press('Mixed: write it down');
    await v.sees('13.2 mL for 1.32 mL is 10 times as much. Look at the measure');
    await v.isAccessible();
  });

  it('logs what was really given, and the reading as EC', async () => {
    await v.fill('lines.0.actual', '1,3');
    // 1.3 mL where 1.32 were wanted
    await v.page.waitForFunction(
      () => document.querySelector('[data-testid="dose-error"]')?.textContent.trim() === '−1.5 %',
    );
    await v.press('Mixed: write it down');
    await v.sees('1.3 mL Trittico Primo, 2 g Trittico Secondo, 2 g Trittico Terzo');
    await v.choose('What to see of the mixing', 'Reservoirs');
    await v.choose('Vessel', 'Bottle D, Trittico, three parts');
    // 800 ppm on the scale of 500 are 1.6 mS/cm
    await v.sees(/1\.60 mS\/cm/);
    await fits();
    await v.isAccessible();
  });

  let unit = '';
  it('looks ahead in a vessel that loses water, and writes a top-up down', async () => {
    await v.page.locator('::-p-aria([name="Vessel"][role="combobox"])').click();
    unit = await v.page.$$eval('[role="option"]', (all) =>
      all.map((o) => o.textContent).find((t) => t.startsWith('PAR-') && t.includes('Duo Lume'))!,
    );
    await v.page.locator(`xpath///*[@role="option"][normalize-space()="${unit}"]`).click();
    await v.unfold('Water loss and top-up');
    await v.fill('volume', '2');
    const fields = '.reservoir details';
    const put = (name: string, value: string) =>
      v.page.locator(`${fields} input[name="${name}"]`).fill(value);
    await put('volume', '2');
    await put('ec', '1.2');
    await put('loss', '0.25');
    await put('days', '2');
    // 2 L of 1.2 on 1.5 L: 1.6; topped up with half a litre of water of 0.05: 1.2125
    await v.sees('If only water goes, 1.50 L of 1.60 mS/cm are left');
    await v.sees('brings it back to 1.21 mS/cm');
    await put('days', '9');
    await v.sees('It would run dry before that: 8.0 days last it.');
    await v.page.locator('.reservoir form input[name="volume"]').fill('none');
    await v.press('Write the top-up down');
    await v.sees('“none” isn’t a number.');
    await v.page.locator('.reservoir form input[name="volume"]').fill('0.5');
    await v.press('Write the top-up down');
    await v.sees('The top-up is in the log.');
    await v.open('/trial/demo-trial-par/log');
    await v.sees(/0\.5 L/);
    expect(v.complaints).toEqual([]);
  });

  it.each([
    ['a reading', 'ph', '6.3'],
    ['a top-up', 'volume', '0.4'],
    ['a pH correction', 'amountMl', '1.5'],
  ])('asks before %s that is typed is left', async (_, name, value) => {
    await v.open('/trial/demo-trial-par/mixing?view=reservoirs');
    await v.choose('Vessel', unit);
    for (const folded of ['Water loss and top-up', 'pH correction']) await v.unfold(folded);
    const field = `.reservoir form input[name="${name}"]`;
    await v.page.locator(field).fill(value);
    await v.choose('What to see of the mixing', 'Stock');
    await v.sees('What you typed here would be lost.');
    await v.press('Stay');
    expect(await v.page.$eval(field, (e) => (e as HTMLInputElement).value)).toBe(value);
    await v.choose('What to see of the mixing', 'Stock');
    await v.press('Leave without saving');
    await v.sees('Packs');
    expect(v.complaints).toEqual([]);
  });

  it('asks before a feed that is typed is left', async () => {
    await v.open('/trial/demo-trial-par/mixing?bottle=A');
    await v.sees('Fed to all 4 trays');
    await v.page.locator('.mix-card form input[name="volume"]').fill('0.77');
    await v.choose('What to see of the mixing', 'Stock');
    await v.sees('What you typed here would be lost.');
    await v.press('Leave without saving');
    await v.sees('Packs');
    expect(v.complaints).toEqual([]);
  });
});

describe('a product as its label has it', () => {
  it('rate, spoons and caps are read while they are typed, and said where they can’t be', async () => {
    await v.page.setViewport({ width: 1280, height: 800 });
    await v.open('/library/new');
    await v.fill('name', 'Prova polvere');
    await v.choose('Form', 'powder');
    await v.fill('labelRate', '1–2 tsp per gallon');
    // Begun with the spoons of the region: 5 mL in 3.78541 L, and twice that; then 4.92892 mL.
    await v.sees('That is 1.32 to 2.64 mL to a litre.');
    await v.choose('Its spoons are', 'US');
    await v.sees('That is 1.3 to 2.6 mL to a litre.');
    await v.fill('labelRate', 'a pinch per bath');
    await v.sees('“pinch” isn’t a measure known here.');
    await v.fill('spoon.volumeMl', '5');
    await v.fill('spoon.massesG', '4.7 4.8 heaped');
    await v.press('Put it in the library');
    await v.sees('Weights in g with spaces between them');
    expect(await v.valueOf('spoon.massesG')).toBe('4.7 4.8 heaped');
    await v.fill('spoon.massesG', '4.7 4.8 4.75 4.8 4.7');
    // mean 4.75 g in 5 mL
    await v.sees('0.950 g/mL, spoons differ by 1.1 %');
    await v.press('Add a measure of its own');
    await v.fill('ownMeasures.0.name', 'scoop');
    await v.fill('ownMeasures.0.amount', '12');
    await v.choose('Unit', 'g');
    await v.fill('labelRate', '2 scoops per 20 L');
    await v.sees('That is 1.2 g to a litre.');
    await v.fill('analysis.nPercent', '120');
    await v.press('Put it in the library');
    await v.page.waitForSelector('input[name="analysis.nPercent"][aria-invalid="true"]');
    await v.fill('analysis.nPercent', '12');
    await v.fill('analysis.p2o5Percent', '0');
    await v.fill('analysis.k2oPercent', '0');
    await v.press('Put it in the library');
    await v.sees('Prova polvere');

    await v.open('/calculator');
    await v.choose('Product', 'Prova polvere');
    await v.retype('Volume', '10 L');
    await v.retype('Rate', '1 tsp/gal');
    // a US teaspoon of 0.95 g/mL in a US gallon: 1.237 g/L
    await v.sees('12.37 g');
    await v.retype('Rate', '2 scoops per 20 L');
    await v.sees(/12 g 12 g/);
    expect(v.complaints).toEqual([]);
  });
});
