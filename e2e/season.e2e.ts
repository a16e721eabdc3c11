// A season's harvest: picks by grade over weeks, nothing ripe, a pest loss counted either way.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { strFromU8, unzipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { exportTrial } from '~core/formats/dataPackage';
import type { TrialId } from '~core/model/ids';
import { Plan } from '~core/model/plan';
import { planSha256 } from '~core/plan/seal';
import { entry, plan, trait, trialOf } from '~core/testing/trial';
import { launch, leave } from './browser';
import { Visitor } from './visitor';
import { smallStorage } from './smallStorage';

const id = 'season' as TrialId;
const daysAgo = (n: number) => new Date(Date.now() - n * 86_400_000).toISOString().slice(0, 10);
let browser: Browser;
let v: Visitor;
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('ownUrl'), 390, 844);
});
afterAll(() => leave(browser));

describe('picks over weeks', () => {
  it('are planned in the question, with the grades fruit is sorted into', async () => {
    await v.open('/trials/new');
    await v.choose('Kind of trial', 'none of these: traits and rounds by hand');
    await v.fill('question', 'Which feed gives more fruit?');
    await v.fill('crop', 'tomato');
    await v.press('Go on planning');
    await v.sees('What is measured');
    await v.press('Add picks');
    await v.sees('What picked fruit is sorted into');
    await v.fill('grades.1.name', 'sound');
    await v.press('Save the question');
    await v.sees('Another grade has this name.');
    await v.fill('grades.1.name', 'under 40 mm');
    await v.press('Save the question');
    await v.sees('The question is saved.');
    await v.reload();
    await v.page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('input[name="grades.1.name"]')?.value === 'under 40 mm',
    );
    await v.isAccessible();
  });

  it('the trial under way is taken in', async () => {
    const base = plan({
      treatments: ['Water', 'A'],
      replicates: 2,
      traits: [
        trait({ id: 'yield' as never, name: 'Picked weight', kind: 'pickWeight', unit: 'g', decimals: 0 }),
        trait({
          id: 'first' as never,
          name: 'Days to the first pick',
          kind: 'pickFirst',
          unit: 'days',
          direction: 'lower',
        }),
      ],
    });
    const planned = Plan.parse({
      ...base,
      id,
      question: 'Picks by hand?',
      unitNoun: 'plant',
      startDate: daysAgo(60),
      primaryTraitId: 'yield',
      rounds: [],
    });
    const log = [entry({ kind: 'seal', planSha256: planSha256(planned) }, 'seal-season')];
    const path = join(v.downloads, 'season.zip');
    writeFileSync(path, exportTrial(trialOf(planned, log)));
    await v.open('/data');
    await v.upload('trial-file', path);
    await v.sees('Picks by hand?');
  });

  const unit = (code: string) => v.page.locator(`[data-unit="${code}"]`).click();
  const clear = async (label: string) => {
    const field = await v.page.waitForSelector(`::-p-aria([name="${label}"][role="textbox"])`);
    await field!.evaluate((e) => (e as HTMLInputElement).select());
    await v.keys('Backspace');
  };
  const fillGrade = async (grade: string, count: string, weight: string) => {
    await v.retype(`${grade}, pieces`, count);
    await v.retype(`${grade}, weight in g`, weight);
  };

  it('asks for pieces or the word that nothing was ripe, and says at the field what is wrong', async () => {
    await v.open(`/trial/${id}/weigh-in`);
    await v.sees('0 of 4 plants looked at on day 60');
    await unit('TST-01');
    await v.press('Keep the pick');
    await v.sees('Type how many, or say that nothing was ripe.');
    await fillGrade('sound', 'two', 'heavy');
    await v.sees('A whole number.');
    await v.sees('“heavy” isn’t a weight, such as 12 g or 2 oz.');
    await v.retype('sound, weight in g', '150');
    await clear('sound, pieces');
    await v.sees('How many are that?');
    await v.isAccessible();
  });

  it('takes a day: by grade, from the keyboard, nothing ripe, lost to pests', async () => {
    await fillGrade('sound', '2', '150,5');
    await fillGrade('split', '1', '0.06 kg');
    await v.sees('60.0 g');
    await v.keys('Enter');
    await v.tileSays('TST-01', /3/);
    await unit('TST-02');
    await v.press('Nothing ripe');
    await v.tileSays('TST-02', /none/);
    await unit('TST-03');
    await fillGrade('eaten', '2', '110');
    // What is typed for one never stands in the fields of another, and isn't lost by going there.
    await unit('TST-04');
    await v.sees('Typed, not kept: TST-03');
    expect(await v.text('[aria-label="Pick"] h2')).toContain('4');
    const pieces = await v.page.$('::-p-aria([name="eaten, pieces"][role="textbox"])');
    expect(await pieces!.evaluate((e) => (e as HTMLInputElement).value)).toBe('');
    await v.sees('Something is typed for TST-03: keep it, or empty the fields.');
    await v.press('Take up TST-03');
    await v.page.waitForFunction((e) => (e as HTMLInputElement).value === '2', {}, pieces);
    // With the storage full it stays where it was typed.
    const storage = await smallStorage(v, inject('ownUrl'));
    await storage.fill();
    await v.press('Keep the pick');
    await v.sees('The browser’s storage is full');
    await v.sees('Typed, not kept: TST-03 2 eaten');
    await v.tileSays('TST-03', /–/);
    await storage.free();
    await v.press('Take up TST-03');
    await v.page.waitForFunction((e) => (e as HTMLInputElement).value === '2', {}, pieces);
    expect(await pieces!.evaluate((e) => (e as HTMLInputElement).value)).toBe('2');
    await v.fillLabelled('Lost to what?', 'slugs');
    await v.press('Keep the pick');
    await v.tileSays('TST-03', /2/);
    // one is missing: the day doesn't count, and says why
    await v.sees('(day 60) doesn’t count yet: TST-04 has no entry.');
    await v.press('Nothing ripe on the other 1');
    await v.tileSays('TST-04', /none/);
    await v.sees('4 of 4 plants looked at on day 60');
    await v.gone('doesn’t count yet');
    expect(await v.page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  });

  it('takes a day as a table from a spreadsheet; a weight needs its number of pieces', async () => {
    await v.press('Paste a table …');
    await v.retype(
      'Values, a line each',
      'plant;sound;sound weight;small g\nTST-04;1;0.2 kg;\nTST-02;2;90;30',
    );
    await v.sees(/TST-04 1 200\.0 g/);
    await v.sees('How many are that?');
    await v.press('Keep 2 values');
    await v.tileSays('TST-04', /1/);
    await v.tileSays('TST-02', /none/);
  });

  it('finds by what counts as yield, and with what was lost', async () => {
    await v.open(`/trial/${id}/findings?trait=yield`);
    await v.sees('Lost to pests');
    const without = await v.text('table');
    await v.choose('Lost to pests', 'counts as yield');
    await v.page.waitForFunction(
      (before) => document.querySelector('table')!.innerText !== before,
      {},
      without,
    );
  });

  it('goes into the exported tables by grade, nothing ripe as a row of its own', async () => {
    await v.open(`/trial/${id}/review`);
    await v.press('Trial and data (zip)');
    const files = unzipSync(new Uint8Array(await v.downloaded('-trial.zip')));
    const rows = strFromU8(files['data/picks.csv']!).trim().split(/\r?\n/);
    expect(rows[0]).toMatch(/^unit,grade,count,weight_g,note/);
    expect(rows.filter((r) => r.includes('eaten,2,110,slugs'))).toHaveLength(1);
    expect(rows.filter((r) => /^TST-0[24],,0,/.test(r))).toHaveLength(2);
  });
});

it('nothing complained, nothing left the device', () => {
  expect(v.complaints).toEqual([]);
});
