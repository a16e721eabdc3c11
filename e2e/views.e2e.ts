import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { Visitor, launch } from './browser';

const views = [
  '/',
  '/library',
  '/library/demo-duo',
  '/library/kit',
  '/trials/new',
  '/trials/quick',
  '/devices',
  '/data',
  '/trial/demo-trial-cor/question',
  '/trial/demo-trial-cor/contenders',
  '/trial/demo-trial-cor/layout',
  '/trial/demo-trial-rad/layout?view=places',
  '/trial/demo-trial-rad/layout?view=light',
  '/trial/demo-trial-rad/layout?view=turns',
  '/trial/demo-trial-rad/layout?view=sizes',
  '/trial/demo-trial-rad/layout?view=planting',
  '/trial/demo-trial-rad/question',
  '/trial/demo-trial-rad/contenders',
  '/trial/demo-trial-rad/fairness',
  '/trial/demo-trial-rad/rehearsal',
  '/trial/demo-trial-rad/labels',
  '/trial/demo-trial-rad/card',
  '/trial/demo-trial-fag/layout',
  '/trial/demo-trial-fag/rounds',
  '/trial/demo-trial-fag/findings',
  '/trial/demo-trial-fag/verdict',
  '/trial/demo-trial-fag/review',
  '/trial/demo-trial-cor/labels',
  '/calculator',
  '/instruments',
  '/trial/demo-trial-par/mixing?bottle=D',
  '/trial/demo-trial-par/mixing?view=compare',
  '/trial/demo-trial-par/mixing?view=programme',
  '/trial/demo-trial-par/mixing?view=reservoirs',
  '/trial/demo-trial-par/mixing?view=stock',
  '/trial/demo-trial-par/mixing?view=setup',
  '/trial/demo-trial-par/mixing-card',
  '/trial/demo-trial-par/rounds',
  '/trial/demo-trial-par/rounds?view=tasks',
  '/trial/demo-trial-par/rounds?view=photos',
  '/trial/demo-trial-par/rounds?view=air',
  '/trial/demo-trial-par/rounds?view=events',
  '/trial/demo-trial-par/weigh-in',
  '/trial/demo-trial-cor/findings',
  '/trial/demo-trial-sun/findings',
  '/trial/demo-trial-cor/verdict',
  '/trial/demo-trial-cor/verdict?view=card',
  '/trial/demo-trial-cor/verdict?view=claims',
  '/trial/demo-trial-cor/verdict?view=cost',
  '/trial/demo-trial-cor/findings?trait=demo-COR-trait-height&view=time',
  '/trial/demo-trial-cor/findings?view=looks',
  '/trial/demo-trial-cor/findings?view=traits',
  '/trial/demo-trial-pom/findings?trait=demo-POM-trait-share',
  '/standings',
  '/trial/demo-trial-cor/review',
  '/trial/demo-trial-cor/log',
  '/trial/demo-trial-pom/weigh-in',
  '/trial/demo-trial-cor/panel',
  '/trial/demo-trial-par/panel',
  '/trial/demo-trial-par/panel?view=plan',
  '/trial/demo-trial-par/servers-card/demo-panel-PAR',
  '/trial/demo-trial-par/score-sheets/demo-panel-PAR',
  '/trial/demo-trial-par/taste/demo-panel-PAR/1',
];

/** How wide the page is as painted: what follows the width has had its frame. */
const neededWidth = (v: Visitor) =>
  v.page.evaluate(
    () =>
      new Promise<number>((done) =>
        requestAnimationFrame(() => requestAnimationFrame(() => done(document.documentElement.scrollWidth))),
      ),
  );

describe('every view', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await launch();
  });
  afterAll(() => browser.close());

  /** Small phone, phone, small tablet, tablet both ways, laptop, desk. */
  const widths = [1280, 1180, 834, 820, 600, 390, 320];

  // In parts, so that none comes near the time a test may take.
  const part = Math.ceil(views.length / 6);
  it.each([0, 1, 2, 3, 4, 5])(
    'axe finds nothing, by day; by night the contrast holds; none is wider than a phone, tablet or desk (part %i)',
    async (i) => {
      const v = await Visitor.arrive(browser, inject('demoUrl'));
      const wide: string[] = [];
      for (const path of views.slice(i * part, (i + 1) * part)) {
        await v.open(path);
        await v.page.waitForSelector('h1');
        await v.isAccessible();
        await v.byNight();
        await v.isAccessible(['color-contrast']);
        for (const width of widths) {
          await v.page.setViewport({ width, height: 844 });
          const needed = await neededWidth(v);
          if (needed > width) wide.push(`${path} ${needed} on ${width}`);
        }
        await v.page.setViewport({ width: 1280, height: 800 });
        // Text twice as large: nothing is pushed off the page.
        await v.page.evaluate(() => document.documentElement.style.setProperty('font-size', '200%'));
        const doubled = await neededWidth(v);
        if (doubled > 1280) wide.push(`${path} ${doubled} on 1280 with text at 200 %`);
      }
      expect(wide).toEqual([]);
      expect(v.complaints).toEqual([]);
    },
  );
});
