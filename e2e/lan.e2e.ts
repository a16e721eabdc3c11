// Two profiles paired over the letter-box on loopback hand values both ways; a third, unpaired, is refused; a helper and
// a taster see their own page alone; two plans stand side by side.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { exportTrial } from '~core/formats/dataPackage';
import { Plan } from '~core/model/plan';
import { planSha256 } from '~core/plan/seal';
import { entry, heightTrait, plan, trialOf } from '~core/testing/trial';
import { plannedTask } from '~core/schedule/protocols/tasks';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
let desk: Visitor;
let phone: Visitor;
const url = inject('lanUrl');
beforeAll(async () => {
  // The certificate is the bench's own: a person goes on after the warning.
  browser = await launch(['--ignore-certificate-errors']);
  desk = await Visitor.arrive(browser, url);
  phone = await Visitor.arrive(browser, url, 390, 844);
});
afterAll(() => leave(browser));

const today = new Date().toISOString().slice(0, 10);
const made = Plan.parse({
  ...plan({ treatments: ['Water', 'Prova'], replicates: 2, traits: [heightTrait()] }),
  startDate: today,
  rounds: [{ id: 'r1', name: 'First', day: 0, traitIds: ['height'] }],
  tasks: [{ ...plannedTask('water', 0, 'Fill the saucers', ''), caution: 'Wet floor.' }],
});
const file = (name: string, of: Plan, sealed: boolean) => {
  const path = join(desk.downloads, name);
  const log = sealed ? [entry({ kind: 'seal', planSha256: planSha256(of) }, `seal-${of.id}`)] : [];
  writeFileSync(path, exportTrial(trialOf(of, log)));
  return path;
};
const linkOf = async (role: string) => {
  await desk.open('/devices');
  await desk.press('Pair another device');
  await desk.choose('The device', role);
  await desk.page.waitForFunction(
    (page) =>
      [...document.querySelectorAll('input')].some(
        (i) => i.value.includes(`${page}#`) && i.value.includes('.'),
      ),
    {},
    role.startsWith('helps') ? '/help' : '/pair',
  );
  await desk.page.waitForSelector('img[alt="Code that pairs a device"]');
  const link = await desk.page.$$eval('input', (all) =>
    all.map((i) => i.value).find((v) => v.includes('#'))!,
  );
  return link.slice(link.indexOf('/', 'https://'.length));
};

describe('pairing', () => {
  it('takes the code of the terminal once, and says what a wrong one is', async () => {
    await desk.open('/devices');
    await desk.sees('Pair this device');
    await desk.sees(/Fingerprint \(SHA-256\).*([0-9A-F]{2}:){31}/);
    await desk.isAccessible();
    await desk.retype('Code', 'WRONGCODE2');
    await desk.press('Pair this device');
    await desk.sees('That code isn’t known, was used already, or is too old.');
    await desk.retype('Code', inject('lanCodes')[0]!);
    await desk.press('Pair this device');
    await desk.sees('No other device yet.');
    const again = await Visitor.arrive(browser, url);
    await again.open(`/pair#${inject('lanCodes')[0]}`);
    await again.press('Pair this device');
    await again.sees('That code isn’t known, was used already, or is too old.');
  });
  it('a phone is paired by the code on the desk, and gets the bench', async () => {
    await desk.open('/data');
    await desk.upload('trial-file', file('trial.zip', made, true));
    await desk.sees('is on the bench');
    await phone.open(await linkOf('may do all, open codes too'));
    await phone.sees('It gets a copy of the bench of its own');
    await phone.press('Pair this device');
    await phone.sees('the desk');
    await phone.pressLink('Today');
    await phone.sees('Is it worth it?');
    await desk.sees('may do all, open codes too');
    await desk.page.keyboard.press('Escape');
    await desk.isAccessible();
  });
});

describe('what is logged', () => {
  it('goes from the phone to the desk, and from the desk to the phone, by itself', async () => {
    await phone.open('/trial/trial/rounds');
    await phone.page.locator('[data-unit="TST-01"]').click();
    await phone.enter('12.5');
    await phone.tileSays('TST-01', /12\.5/);
    await desk.open('/trial/trial/rounds');
    await desk.tileSays('TST-01', /12\.5/);
    await desk.page.locator('[data-unit="TST-02"]').click();
    await desk.enter('9');
    await phone.tileSays('TST-02', /9/);
    expect(await phone.page.evaluate(() => location.pathname)).toBe('/trial/trial/rounds');
  });
  it('isn’t handed to whoever isn’t paired', async () => {
    const stranger = await Visitor.arrive(browser, url);
    await stranger.open('/');
    const asked = await stranger.page.evaluate(async () => {
      const status = async (path: string, init: RequestInit = {}) =>
        (await fetch(`/lan${path}`, init)).status;
      const body = new Uint8Array([1]);
      return [
        await status('/letters'),
        await status('/letters/1'),
        await status('/letters/d1', { method: 'POST', body }),
        await status('/devices', { headers: { Authorization: 'Bearer guess' } }),
        await status('/invites', {
          method: 'POST',
          body: '{}',
          headers: { 'Content-Type': 'application/json' },
        }),
      ];
    });
    expect(asked).toEqual([401, 401, 401, 401, 401]);
    await stranger.open('/');
    expect(await stranger.page.evaluate(() => document.body.innerText)).not.toContain('Is it worth it?');
  });
});

describe('a helper', () => {
  it('sees coded jars and tasks alone, and what is ticked off reaches the desk', async () => {
    const link = await linkOf('helps only: coded jars and tasks');
    const helper = await Visitor.arrive(browser, url, 390, 844);
    await helper.open(link);
    await helper.sees('Fill the saucers');
    await helper.sees('Wet floor.');
    const shown = await helper.page.evaluate(() => document.body.innerText);
    expect(shown).not.toMatch(/Prova|12\.5/);
    expect(shown).toMatch(/TST-0[1-4], TST-0[1-4]/);
    await helper.isAccessible();
    await helper.page.locator('input[type="checkbox"]').click();
    await helper.page.waitForSelector('input[type="checkbox"]:disabled');
    await helper.page.waitForSelector('input[type="checkbox"]:disabled:checked');
    await desk.open('/trial/trial/log');
    await desk.sees('Fill the saucers, day 0');
    // Its place in the box lets it neither pair others nor read a trial.
    const refused = await helper.page.evaluate(async () => {
      const { token } = JSON.parse(localStorage.getItem('palazzo/guest')!) as { token: string };
      const headers = { Authorization: `Bearer ${token}`, 'Content-Type': 'application/json' };
      return (await fetch('/lan/invites', { method: 'POST', headers, body: '{"role":"log"}' })).status;
    });
    expect(refused).toBe(403);
    expect(helper.complaints.filter((c) => !c.includes('403'))).toEqual([]);
  });
});

describe('a taster', () => {
  it('sees the tasting alone by a link of their own, and the answers come back by themselves', async () => {
    await desk.open('/trial/trial/panel');
    await desk.sees('Plan a session');
    await desk.page.$$eval('.caution input[type="checkbox"]', (all) => {
      for (const box of all) (box as HTMLInputElement).click();
    });
    await desk.fill('tasters', 'Ada');
    await desk.press('Draw the codes and start');
    await desk.sees('Open Ada’s page');
    await desk.press('On other phones …');
    await desk.page.waitForFunction(() =>
      [...document.querySelectorAll('input')].some((i) => /\/taste#.*~/.test(i.value)),
    );
    const link = await desk.page.$eval('::-p-aria([name="The link"])', (e) => (e as HTMLInputElement).value);
    const taster = await Visitor.arrive(browser, url, 390, 844);
    await taster.open(new URL(link).pathname + new URL(link).hash);
    for (let cup = 1; cup <= 2; cup++) {
      await taster.sees(`${cup} of 2`);
      await taster.press('4 I like it');
      await taster.press('Keep and go on');
    }
    await taster.sees('Send them when you are done.');
    await taster.press('Send them to the host');
    await taster.sees('The host keeps them. Thank you.');
    await desk.sees(/Ada done/);
    await taster.isAccessible();
    expect(taster.complaints).toEqual([]);
  });
});

describe('a plan changed on both', () => {
  it('stands side by side until one is chosen, and the other device hears of it', async () => {
    const draft = Plan.parse({ ...made, id: 'draft', code: 'DRF', question: 'Which of two?' });
    await desk.open('/data');
    await desk.upload('trial-file', file('draft.zip', draft, false));
    await desk.sees('is on the bench');
    await phone.open('/');
    await phone.sees('Which of two?');
    // Apart: each is changed while it doesn't hear of the other.
    await phone.open('/trial/draft/question');
    await phone.sees('Deciding trait');
    await phone.page.setOfflineMode(true);
    await phone.fill('prediction', 'The phone says so.');
    await phone.press('Save the question');
    await phone.sees('The question is saved.');
    await desk.open('/trial/draft/question');
    await desk.fill('prediction', 'The desk says so.');
    await desk.press('Save the question');
    await desk.sees('The question is saved.');
    await phone.page.setOfflineMode(false);
    await desk.open('/devices');
    await desk.sees('Two plans of “Which of two?”');
    await desk.sees('The phone says so.');
    await desk.sees('The desk says so.');
    await desk.isAccessible();
    await phone.open('/devices');
    await phone.sees('Two plans of “Which of two?”');
    await desk.press('Keep the plan here');
    await desk.sees('The plan here stays; Desk 2 is told.');
    await phone.gone('Two plans of');
    await phone.open('/trial/draft/question');
    expect(await phone.valueOf('prediction')).toBe('The desk says so.');
    expect(await desk.page.evaluate(() => document.body.innerText)).not.toContain('Two plans of');
  });
});
