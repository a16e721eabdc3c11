import type { Browser, BrowserContext, Page } from 'puppeteer-core';

/** A profile with one page, which is emptied when its visitor goes and taken by the next one at that address. */
interface Profile {
  page: Page;
  base: string;
  /** what runs in the page before the app does */
  scripts: string[];
  lent: boolean;
}

const profiles = new Map<BrowserContext, Profile>();

/** Takes an empty profile. One that was used at this address before needn't compile the app anew. */
export async function takeProfile(browser: Browser, base: string): Promise<Page> {
  for (const profile of profiles.values())
    if (!profile.lent && profile.base === base && profile.page.browser() === browser) {
      profile.lent = true;
      return profile.page;
    }
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  profiles.set(context, { page, base, scripts: [], lent: true });
  return page;
}

/** Runs something in a page before the app, as long as its visitor stays. */
export async function prepare(page: Page, script: string | (() => void)): Promise<void> {
  const { identifier } = await page.evaluateOnNewDocument(script);
  profiles.get(page.browserContext())?.scripts.push(identifier);
}

/** Empties a profile for the next visitor. @returns false where it can't be taken again */
export async function giveBack(context: BrowserContext): Promise<boolean> {
  const profile = profiles.get(context);
  if (!profile) return false;
  try {
    await empty(context, profile);
    profile.lent = false;
    return true;
  } catch {
    profiles.delete(context);
    return false;
  }
}

/** What visitors listen to. Not all listeners go: the page has some of its own. */
const heard = ['console', 'pageerror', 'request', 'dialog'] as const;

async function empty(context: BrowserContext, { page, base, scripts }: Profile): Promise<void> {
  for (const other of await context.pages()) if (other !== page) await other.close();
  for (const kind of heard) page.off(kind);
  // What is unsaved asks before it goes.
  page.on('dialog', (d) => void d.accept());
  for (const id of scripts.splice(0)) await page.removeScriptToEvaluateOnNewDocument(id);
  // A page of this address that isn’t the app.
  await page.goto(`${base}/manifest.webmanifest`, { timeout: 20_000 });
  page.off('dialog');
  await page.evaluate(() => sessionStorage.clear());
  const session = await page.createCDPSession();
  await session.send('Storage.clearDataForOrigin', { origin: base, storageTypes: 'all' });
  await session.send('Storage.overrideQuotaForOrigin', { origin: base });
  await session.send('Page.resetNavigationHistory');
  await session.detach();
}
