// Every kind of work but typing in rounds, killed at random moments: pasted values, photos, a trial taken in, a backup brought
// back, a plan saved, a taster's answers, a remark, a new version taken. What the screen said is kept must be in the database, whole.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';
import jpeg from 'jpeg-js';
import type { Browser, Page } from 'puppeteer-core';
import { exportTrial } from '~core/formats/dataPackage';
import { libraryToFile } from '~core/formats/libraryFile';
import type { PanelId, RoundId, TreatmentId, TrialId, UnitId } from '~core/model/ids';
import { usualLiking } from '~core/model/panel';
import { Plan } from '~core/model/plan';
import { planSha256 } from '~core/plan/seal';
import { planSession } from '~core/sensory/planSession';
import type { Random } from '~core/stats/random';
import { entry, heightTrait, plan, trialOf } from '~core/testing/trial';
import { ended } from './tab';

const WORK = 'work' as TrialId;
const DRAFT = 'draft' as TrialId;
const SESSION = 'tasting' as PanelId;
const LINES = 40;

/** What a screen said is kept. */
type Kept =
  | { what: 'pasted'; values: Record<string, number> }
  | { what: 'photos'; count: number }
  | { what: 'trial'; id: string }
  | { what: 'plan'; n: number }
  | { what: 'answer' }
  | { what: 'remark'; text: string }
  | { what: 'version' };

interface Table {
  name: string;
  rows: Record<string, unknown>[];
}

const base = (id: TrialId, code: string) => {
  const height = heightTrait();
  const p = plan({ treatments: [...'ABCDE'], replicates: 8, traits: [height] });
  return Plan.parse({
    ...p,
    ...{ id, code, units: p.units.map((u) => ({ ...u, code: u.code.replace(/^\w+/, code) })) },
    ...{ question: `What of ${id}?`, startDate: new Date().toISOString().slice(0, 10) },
    rounds: [{ id: 'r0' as RoundId, name: 'Round 0', day: 0, traitIds: [height.id] }],
  });
};

/** The trials that are worked on: one sealed, with a tasting under way, and one that is still planned. */
function begun(): Uint8Array[] {
  const p = base(WORK, 'WRK');
  const session = planSession(
    {
      ...{ id: SESSION, name: 'Tasting', kind: 'liking', presented: 'cups', senses: ['taste'], asked: '' },
      ...{ attributes: [usualLiking], words: [], guess: 'none', cautions: [], repeats: 1 },
      tasters: Array.from({ length: 40 }, (_, i) => `T${i + 1}`),
      samples: [...'ABCDE'].map((name) => ({
        ...{ treatmentId: name as TreatmentId, unitIds: [`${name}-0` as UnitId], photo: null },
      })),
    },
    1,
    'a salt nobody guesses',
  );
  if (!session.ok) throw new Error('The tasting can’t be planned.');
  return [
    exportTrial(
      trialOf(p, [
        entry({ kind: 'seal', planSha256: planSha256(p) }, 'seal'),
        entry({ kind: 'panel', session: session.value.session }, 'panel'),
      ]),
    ),
    exportTrial(trialOf(base(DRAFT, 'DRF'), [])),
  ];
}

/** A trial of its own, with so many lines. */
const other = (id: string): Uint8Array =>
  exportTrial(
    trialOf(
      base(id as TrialId, 'OTH'),
      Array.from({ length: LINES }, (_, i) =>
        entry({ kind: 'note', unitId: null, text: `${id} ${i}` }, `${id}-${i}`),
      ),
    ),
  );

const upload = async (page: Page, testId: string, path: string) => {
  const input = await page.waitForSelector(`[data-testid="${testId}"]`);
  await (input as unknown as { uploadFile: (path: string) => Promise<void> }).uploadFile(path);
};
const press = (page: Page, text: string) =>
  page.locator(`::-p-xpath(//button[starts-with(., "${text}")])`).click();
const sees = (page: Page, text: string) =>
  page.waitForFunction((t) => document.body.innerText.includes(t), {}, text);

/** Runs works one after the other until the browser is killed, so many times; then holds the database against what was said. */
export async function tortureWorks(at: {
  kills: number;
  random: Random;
  url: string;
  dir: string;
  open: () => Promise<Browser>;
  /** the server has another version of the app from now on */
  renew: () => void;
}): Promise<{ confirmed: number; lost: number; half: number }> {
  const { random, url, dir } = at;
  if (at.kills === 0) return { confirmed: 0, lost: 0, half: 0 };
  const kept: Kept[] = [];
  let n = 0;
  const go = (page: Page, path: string) => page.goto(`${url}${path}`, { waitUntil: 'load' });
  const file = (name: string, bytes: Uint8Array) => {
    writeFileSync(join(dir, name), bytes);
    return join(dir, name);
  };
  let taster = 1;

  const works: ((page: Page) => Promise<void>)[] = [
    async (page) => {
      await go(page, `/trial/${WORK}/rounds?round=r0`);
      await press(page, 'Paste a');
      const values: Record<string, number> = {};
      for (let i = 1; i <= 40; i++) values[`WRK-${String(i).padStart(2, '0')}`] = 10 + (n++ % 5000) / 100;
      await page.locator('[role="dialog"] textarea').click();
      await page.keyboard.sendCharacter(Object.entries(values).map(([u, v]) => `${u}\t${v}`).join('\n')); // prettier-ignore
      await page.locator('::-p-xpath(//*[@role="dialog"]//button[starts-with(., "Keep")])').click();
      await page.waitForSelector('[role="dialog"]', { hidden: true });
      kept.push({ what: 'pasted', values });
    },
    async (page) => {
      const data = Buffer.from(Array.from({ length: 64 * 64 * 4 }, () => Math.floor(random.uniform() * 256)));
      const name = `WRK-${String(1 + (n++ % 40)).padStart(2, '0')}.jpg`;
      const path = file(name, new Uint8Array(jpeg.encode({ width: 64, height: 64, data }, 80).data));
      await go(page, `/trial/${WORK}/rounds?view=photos`);
      await upload(page, 'photo-files', path);
      await press(page, 'Keep 1 photo');
      await sees(page, '1 photo kept');
      kept.push({ what: 'photos', count: 1 });
    },
    async (page) => {
      const id = `came-${n++}`;
      await go(page, '/data');
      await upload(page, 'trial-file', file(`${id}.zip`, other(id)));
      await sees(page, `“What of ${id}?” is on the bench.`);
      kept.push({ what: 'trial', id });
    },
    async (page) => {
      const id = `back-${n++}`;
      const about = { palazzo: 'backup', version: 1, madeAt: new Date().toISOString(), withKeys: false };
      const zip = zipSync({
        'backup.json': strToU8(JSON.stringify(about)),
        'library.json': strToU8(libraryToFile([])),
        [`trials/${id}.zip`]: other(id),
      });
      await go(page, '/data');
      await upload(page, 'backup-file', file(`${id}.zip`, zip));
      await press(page, 'Bring it back');
      await sees(page, 'The backup is on the bench.');
      kept.push({ what: 'trial', id });
    },
    async (page) => {
      const mine = n++;
      await go(page, `/trial/${DRAFT}/question`);
      const field = await page.waitForSelector('[name="prediction"]');
      await field!.click({ count: 3 });
      await page.keyboard.sendCharacter(`P ${mine}`);
      await press(page, 'Save the question');
      await sees(page, 'The question is saved.');
      kept.push({ what: 'plan', n: mine });
    },
    async (page) => {
      await go(page, `/trial/${WORK}/panel`);
      await go(page, `/trial/${WORK}/taste/${SESSION}/${taster}`);
      taster = 1 + (taster % 40);
      // A taster who was interrupted goes on where they were; who is done isn't asked again.
      for (let cups = 0; cups < 3; cups++) {
        const asked = await page.waitForFunction(() => /(\d) of 5|Everything is kept/.exec(document.body.innerText)?.[0]); // prettier-ignore
        const at = (await asked.jsonValue()) as string;
        if (!at.endsWith('of 5')) return;
        await press(page, '4');
        await press(page, 'Keep and go on');
        await page.waitForFunction((t) => !document.body.innerText.includes(t), {}, at);
        kept.push({ what: 'answer' });
      }
    },
    async (page) => {
      const text = `remark ${n++}`;
      await go(page, `/trial/${WORK}/log`);
      await press(page, 'Write something down');
      await page.locator('[role="dialog"] textarea:not([aria-hidden])').click();
      await page.keyboard.sendCharacter(text);
      await page.locator('::-p-xpath(//*[@role="dialog"]//button[starts-with(., "Write it down") or starts-with(., "Keep")])').click(); // prettier-ignore
      await page.waitForSelector('[role="dialog"]', { hidden: true });
      kept.push({ what: 'remark', text });
    },
    async (page) => {
      await go(page, '/');
      at.renew();
      await go(page, '/');
      await sees(page, 'A new version of Palazzo is ready.');
      const loaded = page.waitForNavigation({ waitUntil: 'load' });
      // Killed before: nobody waits for it any more.
      loaded.catch(() => {});
      await press(page, 'Take it now');
      await loaded;
      await page.waitForSelector('main:not([aria-busy])');
      await page.waitForFunction(() => navigator.serviceWorker.controller?.state === 'activated');
      kept.push({ what: 'version' });
    },
  ];

  const first = await at.open();
  const page = await first.newPage();
  for (const [i, zip] of begun().entries()) {
    await go(page, '/data');
    await upload(page, 'trial-file', file(`begun-${i}.zip`, zip));
    await sees(page, 'is on the bench');
  }
  await first.close();

  const faults = new Map<string, number>();
  for (let kill = 0; kill < at.kills; kill++) {
    const browser = await at.open();
    let dead = false;
    const killer = setTimeout(
      () => {
        dead = true;
        browser.process()!.kill('SIGKILL');
      },
      1000 + random.uniform() * 8000,
    );
    if (process.env['SHOW']) console.log(`kill ${kill}, ${kept.length} kept`);
    try {
      const working = await browser.newPage();
      working.setDefaultTimeout(15_000);
      // A step that waits for a page that is gone would wait on.
      const gone = new Promise<never>((_, no) => browser.once('disconnected', () => no(new Error('gone'))));
      gone.catch(() => {});
      while (!dead) {
        const work = works[Math.floor(random.uniform() * works.length)]!(working);
        work.catch(() => {});
        await Promise.race([work, gone]);
      }
    } catch (e) {
      if (process.env['SHOW']) console.log(dead, (e as Error).message.slice(0, 120));
      // Killed in the middle of a step: that is what is tried. Anything else is said at the end.
      if (!dead)
        faults.set(
          (e as Error).message.slice(0, 160),
          (faults.get((e as Error).message.slice(0, 160)) ?? 0) + 1,
        );
    }
    clearTimeout(killer);
    await ended(browser);
    if ((kill + 1) % 10 === 0) console.log(`${kill + 1} kills of other works, ${kept.length} confirmed`);
  }
  const kinds = [...new Set(kept.map((k) => k.what))].map(
    (what) => `${what} ${kept.filter((k) => k.what === what).length}`,
  );
  console.log(`kept: ${kinds.join(', ')}`);
  for (const [what, times] of faults) console.log(`not done ${times} ×: ${what}`);

  const last = await at.open();
  const looking = await last.newPage();
  // What the compiler wraps functions in, for those that run in the page.
  await looking.evaluateOnNewDocument('globalThis.__name = (f) => f');
  await go(looking, '/');
  await looking.waitForSelector('main:not([aria-busy])');
  const tables = await looking.evaluate(async (): Promise<Table[]> => {
    const db = await new Promise<IDBDatabase>((resolve, reject) => {
      const asked = indexedDB.open('palazzo-own');
      asked.onsuccess = () => resolve(asked.result);
      asked.onerror = () => reject(new Error('the database can’t be opened'));
    });
    const all = (name: string) =>
      new Promise<Record<string, unknown>[]>((resolve) => {
        const asked = db.transaction(name).objectStore(name).getAll();
        asked.onsuccess = () => resolve(asked.result as Record<string, unknown>[]);
      });
    const out: Table[] = [];
    for (const name of ['trials', 'heads', 'entries', 'blobs']) {
      const rows = await all(name);
      out.push({ name, rows: name === 'blobs' ? rows.map((r) => ({ sha256: r['sha256'] })) : rows });
    }
    db.close();
    return out;
  });
  await last.close();
  return judged(kept, tables);
}

/** How much of what was said is there, and what is there by half. */
function judged(
  kept: readonly Kept[],
  tables: readonly Table[],
): { confirmed: number; lost: number; half: number } {
  type Body = {
    kind: string;
    unitId: string;
    value: number;
    text: string;
    sha256: string;
    thumbSha256?: string;
  };
  type Line = { trialId: string; rev: number; entry: Body & { replacement?: Body | null } };
  const rows = <T>(name: string) => tables.find((t) => t.name === name)!.rows as unknown as T[];
  const [trials, heads, lines] = [
    rows<{ id: string; plan: { prediction: string; units: { id: string; code: string }[] } }>('trials'),
    rows<{ id: string; rev: number }>('heads'),
    rows<{ trialId: string; rev: number; lines: Line['entry'][] }>('entries').flatMap((r): Line[] =>
      r.lines.map((entry) => ({ trialId: r.trialId, rev: r.rev, entry })),
    ),
  ];
  const blobs = new Set(rows<{ sha256: string }>('blobs').map((b) => b.sha256));
  const said = lines.flatMap((l) => {
    const body = l.entry.kind === 'correction' ? l.entry.replacement : l.entry;
    return body ? [{ trialId: l.trialId, body }] : [];
  });
  const codes = new Map(trials.find((t) => t.id === WORK)!.plan.units.map((u) => [u.id, u.code]));
  const values = new Set(
    said
      .filter((s) => s.trialId === WORK && s.body.kind === 'measurement')
      .map((s) => `${codes.get(s.body.unitId)} ${s.body.value}`),
  );
  const count = (kind: string) => said.filter((s) => s.trialId === WORK && s.body.kind === kind).length;
  let [lost, half] = [0, 0];
  let [photos, answers, plan] = [0, 0, -1];
  for (const k of kept) {
    if (k.what === 'pasted')
      lost += Object.entries(k.values).filter(([u, v]) => !values.has(`${u} ${v}`)).length;
    else if (k.what === 'photos') photos += k.count;
    else if (k.what === 'answer') answers += 1;
    else if (k.what === 'plan') plan = Math.max(plan, k.n);
    else if (k.what === 'remark') lost += said.some((s) => s.body.text === k.text) ? 0 : 1;
    else if (k.what !== 'version' && !trials.some((t) => t.id === k.id)) lost += 1;
  }
  lost += Math.max(0, photos - count('photo')) + Math.max(0, answers - count('panelAnswer'));
  const stands = Number(/\d+/.exec(trials.find((t) => t.id === DRAFT)!.plan.prediction)?.[0] ?? -1);
  if (stands < plan) lost += 1;
  // Whole or not at all: trials with their heads and lines, pictures with their bytes, lines under their trial's count.
  for (const t of trials) {
    if (!heads.some((h) => h.id === t.id)) half += 1;
    if (/^(came|back)-/.test(t.id) && lines.filter((l) => l.trialId === t.id).length !== LINES) half += 1;
  }
  for (const l of lines) if (l.rev > (heads.find((h) => h.id === l.trialId)?.rev ?? -1)) half += 1;
  for (const { body } of said)
    if (body.kind === 'photo' && !(blobs.has(body.sha256) && blobs.has(body.thumbSha256 ?? body.sha256)))
      half += 1;
  return { confirmed: kept.length, lost, half };
}
