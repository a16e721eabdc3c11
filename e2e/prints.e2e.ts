// What goes on paper: within the part that printers reach, in A4 and Letter, nothing torn between two pages.
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
let v: Visitor;
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('demoUrl'));
});
afterAll(() => leave(browser));

/** Lengths of CSS in mm. */
const MM: Record<string, number> = { mm: 1, cm: 10, in: 25.4, px: 25.4 / 96 };
const mm = (text: string) => Number.parseFloat(text) * (MM[text.replace(/[\d.-]/g, '')] ?? Number.NaN);

it.each([
  '/trial/demo-trial-rad/card',
  '/trial/demo-trial-par/mixing-card',
  '/trial/demo-trial-par/servers-card/demo-panel-PAR',
  '/trial/demo-trial-par/score-sheets/demo-panel-PAR',
])('%s keeps 10 mm from the edge of its paper', async (path) => {
  await v.open(path);
  await v.page.emulateMediaType('print');
  const { margin, own, wide } = await v.page.evaluate(() => {
    const rules = (list: CSSRuleList): CSSRule[] =>
      [...list].flatMap((r) =>
        r instanceof CSSMediaRule ? (matchMedia(r.conditionText).matches ? rules(r.cssRules) : []) : [r],
      );
    const pages = [...document.styleSheets]
      .flatMap((s) => rules(s.cssRules))
      .filter((r): r is CSSPageRule => r instanceof CSSPageRule && r.selectorText === '');
    const named = [...document.querySelectorAll('main, main *')].map((e) => getComputedStyle(e).page);
    return {
      margin: pages.at(-1)?.style.getPropertyValue('margin') ?? '',
      own: named.filter((p) => p !== 'auto').length,
      wide: document.documentElement.scrollWidth - document.documentElement.clientWidth,
    };
  });
  expect(mm(margin)).toBeGreaterThanOrEqual(10);
  // No part goes to a page of its own without a margin, none is wider than the paper.
  expect([own, wide]).toEqual([0, 0]);
  for (const format of ['A4', 'Letter'] as const)
    expect((await v.page.pdf({ format, preferCSSPageSize: false })).length).toBeGreaterThan(5000);
  await v.page.emulateMediaType('screen');
});

it('a sheet of labels is laid out to its own edge', async () => {
  await v.open('/trial/demo-trial-cor/labels');
  await v.page.emulateMediaType('print');
  const pages = await v.page.$$eval('.label-sheet', (all) => all.map((e) => getComputedStyle(e).page));
  expect(pages.length).toBeGreaterThan(0);
  expect(new Set(pages)).toEqual(new Set(['label-sheet']));
  await v.page.emulateMediaType('screen');
});
