import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';
import { crampedFields, neededWidth, sideways, smallPrint, views } from './viewList';

describe('every view', () => {
  let browser: Browser;
  let v: Visitor;
  beforeAll(async () => {
    browser = await launch();
    v = await Visitor.arrive(browser, inject('demoUrl'));
  });
  afterAll(() => leave(browser));

  /** The narrowest of each arrangement the styles have (up to 37.5, 43.75, 47.5, 62.5, 70 em and above), and a desk. */
  const widths = [1280, 1121, 1001, 761, 701, 601, 390, 320];

  // In parts, so that none comes near the time a test may take.
  const part = Math.ceil(views.length / 6);
  it.each([0, 1, 2, 3, 4, 5])(
    'axe finds nothing, by day; by night the contrast holds; none is wider than a phone, tablet or desk, no field too narrow, no print too small (part %i)',
    async (i) => {
      const wide: string[] = [];
      const cramped: string[] = [];
      for (const path of views.slice(i * part, (i + 1) * part)) {
        await v.open(path);
        await v.byDay();
        await v.page.waitForSelector('h1');
        await v.isAccessible();
        await v.byNight();
        await v.isAccessible(['color-contrast']);
        for (const width of widths) {
          await v.page.setViewport({ width, height: 844 });
          const needed = await neededWidth(v.page);
          if (needed > width) wide.push(`${path} ${needed} on ${width}`);
          // On a phone nothing is hidden at the side.
          if (width === 390) wide.push(...(await sideways(v.page)).map((what) => `${path} ${what}`));
        }
        const unread = [...(await crampedFields(v.page)), ...(await smallPrint(v.page))];
        cramped.push(...unread.map((what) => `${path} ${what}`));
        await v.page.setViewport({ width: 1280, height: 800 });
      }
      expect(wide).toEqual([]);
      expect(cramped).toEqual([]);
      expect(v.complaints).toEqual([]);
    },
  );
});
