// A room that breaks down leaves the frame around it, the other rooms, and what was typed.
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

const trial = '/trial/demo-trial-cor';
/** Makes the stored review one that can't be read, or puts it right again. */
const review = (broken: boolean) =>
  v.page.evaluate(
    (bad) =>
      new Promise<void>((resolve, reject) => {
        const open = indexedDB.open('palazzo-demo');
        open.onsuccess = () => {
          const table = open.result.transaction('trials', 'readwrite').objectStore('trials');
          const got = table.get('demo-trial-cor');
          got.onsuccess = () => {
            const row = got.result as { review: unknown; before?: unknown };
            table.put(
              bad
                ? { ...row, before: row.review, review: { ...(row.review as object), photos: 5 } }
                : { ...row, review: row.before },
            );
          };
          table.transaction.oncomplete = () => {
            open.result.close();
            resolve();
          };
          table.transaction.onerror = () => reject(new Error('not written'));
        };
      }),
    broken,
  );

it('says so in its frame, under its title; the stair leads on, and it opens again', async () => {
  await v.open(`${trial}/review`);
  await v.sees('The log');
  expect(await v.page.title()).toBe('Review · COR · Palazzo');
  await review(true);
  await v.reload();
  await v.sees('Something went wrong in this room');
  await v.isAccessible();
  await v.pressLink('Findings');
  await v.sees('deciding trait');
  expect(await v.page.title()).toBe('Findings · COR · Palazzo');
  await review(false);
  await v.open(`${trial}/review`);
  await v.reload();
  await v.sees('Further disclosure');
  expect(await v.page.evaluate(() => document.body.innerText)).not.toContain('Something went wrong');
});
