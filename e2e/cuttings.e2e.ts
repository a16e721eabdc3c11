// Two species and three dips, pots of five cuttings: planned by clicks on an empty bench, counted, found, judged,
// and written up. Nothing is taken in as a file.
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
let v: Visitor;
let trial = '';
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('ownUrl'));
});
afterAll(() => leave(browser));

/** Rooted of five, by pot of each combination: Radix helps sage alone. */
const roots: Record<string, number[]> = {
  'sage · none': [1, 0, 1, 2],
  'sage · Radix': [5, 4, 5, 5],
  'sage · Sala': [1, 2, 1, 1],
  'fig · none': [1, 1, 0, 1],
  'fig · Radix': [1, 0, 1, 2],
  'fig · Sala': [0, 1, 1, 2],
};

describe('planning', () => {
  it('begins with a kind of trial that fills the question', async () => {
    await v.open('/trials/new');
    await v.fill('question', 'Does a dip help sage and fig to root?');
    await v.fill('code', 'DIP');
    await v.choose('Kind of trial', 'Rooting hormone on cuttings, two species');
    await v.press('Go on planning');
    await v.sees('What is measured');
    trial = new URL(v.page.url()).pathname.replace('/question', '');
    expect(await v.valueOf('finishingRule')).toContain('day 63');
    await v.fill('prediction', 'The dip helps both.');
    await v.typeDay('Start (day 0)', new Date(Date.now() - 63 * 86_400_000).toISOString().slice(0, 10));
    await v.fill('smallestDifference.value', '20');
    await v.press('Save the question');
    await v.sees('The question is saved.');
  });
  it('species × dip make the contenders, each species with its own control', async () => {
    for (const name of ['Radix', 'Sala']) {
      await v.open('/library/new');
      await v.fill('name', name);
      await v.press('Put it in the library');
      await v.sees(name);
    }
    await v.open(`${trial}/contenders`);
    await v.press('From factors …');
    await v.press('base × additive');
    await v.retype('Factor 1', 'Species');
    await v.retype('Factor 2', 'Dip');
    await level(1, 1, 'sage');
    await level(1, 2, 'fig');
    await level(2, 2, 'Radix');
    await v.page.locator('section[aria-label="Factor 2"] ::-p-text(Add a level)').click();
    await level(2, 3, 'Sala');
    await v.choose('adds', 'Radix', 3);
    await v.choose('adds', 'Sala', 4);
    await v.press('Make the contenders');
    await v.sees(/dose/);
    for (const dose of await v.page.$$('section[aria-label="Factor 2"] input[inputmode="decimal"]'))
      await dose.type('2');
    await v.sees('Makes 6: sage · none, sage · Radix, sage · Sala, fig · none, fig · Radix, fig · Sala');
    await v.press('Make the contenders');
    await v.press('Save the contenders');
    await v.sees('The contenders are saved.');
  });
  it('is laid out, and sealed once the questions left open are answered', async () => {
    await v.open(`${trial}/layout?view=places`);
    await v.fill('areas.0.rows', '4');
    await v.fill('areas.0.columns', '6');
    await v.press('Save the areas');
    await v.sees('The areas are saved.');
    await v.press('Arrange');
    await v.fill('replicates', '4');
    await v.press('Randomise');
    await v.sees('24 pots seen from above');
    await v.press('Seal the plan');
    await v.page.waitForSelector('[data-testid="seal-hash"]');
  });
});

describe('lifting', () => {
  it('what rooted is pasted as a column, one count too large said in its line', async () => {
    // Letters of the plan are the contenders in their order.
    const placed = await v.page.$$eval('[data-unit]', (tiles) =>
      tiles.map(
        (t) => [t.getAttribute('data-unit')!, t.querySelector('.tile-letter')!.textContent!] as const,
      ),
    );
    expect(placed).toHaveLength(24);
    const left = Object.values(roots).map((r) => [...r]);
    const lines = placed.map(([code, letter]) => `${code}; ${left[letter.charCodeAt(0) - 65]!.shift()}`);
    await v.open(`${trial}/rounds`);
    await v.press('day 63');
    await v.sees('Lifting · rooted');
    await v.press('Paste a column …');
    await v.retype('Values, a line each', [...lines.slice(1), lines[0]!.replace(/\d$/, '6')].join('\n'));
    await v.sees('There are only 5.');
    await v.retype('Values, a line each', lines.join('\n'));
    await v.press('Keep 24 values');
    await v.page.waitForSelector('[role="dialog"]', { hidden: true });
    for (const [code] of placed) await v.tileSays(code, /\d\/5/);
    expect(v.complaints).toEqual([]);
  });
});

describe('what comes of it', () => {
  it('k/n, each dip against its own species without one, and whether the dip works the same in both', async () => {
    await v.open(`${trial}/findings`);
    await v.sees('19/20');
    await v.sees('Sage · Radix beat sage · none');
    await v.press('Factors and crops');
    await v.sees(/What Dip does depends on Species/);
    await v.isAccessible();
  });
  it('the verdict and the review say the same', async () => {
    await v.open(`${trial}/verdict`);
    await v.sees('Sage · Radix');
    await v.open(`${trial}/review?level=record`);
    await v.sees('19/20');
    await v.sees('Rooted means one root of 5 mm or more');
    expect(v.complaints).toEqual([]);
  });
});

async function level(factor: number, n: number, name: string): Promise<void> {
  const rows = await v.page.$$(`section[aria-label="Factor ${factor}"] .factor-level`);
  const input = (await rows[n - 1]!.$('input[type="text"]'))!;
  await input.evaluate((e) => (e as HTMLInputElement).select());
  await input.type(name);
}
