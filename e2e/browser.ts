import puppeteer, { type Browser } from 'puppeteer-core';
import { chromiumFlags, findTestBrowser } from '../scripts/chromium.mjs';
import { giveBack } from './profiles';

/** The usual browser, for all the files that run in this process one after the other. */
let usual: Browser | undefined;

/** A browser with an empty profile; with flags of its own it is started anew. */
export async function launch(flags: readonly string[] = []): Promise<Browser> {
  if (flags.length === 0 && usual?.connected) return usual;
  const executablePath = findTestBrowser();
  if (!executablePath) throw new Error('Chromium is missing; `npm test` installs it.');
  const browser = await puppeteer.launch({ executablePath, pipe: true, args: [...chromiumFlags, ...flags] });
  if (flags.length === 0) usual = browser;
  return browser;
}

/** Ends what a file did in its browser: its visitors go, or the browser that was started for it alone does. */
export async function leave(browser: Browser): Promise<void> {
  if (browser !== usual) return browser.close();
  const own = browser.defaultBrowserContext();
  for (const context of browser.browserContexts())
    if (context !== own && !(await giveBack(context))) await context.close();
  for (const page of (await own.pages()).slice(1)) await page.close();
}

/** Starts a browser whose user set the size of text: 200 is twice the usual one. */
export const launchWithText = (percent: number): Promise<Browser> =>
  launch([`--blink-settings=defaultFontSize=${(16 * percent) / 100}`]);
