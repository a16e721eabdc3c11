// A product is known by its tile: in the library, in every trial, in the standings and on labels; under codes by none.
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
beforeAll(async () => {
  browser = await launch();
});
afterAll(() => leave(browser));

/** The colour and the pattern beside a name, as they are drawn. */
const tileBeside = (v: Visitor, name: string): Promise<string> =>
  v.page.evaluate((wanted) => {
    const who = [...document.querySelectorAll('.who')].find((e) => e.textContent?.includes(wanted));
    const path = who?.querySelector('svg path:last-of-type') ?? who?.querySelector('svg path');
    return path ? `${path.getAttribute('fill')} ${path.getAttribute('d')}` : 'none';
  }, name);

it('a product of the demo wears its tile wherever it stands', async () => {
  const v = await Visitor.arrive(browser, inject('demoUrl'));
  await v.open('/library');
  await v.sees('Ombretta Bio');
  const own = await tileBeside(v, 'Ombretta Bio');
  expect(own).toMatch(/^var\(--tile-4\) M/);
  for (const path of ['/trial/demo-trial-sun/verdict', '/trial/demo-trial-par/mixing?view=programme']) {
    await v.open(path);
    await v.sees('Ombretta Bio');
    expect(await tileBeside(v, 'Ombretta Bio'), path).toBe(own);
  }
  // A picture that is saved has the colours of the screen.
  await v.open('/trial/demo-trial-sun/findings');
  await v.press('Picture (SVG)');
  const file = (await v.downloaded('.svg')).toString();
  const inPicture = await v.page.$$eval('.figure-box path', (all) => all.map((e) => e.getAttribute('d')));
  expect(inPicture).toContain(own.replace(/^\S+ /, ''));
  expect(file).toContain(own.replace(/^\S+ /, ''));
  // Under codes the second code has the second tile, whatever is in its bottle.
  await v.open('/trial/demo-trial-fag/layout');
  const coded = await v.page.$$eval('[data-position] .tile', (all) =>
    all.map(
      (e) =>
        `${e.querySelector('.tile-letter')!.textContent} ${(e as HTMLElement).style.getPropertyValue('--tile-ink')}`,
    ),
  );
  expect(new Set(coded)).toEqual(
    new Set(['A', 'B', 'C', 'D'].map((letter, i) => `${letter} var(--tile-${i})`)),
  );
});

it('a new product gets the first tile that is free, keeps it when it is edited, and takes it into a trial', async () => {
  const v = await Visitor.arrive(browser, inject('ownUrl'));
  for (const name of ['Prova Uno', 'Prova Due', 'Prova Tre']) await v.addProduct(name, '2 mL/L');
  const third = await tileBeside(v, 'Prova Tre');
  expect(third).toMatch(/^var\(--tile-3\)/);
  await v.pressLink('Prova Tre');
  await v.fill('maker', 'Officina Prova');
  await v.press('Save the product');
  await v.arrives(/^\/library$/);
  await v.sees('Officina Prova');
  expect(await tileBeside(v, 'Prova Tre')).toBe(third);
  // Alone with a control either would have the second tile by its place; the new one is known from its first moment.
  for (const [typed, name, tile] of [
    ['Prova Tre', 'Prova Tre', 3],
    ['Nuova 9.90, 2 mL/L', 'Nuova', 4],
  ] as const) {
    await v.open('/trials/new');
    await v.page.locator('::-p-aria([name="What is compared"][role="combobox"])').click();
    await v.page.keyboard.type(typed);
    await v.keys('Enter');
    await v.fillLabelled('Feed a tray gets', '0.5 L');
    await v.press('Go on planning');
    await v.sees('What is compared with what.');
    const worn = await v.page.$eval(`[aria-label="Contender ${name}"] svg path:last-of-type`, (e) =>
      e.getAttribute('fill'),
    );
    expect(worn).toBe(`var(--tile-${tile})`);
  }
  expect(v.complaints).toEqual([]);
});
