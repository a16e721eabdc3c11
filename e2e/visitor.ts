import { mkdtempSync, readFileSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type AxeResults, source as axeSource } from 'axe-core';
import type { Browser, BrowserContext, ElementHandle, Page } from 'puppeteer-core';
import { expect, vi } from 'vitest';
import { prepare, takeProfile } from './profiles';

/**
 * Runs in the page: goes on by the app's own router, until the screen that is drawn is that of the new address.
 * @returns false where that can't be: no app, a redirect, something unsaved that asks first
 */
async function goWithin(to: string): Promise<boolean> {
  const { __reactRouterDataRouter: router } = window as unknown as {
    __reactRouterDataRouter?: { navigate: (to: string) => Promise<void> };
  };
  if (!router) return false;
  await router.navigate(to);
  if (location.pathname + location.search !== to) return false;
  for (let frames = 0; document.documentElement.dataset['at'] !== to; frames++) {
    if (frames > 600) return false;
    await new Promise(requestAnimationFrame);
  }
  return true;
}

/** A page with the words a person would use: open, press, type, see. */
export class Visitor {
  readonly page: Page;
  private readonly base: string;
  /** errors in the console and requests that left the machine; both should stay empty */
  readonly complaints: string[] = [];
  readonly downloads: string;

  private constructor(page: Page, base: string) {
    this.page = page;
    this.base = base;
    this.downloads = mkdtempSync(join(tmpdir(), 'palazzo-'));
  }

  /** A visitor in a profile of its own: nothing stored yet. */
  static async arrive(browser: Browser, base: string, width = 1280, height = 800): Promise<Visitor> {
    const visitor = await Visitor.on(await takeProfile(browser, base), base, width, height);
    // The app isn’t kept for offline use: copying all of it would only slow the others down.
    await prepare(visitor.page, () => {
      delete (Navigator.prototype as { serviceWorker?: unknown }).serviceWorker;
    });
    return visitor;
  }

  /** A visitor in a profile that is there already. */
  static async arriveIn(context: BrowserContext, base: string, width = 1280, height = 800): Promise<Visitor> {
    return Visitor.on(await context.newPage(), base, width, height);
  }

  private static async on(page: Page, base: string, width: number, height: number): Promise<Visitor> {
    await page.setViewport({ width, height });
    const visitor = new Visitor(page, base);
    page.on('console', (m) => m.type() === 'error' && visitor.complaints.push(m.text()));
    page.on('pageerror', (e) => visitor.complaints.push(String(e)));
    // A page left with something unsaved asks; unanswered, every later step would hang.
    page.on('dialog', (d) => {
      visitor.complaints.push(`asked before leaving ${page.url()}: ${d.type()} ${d.message()}`);
      void d.accept();
    });
    page.on('request', (r) => {
      if (!/^(data|blob):/.test(r.url()) && !r.url().startsWith(base))
        visitor.complaints.push(`left the device: ${r.url()}`);
    });
    const { id: profile } = page.browserContext();
    const session = await page.createCDPSession();
    await session.send('Browser.setDownloadBehavior', {
      behavior: 'allow',
      downloadPath: visitor.downloads,
      ...(profile && { browserContextId: profile }),
    });
    // The tests type centimetres, whatever the language of the browser they find; region.test.ts has the rest.
    await prepare(page, () => {
      if (location.protocol.startsWith('http'))
        localStorage.setItem(
          'palazzo/region',
          localStorage.getItem('palazzo/region') ?? JSON.stringify({ units: 'metric' }),
        );
    });
    page.setDefaultTimeout(Number(process.env.E2E_PATIENCE ?? 60_000));
    return visitor;
  }

  /** Loads a page anew, as from the address bar. */
  async load(path: string): Promise<void> {
    await this.page.goto(this.base + path, { waitUntil: 'load' });
    await this.page.waitForSelector('main:not([aria-busy])');
  }

  /** Loads the page it is on anew, once it lets go without asking: what is shown may still be on its way to the store. */
  async reload(): Promise<void> {
    await this.page.waitForFunction(
      () => window.dispatchEvent(new Event('beforeunload', { cancelable: true })),
      { polling: 20 },
    );
    await this.page.reload();
    await this.page.waitForSelector('main:not([aria-busy])');
  }

  /** Goes to a page: within the app as a link does, where it is open already; else it is loaded. */
  async open(path: string): Promise<void> {
    if (!this.page.url().startsWith(this.base)) return this.load(path);
    // A whole browser draws only the tab in front.
    if (await this.page.evaluate(() => document.hidden)) await this.page.bringToFront();
    const gone = await this.page.evaluate(goWithin, path);
    if (!gone) return this.load(path);
    await this.page.waitForSelector('main:not([aria-busy])');
  }

  /** Waits until the screen of another address is drawn. @param where what its path matches */
  async arrives(where: RegExp): Promise<void> {
    await this.page.waitForFunction(
      (source) => new RegExp(source).test((document.documentElement.dataset['at'] ?? '').split('?')[0]!),
      {},
      where.source,
    );
  }

  /** Puts a product of which this is known into the library. */
  async addProduct(name: string, labelRate: string): Promise<void> {
    await this.open('/library/new');
    await this.fill('name', name);
    await this.fill('labelRate', labelRate);
    await this.press('Put it in the library');
    await this.arrives(/^\/library$/);
  }

  /** Waits until a text isn’t on the page any more. */
  async gone(text: string): Promise<void> {
    const isGone = (t: string) => !document.body.innerText.replace(/\s+/g, ' ').includes(t);
    await this.page.waitForFunction(isGone, { polling: 50 }, text);
  }

  /** Waits until the page says something; fails with what it says instead. */
  async sees(text: string | RegExp): Promise<void> {
    const wanted = typeof text === 'string' ? { plain: text } : { pattern: text.source, flags: text.flags };
    try {
      await this.page.waitForFunction(
        ({ plain, pattern, flags }: { plain?: string; pattern?: string; flags?: string }) => {
          const shown = document.body.innerText.replace(/\s+/g, ' ');
          return pattern ? new RegExp(pattern, flags).test(shown) : shown.includes(plain!);
        },
        // Not with every frame: to read a page is work for it.
        { polling: 50 },
        wanted as { plain?: string; pattern?: string; flags?: string },
      );
    } catch {
      const shown = await this.page.evaluate(() => document.body.innerText.replace(/\s+/g, ' '));
      throw new Error(`“${text}” isn’t on ${this.page.url()}, which says: ${shown.slice(0, 2500)}`);
    }
  }

  /** Lets a stand-in, as Instruments names it, into the rooms of one's own bench. */
  async letIn(standIn: string): Promise<void> {
    await this.open('/instruments');
    const box = `::-p-aria([name="${standIn} in the rooms too: its readings are made up"][role="checkbox"])`;
    await this.page.locator(box).click();
  }

  /** Presses a button, link or tab by its accessible name. */
  async press(name: string, role: 'button' | 'link' = 'button'): Promise<void> {
    const selector = `::-p-aria([name="${name}"][role="${role}"])`;
    const found = await this.page.waitForSelector(selector);
    // Away from bars that stick to the edges, as a person would scroll it; pressed when it stays where it is.
    const ready = await found!.evaluate(async (e) => {
      e.scrollIntoView({ block: 'center' });
      const place = () => JSON.stringify(e.getBoundingClientRect());
      for (let before = ''; before !== place();) {
        before = place();
        await new Promise(requestAnimationFrame);
      }
      return e.isConnected && !(e as HTMLButtonElement).disabled;
    });
    if (ready) await found!.click();
    // Drawn anew meanwhile, or not to be pressed yet.
    else await this.page.locator(selector).click();
  }

  /** Opens what is folded under these words, where it isn't open yet. */
  async unfold(summary: string): Promise<void> {
    const head = await this.page.waitForSelector(
      `xpath///summary[contains(normalize-space(.), "${summary}")]`,
    );
    if (!(await head!.evaluate((e) => e.closest('details')!.open))) await head!.click();
  }

  /** Opens a menu and takes an item of it. */
  async fromMenu(menu: string, item: string): Promise<void> {
    await this.press(menu);
    await this.page.locator(`::-p-aria([name="${item}"][role="menuitem"])`).click();
  }

  async pressLink(name: string): Promise<void> {
    await this.press(name, 'link');
  }

  /** Types into the field of that name attribute, over what stood there. */
  async fill(field: string, value: string): Promise<void> {
    await this.page.locator(`:is(input, textarea)[name="${field}"]`).fill(value);
  }

  async fillLabelled(label: string, value: string): Promise<void> {
    const selector = `::-p-aria([name="${label}"][role="textbox"])`;
    // A field that was drawn anew while it was filled has lost what was typed into the old one.
    for (let tries = 0; tries < 3; tries++) {
      await this.page.locator(selector).fill(value);
      const field = await this.page.waitForSelector(selector);
      if ((await field!.evaluate((e) => (e as HTMLInputElement).value)) === value) return;
    }
  }

  /** Types a day into the field with that label, part by part, whatever their order is. */
  async typeDay(label: string, day: string): Promise<void> {
    const field = `::-p-aria([name="${label}"][role="group"])`;
    const group = await this.page.waitForSelector(field);
    const [year, month, date] = day.split('-');
    for (const [part, figures] of [
      ['Year', year],
      ['Month', month],
      ['Day', date],
    ] as const) {
      const section = await group!.$(`[role="spinbutton"][aria-label="${part}"]`);
      await section!.click();
      await section!.type(figures!);
    }
  }

  /** Types over what stands in the field with that accessible name, key by key; what is long comes in one piece, as pasted. */
  async retype(label: string, value: string): Promise<void> {
    const field = await this.page.waitForSelector(`::-p-aria([name="${label}"][role="textbox"])`);
    await field!.evaluate((e) => (e as HTMLInputElement).select());
    if (value.length <= 40) return field!.type(value);
    await field!.focus();
    await this.page.keyboard.sendCharacter(value);
  }

  async valueOf(field: string): Promise<string> {
    return this.page.$eval(`:is(input, textarea)[name="${field}"]`, (e) => (e as HTMLInputElement).value);
  }

  /** Chooses from the n-th list with that label. */
  async choose(label: string, option: string, nth = 0): Promise<void> {
    const lists = `::-p-aria([name="${label}"][role="combobox"])`;
    await this.page.waitForSelector(lists);
    const list = (await this.page.$$(lists))[nth];
    if (!list) throw new Error(`There is no list “${label}” number ${nth + 1}.`);
    // Away from bars that stick to the edges, as a person would scroll it.
    await list.evaluate((e) => {
      e.scrollIntoView({ block: 'center' });
      const covered = () => {
        const { left, top, width, height } = e.getBoundingClientRect();
        const there = document.elementFromPoint(left + width / 2, top + height / 2);
        return !there || !e.contains(there);
      };
      if (covered()) e.scrollIntoView({ block: 'start' });
      if (covered()) window.scrollBy(0, -90);
    });
    await list.click();
    await this.page
      .locator(`xpath///*[@role="listbox"]//*[@role="option"][normalize-space()="${option}"]`)
      .click();
    await this.page.waitForSelector('[role="listbox"]', { hidden: true });
  }

  /** Gives files to the chooser with that test id. */
  async upload(testId: string, ...paths: string[]): Promise<void> {
    const input = (await this.page.waitForSelector(
      `[data-testid="${testId}"]`,
    )) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(...paths);
  }

  async keys(...keys: string[]): Promise<void> {
    for (const key of keys) await this.page.keyboard.press(key as 'Enter');
  }

  /** Types on the entry pad with the keyboard and keeps the value. */
  async enter(value: string): Promise<void> {
    await this.keys(...value, 'Enter');
  }

  /** Waits until a unit on the plan shows this, and it is kept. */
  async tileSays(unit: string, shown: RegExp): Promise<void> {
    await this.page.waitForFunction(
      (code, pattern) => {
        const tile = document.querySelector(`[data-unit="${code}"]`) as HTMLElement | null;
        if (!tile || tile.querySelector('.keeping')) return false;
        return new RegExp(pattern).test(tile.innerText.replace(/\s+/g, ' '));
      },
      {},
      unit,
      shown.source,
    );
  }

  text(selector: string): Promise<string> {
    return this.page
      .locator(selector)
      .map((e) => (e as HTMLElement).innerText)
      .wait();
  }

  /** The bytes of a file once it has been downloaded. */
  async downloaded(ending: string): Promise<Buffer> {
    return vi.waitFor(
      () => {
        const name = readdirSync(this.downloads).find((f) => f.endsWith(ending));
        const bytes = name && readFileSync(join(this.downloads, name));
        // It has its name before it has its bytes.
        if (!bytes || bytes.length === 0) throw new Error(`no file ending in ${ending} yet`);
        return bytes;
      },
      { timeout: 60_000, interval: 50 },
    );
  }

  pathOfDownload(ending: string): string {
    return join(
      this.downloads,
      readdirSync(this.downloads).find((f) => f.endsWith(ending))!,
    );
  }

  /** Turns this page, as it stands, to the colours of the night. */
  async byNight(): Promise<void> {
    await this.page.evaluate(() => document.documentElement.setAttribute('data-mode', 'dark'));
  }

  async byDay(): Promise<void> {
    await this.page.evaluate(() => document.documentElement.setAttribute('data-mode', 'light'));
  }

  /** axe finds nothing at all on what is shown now. @param rules those alone */
  async isAccessible(rules?: string[]): Promise<void> {
    await pageIsAccessible(this.page, rules);
  }
}

/** axe finds nothing at all on a page, one of the app's or one it made. @param rules those alone */
export async function pageIsAccessible(page: Page, rules?: string[]): Promise<void> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axeSource);
  const found = await page.evaluate(async (only) => {
    const { axe } = window as unknown as { axe: { run: (d: Document, o: object) => Promise<AxeResults> } };
    const result = await axe.run(document, {
      resultTypes: ['violations'],
      ...(only && { runOnly: { type: 'rule', values: only } }),
    });
    return result.violations.map(
      (v) =>
        `${v.id}: ${v.nodes
          .map((n) => `${n.html.slice(0, 160)} — ${n.failureSummary}`)
          .slice(0, 3)
          .join(' | ')}`,
    );
  }, rules);
  expect(found, `axe on ${page.url()}`).toEqual([]);
}
