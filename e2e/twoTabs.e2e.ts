// Two tabs of one bench edit one plan: other fields are put together, the same field is asked about, and a seal in one
// tab is seen in the other.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { exportTrial } from '~core/formats/dataPackage';
import { Plan } from '~core/model/plan';
import { plan, trialOf } from '~core/testing/trial';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
let one: Visitor;
let two: Visitor;
beforeAll(async () => {
  browser = await launch();
  const profile = await browser.createBrowserContext();
  one = await Visitor.arriveIn(profile, inject('ownUrl'));
  two = await Visitor.arriveIn(profile, inject('ownUrl'));
  const zip = join(mkdtempSync(join(tmpdir(), 'palazzo-')), 'plan.zip');
  writeFileSync(zip, exportTrial(trialOf(Plan.parse(plan()))));
  await (await turnTo(one)).open('/data');
  await one.upload('trial-file', zip);
  await one.sees('is on the bench');
});
afterAll(() => leave(browser));
const question = '/trial/trial/question';
/** Turns to a tab: a browser draws only the one in front. */
const turnTo = async (v: Visitor): Promise<Visitor> => {
  await v.page.bringToFront();
  return v;
};
const save = async (v: Visitor) => (await turnTo(v)).press('Save the question');
const write = async (v: Visitor, field: string, text: string) => (await turnTo(v)).fill(field, text);

describe('two tabs on one plan', () => {
  it('change different fields: both stay', async () => {
    await (await turnTo(one)).open(question);
    await (await turnTo(two)).open(question);
    await write(one, 'prediction', 'Twice as much.');
    await write(two, 'winning', 'More weight than water.');
    await save(one);
    await one.sees('The question is saved.');
    await save(two);
    await two.sees('The question is saved.');
    expect([await two.valueOf('prediction'), await two.valueOf('winning')]).toEqual([
      'Twice as much.',
      'More weight than water.',
    ]);
    await turnTo(one);
    await one.page.waitForFunction(
      () =>
        (document.querySelector('[name="winning"]') as HTMLInputElement | null)?.value ===
        'More weight than water.',
    );
  });
  it('change the same field: the second is asked, and nothing it typed is lost', async () => {
    await write(one, 'prediction', 'Half as much.');
    await write(two, 'prediction', 'Nothing at all.');
    await save(one);
    await one.sees('The question is saved.');
    await save(two);
    await two.sees('Another tab has made this “Half as much.”.');
    await two.sees('say here which stands');
    expect(await two.valueOf('prediction')).toBe('Nothing at all.');
    await two.press('Take theirs');
    expect(await two.valueOf('prediction')).toBe('Half as much.');
    await write(two, 'prediction', 'Nothing at all.');
    await save(two);
    await two.sees('The question is saved.');
    await turnTo(one);
    await one.page.waitForFunction(
      () =>
        (document.querySelector('[name="prediction"]') as HTMLInputElement | null)?.value ===
        'Nothing at all.',
    );
  });
  it('the other tab goes on where one goes away', async () => {
    await one.page.close();
    await write(two, 'finishingRule', 'Day 12.');
    await two.sees('Not saved yet');
    await save(two);
    await two.gone('Not saved yet');
    await two.reload();
    await two.sees('Deciding trait');
    expect(await two.valueOf('finishingRule')).toBe('Day 12.');
    expect(two.complaints).toEqual([]);
  });
});

describe('two tabs of the demo', () => {
  let v: Visitor;
  let two: Visitor;
  beforeAll(async () => {
    v = await Visitor.arrive(browser, inject('demoUrl'));
    two = await Visitor.arriveIn(v.page.browserContext(), inject('demoUrl'));
  });

  it('measure the same unit: who was asked about a value is asked anew when the other tab kept one meanwhile', async () => {
    for (const who of [v, two]) {
      await (await turnTo(who)).open('/trial/demo-trial-par/rounds');
      await who.sees('Tray 8');
    }
    await turnTo(v);
    await v.enter('39');
    await v.sees('times the last value');
    await turnTo(two);
    await two.enter('10.1');
    await two.tileSays('PAR-08', /10\.1/);
    await turnTo(v);
    await v.sees('Kept in this round 10.1 cm');
    // The key that would have kept 39 asks what else there is to know about it.
    await v.keys('Enter');
    await v.sees('This replaces 10.1 cm, kept in this round.');
    await (await turnTo(two)).tileSays('PAR-08', /10\.1/);
    await turnTo(v);
    await v.keys('Enter');
    await v.tileSays('PAR-08', /39\.0/);
    await (await turnTo(two)).tileSays('PAR-08', /39\.0/);
  });

  it('a unit dies in the other tab while something is typed for it: that isn’t the next one’s', async () => {
    await (await turnTo(v)).page.locator('[data-unit="PAR-10"]').click();
    await v.keys('1', '2');
    await (await turnTo(two)).page.locator('[data-unit="PAR-10"]').click();
    await two.keys('.');
    await two.choose('What it is', 'It died');
    await two.press('Write it down');
    await two.tileSays('PAR-10', /died/);
    await turnTo(v);
    await v.sees('Typed, not kept: PAR-10 12 cm');
    expect(await v.text('[aria-label="Value typed"]')).toBe('–');
    await v.press('Drop PAR-10');
  });

  it('count the same of a verdict at something else: the second is asked, and keeps its own or takes the other’s', async () => {
    const cost = '/trial/demo-trial-cor/verdict?view=cost';
    const field = '::-p-aria([name="Water, a litre"][role="textbox"])';
    const shows = async (who: Visitor, text: string) =>
      who.page.waitForFunction(
        (e, wanted) => (e as HTMLInputElement).value === wanted,
        { polling: 50 },
        (await who.page.waitForSelector(field))!,
        text,
      );
    for (const one of [v, two]) {
      await one.open(cost);
      await one.sees('What is counted');
    }
    /** Both have sent before either is kept: the trial is held until then. */
    const both = async (first: string, second: string) => {
      await v.page.evaluate(
        () =>
          new Promise<void>((held) => {
            void navigator.locks.request('palazzo/demo/demo-trial-cor', () => {
              held();
              return new Promise<void>((free) => Object.assign(window, { free }));
            });
          }),
      );
      for (const [who, sum] of [
        [v, first],
        [two, second],
      ] as const) {
        await who.page.bringToFront();
        await who.retype('Water, a litre', sum);
        await who.keys('Enter');
      }
      await v.page.evaluate(() => (window as unknown as { free: () => void }).free());
      await two.sees('Another tab changed the same to something else');
    };
    await both('3', '4');
    await shows(two, '4');
    await two.press('Keep mine');
    await two.gone('Another tab changed');
    await v.page.bringToFront();
    await shows(v, '4');
    await both('5', '6');
    await two.press('Take theirs');
    await shows(two, '5');
    await v.page.bringToFront();
    await shows(v, '5');
    expect(v.complaints).toEqual([]);
    expect(two.complaints).toEqual([]);
  });

  it('a table of readings stays as another tab writes into the log, is asked about when it is left, and is empty once it is kept', async () => {
    await (await turnTo(v)).open('/trial/demo-trial-par/mixing?view=reservoirs');
    await v.choose('Vessel', 'all vessels, in one table');
    await v.fill('rows.0.ph', '6.4');
    await (await turnTo(two)).open('/trial/demo-trial-par/mixing?view=reservoirs');
    await two.fill('ph', '7.7');
    await two.press('Write it down');
    await two.sees('in the log.');
    await turnTo(v);
    await v.sees('7.7');
    expect(await v.valueOf('rows.0.ph')).toBe('6.4');
    await v.press('Stock');
    await v.sees('What you typed here would be lost.');
    await v.press('Stay');
    await v.press('Write them down');
    await v.sees('1 reading is in the log.');
    await v.page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('[name="rows.0.ph"]')!.value === '',
    );
    await v.press('Stock');
    await v.sees('Packs');
    expect(v.complaints).toEqual([]);
  });
});
