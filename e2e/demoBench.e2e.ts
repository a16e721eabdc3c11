import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';
import { smallStorage } from './smallStorage';

describe('the demo bench', () => {
  let browser: Browser;
  let v: Visitor;
  let phone: Visitor;
  beforeAll(async () => {
    browser = await launch();
    v = await Visitor.arrive(browser, inject('demoUrl'));
    phone = await Visitor.arrive(browser, inject('demoUrl'), 390, 780);
  });
  afterAll(() => leave(browser));

  it('opens on the demo, keeps the own bench apart, and remembers the choice in the tab', async () => {
    await v.open('/');
    await v.sees('Which feed brings parsley on fastest?');
    await v.sees('Round 3: plant height, leaf count');
    await Promise.all([v.page.waitForNavigation(), v.press('My bench')]);
    await v.sees('An empty bench');
    await v.isAccessible();
    await v.keys('?');
    await v.sees('Trials fail by a missed round more than by a wrong test');
    await v.isAccessible();
    await v.press('Close');
    await Promise.all([v.page.waitForNavigation(), v.press('Look at an example')]);
    await v.sees('Decided by cut weight');
    await v.open('/');
    await v.sees('four tasks, an hour');
    expect(v.complaints).toEqual([]);
  });

  it('draws the review’s pictures in day colours, by night too', async () => {
    const picture = async (night: boolean) => {
      await v.load('/settings');
      await v.press(night ? 'Night' : 'Day');
      await v.page.waitForSelector(`[data-mode="${night ? 'dark' : 'light'}"]`);
      await v.open('/trial/demo-trial-cor/review');
      await v.page.waitForSelector('.paper img');
      return v.page.$eval('.paper img', (i) => (i as HTMLImageElement).src);
    };
    expect(await picture(true)).toBe(await picture(false));
  });

  it('takes a value on a phone, with the pad’s keys in reach', async () => {
    await phone.open('/');
    await phone.pressLink('Go on');
    await phone.sees('Tray 8');
    for (const key of ['1', '1', 'Decimal point', '4']) await phone.press(key);
    const keep = await phone.page.waitForSelector('::-p-text(Keep and go to tray 9)');
    const box = (await keep!.boundingBox())!;
    expect(box.y + box.height).toBeLessThan(780 - 58);
    await keep!.click();
    await phone.sees('Tray 9');
    await phone.tileSays('PAR-08', /11\.4/);
    expect(await phone.page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await phone.isAccessible();
  });

  it('what is typed at a unit that is left is put by, through a reload and another room, and taken up again', async () => {
    await phone.load('/trial/demo-trial-par/rounds');
    await phone.sees('Tray 9');
    await phone.keys('1', '1', '.', '2');
    await phone.page.click('[data-unit="PAR-10"]');
    await phone.sees('Tray 10');
    await phone.sees('Typed, not kept: PAR-09 11.2');
    await phone.keys('9', '.', '7');
    await phone.reload();
    await phone.sees('PAR-10 9.7');
    await phone.open('/trial/demo-trial-par/layout');
    await phone.open('/trial/demo-trial-par/rounds');
    await phone.isAccessible();
    await phone.press('Take up PAR-09');
    await phone.sees('Tray 9');
    await phone.keys('Enter');
    await phone.tileSays('PAR-09', /11\.2/);
    await phone.sees('Typed, not kept: PAR-10 9.7');
    expect(await phone.text('.left-typed')).not.toContain('PAR-09');
    // Another value for it makes what was put by out of date.
    await phone.page.click('[data-unit="PAR-10"]');
    await phone.enter('9.9');
    await phone.tileSays('PAR-10', /9\.9/);
    await phone.page.waitForSelector('.left-typed', { hidden: true });
  });

  it('with the storage full a value isn’t kept, which is said; it stays to be kept later, and so does a form’s text', async () => {
    const v = await Visitor.arrive(browser, inject('demoUrl'));
    const storage = await smallStorage(v, inject('demoUrl'));
    await v.open('/trial/demo-trial-par/rounds');
    await v.sees('Tray 8');
    await storage.fill();
    await v.enter('11.2');
    await v.sees('The browser’s storage is full');
    await v.tileSays('PAR-08', /^(?!.*11\.2)/);
    await v.sees('Not kept: PAR-08 11.2.');
    // It waits beside the pad.
    await v.sees('Typed, not kept: PAR-08 11.2 cm');
    await storage.free();
    await v.press('Take up PAR-08');
    await v.keys('Enter');
    await v.tileSays('PAR-08', /11\.2/);
    await v.page.waitForSelector('.left-typed', { hidden: true });
    // Words on a unit, and a column: they stay where they were typed until they are kept.
    await storage.fill();
    await v.keys('.');
    await v.choose('What it is', 'A remark');
    await v.fillLabelled('What did you see?', 'A leaf is torn.');
    await v.press('Write it down');
    await v.sees('Not kept: PAR-09 “A leaf is torn.”');
    expect(await v.valueOf('text')).toBe('A leaf is torn.');
    await storage.free();
    await v.press('Write it down');
    await v.page.waitForSelector('[role="dialog"]', { hidden: true });
    await v.press('Paste a column …');
    await v.fillLabelled('Values, a line each', 'PAR-09; 10.9\nPAR-10; 10.4');
    await storage.fill();
    await v.press('Keep 2 values');
    await v.sees('Not kept: The browser’s storage is full');
    await storage.free();
    await v.press('Keep 2 values');
    await v.sees('2 values are in the log.');
    await v.page.waitForSelector('[role="dialog"]', { hidden: true });
    await v.tileSays('PAR-09', /10\.9/);
    await v.tileSays('PAR-10', /10\.4/);
    // What is kept with every change: it stays on the screen, whoever goes on is asked, and it can be kept later.
    await v.open('/trial/demo-trial-cor/verdict?view=cost');
    await storage.fill();
    await v.retype('Water, a litre', '3');
    await v.keys('Enter');
    await v.sees('What you changed here isn’t kept.');
    const field = '::-p-aria([name="Water, a litre"][role="textbox"])';
    const typed = () => v.page.$eval(field, (e) => (e as HTMLInputElement).value);
    expect(await typed()).toBe('3');
    await v.press('Claims');
    await v.sees('What you changed here would be lost.');
    await v.press('Stay');
    await v.retype('Electricity, a kWh', '0.5');
    await storage.free();
    await v.keys('Enter');
    await v.gone('isn’t kept');
    await v.reload();
    await v.sees('What is counted');
    expect(await typed()).toBe('3');
    await v.open('/library/new');
    await v.fill('name', 'Long typed');
    await storage.fill();
    await v.press('Put it in the library');
    await v.sees('What is typed here stays.');
    expect(await v.valueOf('name')).toBe('Long typed');
    await storage.free();
    await v.press('Put it in the library');
    await v.arrives(/^(?!.*\/new$)/);
    await v.sees('Long typed');
  });

  it('Enter keeps what stands on the pad, wherever the focus is; a kept value is replaced only when asked', async () => {
    await v.open('/trial/demo-trial-par/rounds');
    await v.sees('Tray 8');
    await v.page.focus('.room-nav a[href$="/rounds"]');
    await v.keys('1', '1', '.', '2', 'Enter');
    await v.sees('Tray 9');
    await v.tileSays('PAR-08', /11\.2/);
    await v.reload();
    await v.tileSays('PAR-08', /11\.2/);
    await v.sees('Tray 9');
    await v.press('Back to the one before');
    await v.sees('Tray 8');
    await v.keys('1', '1', '.', '4', 'Enter');
    await v.sees('This replaces 11.2 cm, kept in this round.');
    // Another value is typed anew, not behind the one in question.
    await v.keys('1');
    expect(await v.text('.pad-figure output')).toBe('1');
    await v.keys('1', '.', '5', 'Enter');
    await v.sees('This replaces 11.2 cm, kept in this round.');
    await v.keys('Enter');
    await v.tileSays('PAR-08', /11\.5/);
    // Nothing typed: passed over, and open still.
    await v.sees('Tray 9');
    await v.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await v.keys('Enter');
    await v.sees('Tray 10');
    await v.tileSays('PAR-09', /^(?!.*\d\.\d)/);
  });

  it('questions a value that is ten times the last one', async () => {
    await v.open('/trial/demo-trial-par/rounds');
    await v.sees('Tray 10');
    await v.enter('39');
    await v.sees('times the last value');
    await v.page.locator('::-p-text(Keep it anyway)').click();
    await v.tileSays('PAR-10', /39\.0/);
  });

  it('leaves a unit out with a reason, and shows the finding with and without it', async () => {
    await v.open('/trial/demo-trial-cor/weigh-in');
    await v.page.focus('[data-unit="COR-01"]');
    await v.keys('.');
    await v.choose('What it is', 'Leave it out of the findings');
    await v.page
      .locator('[role="dialog"] textarea:not([aria-hidden])')
      .fill('Spilt on the way to the scale.');
    await v.press('Write it down');
    await v.tileSays('COR-01', /noted/);
    await v.open('/trial/demo-trial-cor/findings');
    await v.sees('Left out: COR-01 (Spilt on the way to the scale.)');
    await v.sees('19 trays');
    await v.choose('Left-out trays', 'taken in');
    await v.sees('20 trays');
  });

  it('moves a unit after the seal as a log entry that can be taken back', async () => {
    await v.open('/trial/demo-trial-par/layout');
    await v.page.focus('[data-unit="PAR-01"]');
    await v.keys('Space', 'ArrowRight', 'Space');
    await v.sees('Moved, and written into the log.');
    await v.pressLink('The log');
    await v.sees(/Moved PAR-01 to row 1, position 2 of Level 1; PAR-02 to row 1, position 1/);
    await v.page.locator('[aria-label^="Take back: Moved"]').click();
    await v.sees('Taken back by a new line');
    await v.open('/trial/demo-trial-par/layout');
    await v.page.waitForSelector('[data-position$="area-1/0/0"] [data-unit="PAR-01"]');
  });

  it('deletes with undo, brings back from the bin, and resets with undo', async () => {
    await v.open('/library');
    await v.press('Delete Mosto Alga');
    await v.sees('Mosto Alga is in the bin.');
    await v.page.waitForSelector('::-p-aria([name="Delete Mosto Alga"][role="button"])', { hidden: true });
    await v.press('Undo');
    await v.page.waitForSelector('::-p-aria([name="Delete Mosto Alga"][role="button"])');
    await v.open('/');
    const sunflowers = '::-p-aria([name="Do sunflower shoots need a feed at all?"][role="link"])';
    await v.page.locator('.finished > summary').click();
    await v.fromMenu('More for Do sunflower shoots need a feed at all?', 'Delete');
    await v.page.waitForSelector(sunflowers, { hidden: true });
    await v.open('/data');
    await v.press('Bring back Do sunflower shoots need a feed at all?');
    await v.sees('Nothing was deleted.');
    await v.open('/');
    await v.page.locator('.finished > summary').click();
    await v.page.waitForSelector(sunflowers);
    await v.fromMenu('More for Which feed brings parsley on fastest?', 'Delete');
    await v.sees('nothing is due');
    await v.open('/data');
    await v.press('Reset the demo');
    await v.sees('The demo bench is as new.');
    await v.press('Undo');
    await v.page.waitForSelector(
      '::-p-aria([name="Bring back Which feed brings parsley on fastest?"][role="button"])',
    );
    await v.press('Reset the demo');
    await v.sees('Nothing was deleted.');
  });

  it('keeps a scale’s weight when the unit is changed, and deletes two things in quick succession', async () => {
    await v.open('/trial/demo-trial-cor/weigh-in');
    await v.fillLabelled('Lay on its pan', '170.1');
    await v.page.waitForFunction(
      () => Math.abs(Number(document.querySelector('.scale-face output')?.textContent) - 170.1) < 0.3,
    );
    await v.press('Take reading');
    const net = async () => /net ([\d.]+) g/.exec(await v.text('.pad-last'))![1];
    const grams = await net();
    await v.press('oz');
    await v.sees('oz gross');
    expect(await net()).toBe(grams);
    expect(Number(await v.text('.pad-figure output'))).toBeCloseTo(6, 1);
    // What was confirmed in one unit isn't in another: 900 oz aren't 900 g.
    await v.press('g');
    await v.keys('9', '0', '0', 'Enter');
    await v.sees('Keep it anyway');
    await v.press('oz');
    await v.sees('900 oz gross');
    await v.gone('Keep it anyway');

    await v.open('/library');
    await v.page.evaluate(() => {
      for (const name of ['Mosto Alga', 'Ombretta Bio']) {
        (document.querySelector(`[aria-label="Delete ${name}"]`) as HTMLElement).click();
      }
    });
    for (const name of ['Mosto Alga', 'Ombretta Bio']) {
      await v.page.waitForSelector(`[aria-label="Delete ${name}"]`, { hidden: true });
    }
  });

  it('says what isn’t there, and keeps strict headers', async () => {
    const response = await v.page.goto(`${inject('demoUrl')}/trial/none/findings`);
    await v.sees('There is no such trial in this browser at this address.');
    const csp = response!.headers()['content-security-policy']!;
    expect(csp).toContain("connect-src 'self'");
    expect(csp).not.toContain('unsafe');
    const asset = await v.page.$eval('link[rel="modulepreload"]', (l) => (l as HTMLLinkElement).href);
    const cached = await fetch(asset);
    expect(cached.headers.get('cache-control')).toContain('immutable');
  });
});
