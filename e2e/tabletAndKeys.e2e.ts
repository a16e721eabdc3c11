// The planning rooms on a tablet, and by the keyboard alone.
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
let v: Visitor;
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('demoUrl'));
});
afterAll(() => leave(browser));

it.each([
  ['upright', 820, 1180],
  ['lying', 1180, 820],
])('a tablet %s has the main button in reach', async (_, width, height) => {
  await v.page.setViewport({ width, height });
  await v.open('/trial/demo-trial-rad/question');
  const reachable = await v.page.$eval('button[type="submit"]', (b) => {
    const { top, bottom, left, right } = b.getBoundingClientRect();
    return top >= 0 && bottom <= innerHeight && left >= 0 && right <= innerWidth;
  });
  expect(reachable).toBe(true);
  expect(v.complaints).toEqual([]);
});

describe('with a finger', () => {
  it('held on a unit drags it to another position', async () => {
    await v.page.setViewport({ width: 390, height: 844, isMobile: true, hasTouch: true });
    await v.open('/trial/demo-trial-rad/layout');
    const middle = async (selector: string) => {
      const found = await v.page.waitForSelector(selector);
      await found!.evaluate((e) => e.scrollIntoView({ block: 'center' }));
      const box = (await found!.boundingBox())!;
      return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    };
    await middle('[data-unit="RAD-02"]');
    const from = await middle('[data-unit="RAD-01"]');
    const box = (await (await v.page.$('[data-unit="RAD-02"]'))!.boundingBox())!;
    const touch = await v.page.touchscreen.touchStart(from.x, from.y);
    await v.page.waitForSelector('.tile.carried');
    for (const share of [0.3, 0.7, 1]) {
      await touch.move(from.x + (box.x + box.width / 2 - from.x) * share, from.y);
    }
    await touch.end();
    await v.sees('Moved.');
    await v.page.waitForSelector('[data-position$="/0/1"] [data-unit="RAD-01"]');
    expect(v.complaints).toEqual([]);
  });
});

describe('by the keyboard alone', () => {
  beforeAll(() => v.page.setViewport({ width: 1280, height: 800 }));
  const focused = () => v.page.evaluate(() => (document.activeElement as HTMLElement).innerText);
  /** Tabs on until the focus is on something that says so. */
  async function tabTo(text: string, most = 80): Promise<void> {
    for (let i = 0; i < most; i++) {
      await v.keys('Tab');
      if ((await focused())?.trim() === text) return;
    }
    throw new Error(`“${text}” isn’t reached by Tab`);
  }

  it('units change positions by Space and arrows; a guard’s place takes none', async () => {
    await v.open('/trial/demo-trial-rad/layout?view=places');
    await v.fill('areas.0.columns', '4');
    await v.press('Save the areas');
    await v.sees('The areas are saved.');
    await v.press('Free: row 1, position 4; press to block');
    await v.sees('Blocked.');
    await v.press('Arrange');
    await v.page.waitForSelector('[data-unit="RAD-03"]');
    await v.page.focus('[data-unit="RAD-03"]');
    await v.keys('Space');
    await v.sees('RAD-03 is lifted');
    await v.keys('Escape');
    await v.page.focus('[data-unit="RAD-03"]');
    await v.keys('Space', 'ArrowDown', 'Space');
    await v.sees('Moved.');
    await v.page.waitForSelector('[data-position$="/1/2"] [data-unit="RAD-03"]');
    await v.page.waitForSelector('[data-position$="/0/2"] [data-unit="RAD-04"]');
    // the blocked corner is drawn, and is no button to put a unit on
    expect(await v.page.$('[data-position$="/0/3"] button')).toBeNull();
    await v.page.keyboard.down('Control');
    await v.keys('z');
    await v.page.keyboard.up('Control');
    await v.page.waitForSelector('[data-position$="/0/2"] [data-unit="RAD-03"]');
    expect(v.complaints).toEqual([]);
  });

  it('a place is blocked, made a guard’s and freed, and the arrows walk the plan', async () => {
    await v.open('/trial/demo-trial-rad/layout?view=places');
    await v.fill('areas.0.rows', '5');
    await v.press('Save the areas');
    await v.sees('The areas are saved.');
    const place = '[aria-label^="Free: row 5, position 1"]';
    await v.page.waitForSelector(place);
    await v.page.focus(place);
    await v.keys('ArrowRight');
    expect(await v.page.evaluate(() => document.activeElement!.getAttribute('aria-label'))).toMatch(
      /^Free: row 5, position 2/,
    );
    await v.keys('Enter');
    await v.page.waitForSelector('[aria-label^="blocked: row 5, position 2"]');
    await v.page.focus('[aria-label^="blocked: row 5, position 2"]');
    await v.keys('Enter');
    await v.page.waitForSelector('[aria-label^="guard: row 5, position 2"]');
    await v.isAccessible();
    await v.keys('[');
    await v.arrives(/\/contenders$/);
    await v.keys(']', ']');
    await v.arrives(/\/fairness$/);
    expect(v.complaints).toEqual([]);
  });

  it('a finding is cured and another accepted', async () => {
    await v.open('/trial/demo-trial-rad/fairness');
    await v.sees('No smallest difference that matters');
    await tabTo('Add the base alone');
    await v.keys('Enter');
    await v.page.waitForSelector('[data-rule="additive-without-base"]', { hidden: true });
    await v.page.focus('[data-rule="no-spares"] a');
    await tabTo('Accept …', 3);
    await v.keys('Enter');
    await v.page.waitForSelector('[data-rule="no-spares"] input');
    await v.page.keyboard.type('The packet is empty.');
    await v.keys('Enter');
    await v.page.waitForSelector('[data-rule="no-spares"].accepted');
    await v.sees('Accepted: The packet is empty.');
    await v.open('/trial/demo-trial-rad/review?level=record');
    await v.sees('No spare plants: No reserves are planned. Accepted: The packet is empty.');
    expect(v.complaints).toEqual([]);
  });
});
