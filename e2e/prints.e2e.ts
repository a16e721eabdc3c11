// What goes on paper, as a printer would draw it: nothing within 8 mm of an edge, nothing squeezed or torn.
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { type Ink, Press } from './ink';
import { Visitor } from './visitor';

let browser: Browser;
let v: Visitor;
let press: Press;
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('demoUrl'));
  press = await Press.setUp(browser);
});
afterAll(() => leave(browser));

/** What most printers can't reach (common practice: 3 to 6 mm), and a little more. */
const EDGE_MM = 8;
const papers = (['A4', 'Letter'] as const).flatMap((format) =>
  [false, true].map((landscape) => ({ format, landscape })),
);

/** The sides of paper that the page shown now becomes, as the print dialog makes them without being told a margin. */
const printed = async (paper: (typeof papers)[number]): Promise<Ink[]> =>
  press.inkOf(await v.page.pdf({ ...paper, printBackground: true }));

const freeAround = (page: Ink) => Math.min(...Object.values(page.free));

describe.each([
  ['the helper’s card', '/trial/demo-trial-rad/card'],
  ['the mixing card', '/trial/demo-trial-par/mixing-card'],
  ['the server’s card', '/trial/demo-trial-par/servers-card/demo-panel-PAR', 'I am the helper: show it'],
  ['the score sheets', '/trial/demo-trial-par/score-sheets/demo-panel-PAR'],
  ['the contact sheet', '/trial/demo-trial-par/rounds?view=photos'],
  ['the review', '/trial/demo-trial-cor/review'],
  ['findings', '/trial/demo-trial-cor/findings'],
])('%s on paper', (_, path, first = '') => {
  it('keeps free of every edge and uses the width, in A4 and Letter, upright and across', async () => {
    await v.open(path);
    if (first) await v.press(first);
    for (const paper of papers) {
      const pages = await printed(paper);
      for (const page of pages)
        expect(freeAround(page), JSON.stringify(paper)).toBeGreaterThanOrEqual(EDGE_MM);
      const widest = Math.min(...pages.map((p) => p.free.left + p.free.right));
      expect(widest, JSON.stringify(paper)).toBeLessThan(0.4 * pages[0]!.paper.widthMm);
    }
  });
});

it('a bottle of the mixing card is never torn between two pages, nor a cup of a score sheet', async () => {
  const whole = async (path: string, parts: string) => {
    await v.open(path);
    await v.page.emulateMediaType('print');
    const breaks = await v.page.$$eval(parts, (all) => all.map((e) => getComputedStyle(e).breakInside));
    await v.page.emulateMediaType();
    return breaks;
  };
  const bottles = await whole('/trial/demo-trial-par/mixing-card', '.card-bottle');
  const cups = await whole('/trial/demo-trial-par/score-sheets/demo-panel-PAR', '.score-cup');
  expect([bottles.length > 1, cups.length > 1]).toEqual([true, true]);
  expect(new Set([...bottles, ...cups])).toEqual(new Set(['avoid']));
  // One sheet a taster.
  const tasters = await v.page.$$eval('.score-sheet', (all) => all.length);
  expect(await printed({ format: 'A4', landscape: false })).toHaveLength(tasters);
});

it.each(['units', 'bottles'])(
  'a sheet of %s labels lies where it was measured, and cuts no word',
  async (what) => {
    await v.open(`/trial/demo-trial-par/labels?for=${what}`);
    const cut = await v.page.$$eval('.label, .label-text', (all) =>
      all
        .filter((e) => e.scrollHeight > e.clientHeight + 1 || e.scrollWidth > e.clientWidth + 1)
        .map((e) => e.textContent),
    );
    expect(cut).toEqual([]);
    const [sheet] = await press.inkOf(await v.page.pdf({ format: 'A4' }));
    expect(sheet!.free.left).toBeCloseTo(7, 0);
    expect(sheet!.free.top).toBeCloseTo(15, 0);
    await v.press('Save as PDF');
    const [file] = await press.inkOf(await v.downloaded('.pdf'));
    expect(file!.free.left).toBeCloseTo(7, 0);
    expect(file!.free.top).toBeCloseTo(15, 0);
  },
);
