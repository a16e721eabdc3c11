// A tasting with three tasters on a phone: drawn, served, tasted, guessed, revealed; a look session on photos.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { exportTrial } from '~core/formats/dataPackage';
import type { TrialId } from '~core/model/ids';
import type { PanelKey } from '~core/model/panel';
import { Plan } from '~core/model/plan';
import { planSha256 } from '~core/plan/seal';
import { entry, plan, trialOf } from '~core/testing/trial';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

const id = 'tasted' as TrialId;
const names = ['Bosco', 'Rivo', 'Colle'];
let browser: Browser;
/** the host, at a desk; tasters have phones */
let v: Visitor;
let phone: Visitor;
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('ownUrl'), 390, 844);
});
afterAll(() => leave(browser));

const tickCautions = () =>
  v.page.$$eval('.caution input[type="checkbox"]', (all) => {
    for (const box of all) (box as HTMLInputElement).click();
  });
/** Turns a tick the other way. */
const tick = (who: Visitor, name: string) =>
  who.page.$eval(`input[name="${name}"]`, (box) => (box as HTMLInputElement).click());

const path = (page: string) => `/trial/${id}/${page}`;
const html = (who: Visitor) => who.page.evaluate(() => document.documentElement.outerHTML);

/** What nobody may find on a page or in its address before the reveal. */
async function tellsNothing(who: Visitor) {
  const found = `${await html(who)} ${who.page.url()}`;
  for (const told of [...names, 'TST-0', 'unitIds', 'treatmentId']) expect(found).not.toContain(told);
}

/** The key of the session, as the server's device keeps it. */
const keyOnDevice = () =>
  v.page.evaluate(
    () =>
      new Promise<PanelKey>((resolve, reject) => {
        const open = indexedDB.open('palazzo-own');
        open.onerror = () => reject(new Error('no database'));
        open.onsuccess = () => {
          const all = open.result.transaction('panelKeys').objectStore('panelKeys').getAll();
          all.onsuccess = () => resolve((all.result[0] as { key: PanelKey }).key);
        };
      }),
  );

/** Tastes every cup: the better a contender, the more steps. */
async function taste(who: Visitor, key: PanelKey, word?: string) {
  const step: Record<string, string> = {
    Bosco: '2 I’d rather not',
    Rivo: '5 I want more',
    Colle: '4 I like it',
  };
  for (let cup = 1; cup <= 3; cup++) {
    await who.sees(`${cup} of 4`);
    const code = await who.text('.taster-code');
    await tellsNothing(who);
    const of = key.samples[key.cups.find((c) => c.code === code)!.sample]!.treatmentId;
    await who.press(step[of]!);
    if (word && of === 'Rivo') await who.press(word);
    await who.press('Keep and go on');
  }
}

describe('a tasting', () => {
  it('is planned only when its cautions are read, and says at the field what is wrong', async () => {
    const base = plan({ treatments: names, replicates: 2 });
    const startDate = new Date(Date.now() - 10 * 86_400_000).toISOString().slice(0, 10);
    const planned = Plan.parse({ ...base, id, startDate, question: 'Which tastes best?' });
    const zip = join(mkdtempSync(join(tmpdir(), 'palazzo-')), 'tasted.zip');
    const log = [entry({ kind: 'seal', planSha256: planSha256(planned) }, 'seal-tasted')];
    writeFileSync(zip, exportTrial(trialOf(planned, log)));
    await v.open('/data');
    await v.upload('trial-file', zip);
    await v.sees('Which tastes best?');
    await v.open(path('panel'));
    await v.sees('Plan a session');
    await v.press('Draw the codes and start');
    await v.sees('Read and tick each of them first; when in doubt, don’t taste.');
    await tickCautions();
    await v.press('Draw the codes and start');
    await v.sees('One taster at least; initials will do.');
    await v.fill('tasters', 'Ada, B., C.');
    await v.choose('Asked at the end', 'Which two are the same?');
    await v.press('Draw the codes and start');
    await v.sees('No two samples are of one contender: take two of each, or ask which is which.');
    await v.choose('Asked at the end', 'Which is which?');
    await v.isAccessible();
    await v.press('Draw the codes and start');
    await v.sees('Open Ada’s page');
    expect(await v.page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  });

  it('the server’s card says who gets what, and only after somebody says they serve', async () => {
    await v.pressLink('Server’s card');
    await v.sees('Who tastes looks away now');
    // What is read, and what is said to who listens or points; addresses have digits of their own.
    const before = await v.page.evaluate(() =>
      [
        document.body.innerText,
        ...[...document.querySelectorAll('[title], [aria-label], [alt]')].flatMap((e) =>
          ['title', 'aria-label', 'alt'].map((a) => e.getAttribute(a) ?? ''),
        ),
      ].join('\n'),
    );
    const key = await keyOnDevice();
    for (const { code } of key.cups) expect(before).not.toMatch(new RegExp(`\\b${code}\\b`));
    await v.press('I am the helper: show it');
    await v.sees('Who gets what, in this order');
    for (const { code } of key.cups) await v.sees(code);
    await v.isAccessible();
    await v.open(path('panel'));
  });

  it('is tasted one sample a screen; a reload half-way loses nothing', async () => {
    const key = await keyOnDevice();
    await v.pressLink('Open Ada’s page');
    await v.sees('1 of 4');
    await v.press('Keep and go on');
    await v.sees('Tap a step for liking first.');
    await v.press('3 neither good nor bad');
    const code = await v.text('.taster-code');
    await v.reload();
    await v.sees(code);
    expect(await v.page.$$eval('[aria-pressed="true"]', (b) => b.map((x) => x.textContent))).toEqual([
      '3neither good nor bad',
    ]);
    await v.isAccessible();
    await taste(v, key, 'crisp');
    await v.sees('Which is which? A guess will do.');
    await v.press('Keep and go on');
    await v.sees('Thank you');
    await v.pressLink('Hand back to the host');
    await v.sees('done');
  });

  it('is tasted on another phone by its own link, and the answers come back as a text', async () => {
    const key = await keyOnDevice();
    await v.press('On other phones …');
    await v.choose('Link for', 'B.');
    const link = await v.page.$eval('::-p-aria([name="The link"])', (e) => (e as HTMLInputElement).value);
    expect(link).toContain('/taste#');
    // What travels is the sheet of one taster: names to guess among, but no unit, no seed and nobody else's codes.
    const sheet = Buffer.from(link.split('#')[1]!, 'base64url').toString();
    for (const told of ['TST-', 'unitIds', 'sample', key.salt]) expect(sheet).not.toContain(told);
    // As a word of its own: three figures may stand inside an id by chance.
    const codes = key.cups.filter((c) => sheet.includes(`"${c.code}"`));
    expect(codes).toHaveLength(3);
    phone = await Visitor.arrive(browser, inject('ownUrl'), 390, 844);
    await phone.open(new URL(link).pathname + new URL(link).hash);
    await taste(phone, key);
    await phone.press('Keep and go on');
    await phone.sees('Your answers are on this phone.');
    const reply = await phone.page.$eval(
      '::-p-aria([name="The answers as a text"])',
      (e) => (e as HTMLTextAreaElement).value,
    );
    expect(phone.complaints).toEqual([]);
    await v.fillLabelled('Answers that came back', `${reply.slice(0, 40)}`);
    await v.press('Take them in');
    await v.sees('That isn’t a taster’s text, or a part of it is missing.');
    await v.retype('Answers that came back', reply);
    await v.press('Take them in');
    await v.sees('B. done');
  });

  it('before the reveal no exported file says what is in the cups', async () => {
    const key = await keyOnDevice();
    await v.open(path('review'));
    await v.press('Trial and data (zip)');
    const files = unzipSync(await v.downloaded('.zip').then((b) => new Uint8Array(b)));
    const texts = Object.entries(files).map(([name, bytes]) => [name, strFromU8(bytes)] as const);
    expect(texts.some(([, text]) => text.includes(key.cups[0]!.code))).toBe(true);
    for (const [name, text] of texts) {
      expect(text, name).not.toContain(key.salt);
      // No line holds a code and what is in it.
      for (const line of text.split('\n')) {
        if (key.cups.some((c) => line.includes(`"${c.code}"`) || line.includes(`,${c.code},`))) {
          for (const told of names) expect(line, name).not.toContain(told);
        }
      }
    }
  });

  it('is revealed with a word on who isn’t done, and then says what it shows', async () => {
    await v.open(path('panel'));
    await v.press('Reveal the cups');
    await v.sees('C. isn’t done; answers close with the reveal.');
    await v.press('Not yet');
    const key = await keyOnDevice();
    await v.pressLink('Open C.’s page');
    await taste(v, key);
    await v.sees('Which is which? A guess will do.');
    const asked = await v.page.evaluate(() => document.body.innerText);
    const rivo = key.cups.filter((c) => key.samples[c.sample]!.treatmentId === 'Rivo');
    await v.choose(rivo.find((c) => asked.includes(c.code))!.code, 'Rivo');
    await v.press('Keep and go on');
    await v.pressLink('Hand back to the host');
    await v.press('Reveal the cups');
    await v.press('Reveal them now');
    // Three tasters of one mind, three contenders: rank sums 3, 6, 9.
    await v.sees('Liking: Rivo ahead of Bosco.');
    await v.sees('Asked which is which, 1 of 1 cup was named right');
    await v.sees('crisp');
    await v.isAccessible();
    await v.open(path('review?level=record'));
    await v.sees('Liking: Rivo ahead of Bosco.');
    // Answers are closed.
    await v.open(path(`taste/${key.sessionId}/1`));
    await v.sees('The tasting is over');
  });

  it('what was written on paper is a page a taster', async () => {
    await v.open(path('panel'));
    await v.press('Plan another session');
    await v.sees('Plan a session');
    await v.choose('How it asks', 'Triangle: which of three is the odd one?');
    await v.fill('tasters', 'Ada, B.');
    await tickCautions();
    await v.press('Draw the codes and start');
    await v.sees('Two contenders, one sample of each.');
    await tick(v, 'contenders.Colle');
    await v.press('Draw the codes and start');
    await v.sees('Open Ada’s page');
    await v.pressLink('Score sheets');
    await v.sees('Two are the same. Circle the odd one.');
    await tellsNothing(v);
    expect(await v.page.$$('.score-sheet')).toHaveLength(2);
    await v.isAccessible();
    expect(v.complaints).toEqual([]);
  });
});

describe('a look session on photos', () => {
  let w: Visitor;
  beforeAll(async () => {
    w = await Visitor.arrive(browser, inject('demoUrl'), 390, 844);
  });
  it('shows each contender’s newest photo under a code, and puts them in order by keys', async () => {
    await w.open('/trial/demo-trial-par/panel?view=plan');
    await w.sees('Plan a session');
    await w.fill('tasters', 'Ada');
    await w.choose('How it asks', 'Ranking, from best to worst');
    await w.choose('What lies before them', 'Photos');
    await tick(w, 'senses.taste');
    await tick(w, 'senses.look');
    await w.gone('Read and tick');
    await w.page.$eval('input[name="words"]', (e) => (e as HTMLInputElement).select());
    await w.keys('Backspace');
    await w.press('Draw the codes and start');
    await w.sees('Open Ada’s page');
    await w.pressLink('Open Ada’s page');
    await w.sees('From best to worst');
    await w.page.waitForFunction(() => document.querySelectorAll('.taster-picture').length === 5);
    const page = await html(w);
    for (const told of ['PAR-', 'Duo Lume', 'Trittico', 'Ombretta']) expect(page).not.toContain(told);
    const codes = () =>
      w.page.$$eval('.rank-row .taster-small-code', (all) => all.map((e) => e.textContent!));
    const before = await codes();
    await w.press(`${before[1]!} up`);
    await w.page.waitForFunction(
      (first) => document.querySelector('.rank-row .taster-small-code')?.textContent === first,
      {},
      before[1]!,
    );
    await w.page.$eval(`input[aria-label="${before[2]!} is as good as ${before[0]!}"]`, (box) =>
      (box as HTMLInputElement).click(),
    );
    await w.isAccessible();
    await w.press('Keep and go on');
    await w.sees('Thank you');
    await w.pressLink('Hand back to the host');
    await w.press('Reveal the cups');
    await w.press('Reveal them now');
    await w.sees('From best to worst: one taster alone. Numbers and words, no winner.');
    expect(w.complaints).toEqual([]);
  });
});
