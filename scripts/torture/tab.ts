// A browser that is killed, a tab that is typed in, and what the database holds afterwards.
import puppeteer, { type Browser, type Page } from 'puppeteer-core';
import type { TrialId } from '~core/model/ids';
import { chromiumFlags } from '../chromium.mjs';

/** A browser in a profile that outlives it. */
export const opened = (
  executablePath: string,
  profile: string,
  flags: readonly string[] = [],
): Promise<Browser> =>
  puppeteer.launch({
    executablePath,
    args: [
      ...chromiumFlags,
      ...flags,
      `--user-data-dir=${profile}`,
      // Two tabs are typed in by turns; neither is put to sleep.
      '--disable-renderer-backgrounding',
      '--disable-backgrounding-occluded-windows',
      '--disable-background-timer-throttling',
    ],
  });

/** Waits until a browser that was killed is gone. */
export const ended = (browser: Browser) =>
  new Promise<void>((resolve) => {
    const p = browser.process();
    if (!p || p.exitCode !== null || p.signalCode !== null) return resolve();
    p.once('exit', () => resolve());
    p.kill('SIGKILL');
  });

/** A value the screen said is kept: the tile shows it, without the mark of being kept. */
export interface Confirmed {
  round: string;
  unit: string;
  value: string;
}

/** A tab whose clock is off by so much, which tells of every value it shows as kept. */
export async function tab(
  browser: Browser,
  at: { url: string; trialId: TrialId; round: string; clockOffMs: number; confirmed: Confirmed[] },
): Promise<Page> {
  const page = await browser.newPage();
  // What the compiler wraps functions in, for those that run in the page.
  await page.evaluateOnNewDocument('globalThis.__name = (f) => f');
  await page.evaluateOnNewDocument((off) => {
    const [Real, now] = [Date, Date.now.bind(Date)];
    Date.now = () => now() + off;
    window.Date = new Proxy(Real, {
      construct: (target, given: []) => (given.length === 0 ? new target(now() + off) : new target(...given)),
      apply: () => new Real(now() + off).toString(),
    });
  }, at.clockOffMs);
  // Two tabs are typed in by turns: each takes itself for the one in front.
  const session = await page.createCDPSession();
  await session.send('Emulation.setFocusEmulationEnabled', { enabled: true });
  page.on('console', (m) => {
    if (m.text().startsWith('kept ')) at.confirmed.push(JSON.parse(m.text().slice(5)) as Confirmed);
  });
  await page.goto(`${at.url}/trial/${at.trialId}/rounds?round=${at.round}`, { waitUntil: 'load' });
  await page.waitForSelector('.tile.current');
  await page.evaluate((of) => {
    const shown = new Map<string, string>();
    const look = (first: boolean) => {
      for (const tile of document.querySelectorAll<HTMLElement>('[data-unit]:not(.current)')) {
        const value = tile.querySelector('.value')?.textContent?.trim() ?? '';
        if (!/^\d/.test(value) || tile.querySelector('.keeping') || shown.get(tile.dataset.unit!) === value)
          continue;
        shown.set(tile.dataset.unit!, value);
        if (!first) console.log(`kept ${JSON.stringify({ round: of, unit: tile.dataset.unit, value })}`);
      }
    };
    look(true);
    new MutationObserver(() => look(false)).observe(document.body, {
      ...{ subtree: true, childList: true, characterData: true, attributes: true },
    });
  }, at.round);
  return page;
}

/** Presses the keys of the pad on the screen, and the one that keeps the value. */
export function pressed(value: string): void {
  const press = (of: (b: HTMLButtonElement) => boolean) =>
    [...document.querySelectorAll<HTMLButtonElement>('main button')].find(of)?.click();
  for (const c of value) press((b) => b.closest('.pad-keys') !== null && b.textContent?.trim() === c);
  press((b) => b.textContent?.startsWith('Keep') === true);
}

/** What the database holds: every value by round and unit as the screens show it, and lines or heads that are torn. */
export async function inDatabase(
  page: Page,
  trialId: TrialId,
): Promise<{ values: Record<string, string[]>; half: number }> {
  return page.evaluate(async (id) => {
    const db = await new Promise<IDBDatabase>((resolve, reject) => {
      const asked = indexedDB.open('palazzo-own');
      asked.onsuccess = () => resolve(asked.result);
      asked.onerror = () => reject(new Error('the database can’t be opened'));
    });
    const all = (table: string) =>
      new Promise<Record<string, unknown>[]>((resolve) => {
        const asked = db.transaction(table).objectStore(table).getAll();
        asked.onsuccess = () => resolve(asked.result as Record<string, unknown>[]);
      });
    type Body = { kind: string; unitId: string; roundId: string; value: number };
    type Line = {
      rev: number;
      id: string;
      entry: Body & { id: string; kind: string; counter: number; device: string; replacement?: Body };
    };
    type Row = { id: string; trialId: string; rev: number; lines: Line['entry'][] };
    const [rows, heads, trials] = [
      (await all('entries')) as unknown as Row[],
      await all('heads'),
      await all('trials'),
    ];
    // A row holds the lines of one change, under the id of its first.
    const ours = rows.filter((r) => r.trialId === id);
    const lines = ours.flatMap((r): Line[] => r.lines.map((entry) => ({ rev: r.rev, id: entry.id, entry })));
    db.close();
    const plan = (trials.find((t) => t['id'] === id) as unknown as { plan: { units: { id: string; code: string }[] } }).plan; // prettier-ignore
    const codes = new Map(plan.units.map((u) => [u.id, u.code]));
    const rev = Number(heads.find((h) => h['id'] === id)?.['rev'] ?? -1);
    const values: Record<string, string[]> = {};
    let half = 0;
    // The table is in the order of its keys, which is none: the newest value of a place is the one counted last.
    lines.sort((a, b) => a.entry.counter - b.entry.counter);
    for (const line of lines) {
      // A value typed over another one is a correction: what it puts in its place is the value.
      const said = line.entry.kind === 'correction' ? line.entry.replacement : line.entry;
      if (!said || line.rev > rev) half += 1;
      if (said?.roundId && Number.isFinite(said.value)) {
        const key = `${said.roundId}/${codes.get(said.unitId) ?? '?'}`;
        (values[key] ??= []).push(said.value.toFixed(1));
      }
    }
    // No two lines of one device share a count: that is what their order goes by.
    const counters = lines.map((l) => `${l.entry.device} ${l.entry.counter}`);
    half += counters.length - new Set(counters).size;
    half += ours.filter((r) => r.lines[0]?.id !== r.id).length;
    return { values, half };
  }, trialId);
}
