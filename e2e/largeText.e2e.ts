// For whoever set the browser's text to 200 %: the browser's own setting, not a style of the page.
import { expect, inject, it } from 'vitest';
import { launchWithText } from './browser';
import { Visitor } from './visitor';
import { neededWidth, views } from './viewList';

it('text twice as large pushes nothing off the page, on a desk and on a phone', async () => {
  const large = await launchWithText(200);
  try {
    const v = await Visitor.arrive(large, inject('demoUrl'));
    const { page } = v;
    const wide: string[] = [];
    for (const path of views) {
      await page.setViewport({ width: 1280, height: 800 });
      await v.open(path);
      await page.waitForSelector('h1');
      for (const width of [1280, 800]) {
        await page.setViewport({ width, height: 800 });
        const needed = await neededWidth(page);
        if (needed > width) wide.push(`${path} ${needed} on ${width}`);
      }
    }
    expect(await page.evaluate(() => getComputedStyle(document.documentElement).fontSize)).toBe('32px');
    expect(wide).toEqual([]);
  } finally {
    await large.close();
  }
});
