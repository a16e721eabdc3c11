// What comes from outside: lines that wait for a word, what is taken back once the codes are open, a file that was tampered with.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { exportTrial } from '~core/formats/dataPackage';
import type { Entry } from '~core/log/entry';
import type { TreatmentId, TrialId } from '~core/model/ids';
import { planSha256 } from '~core/plan/seal';
import { shortCode } from '~core/plan/shortCode';
import { entry, harvest, plan, trialOf } from '~core/testing/trial';
import { main } from '../cli/main';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
let v: Visitor;
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('ownUrl'));
});
afterAll(() => leave(browser));

const dir = mkdtempSync(join(tmpdir(), 'palazzo-outside-'));
const p = {
  ...plan({ treatments: ['Water', 'A'], replicates: 3 }),
  ...{ id: 'outside' as TrialId, question: 'Who wrote this?', blinding: 'scorer' as const },
  prediction: 'The codes will stay closed.',
};
const key = { order: p.treatments.map((t) => t.id as TreatmentId) };
const log: Entry[] = [
  entry({ kind: 'seal', planSha256: planSha256(p) }, 'seal-outside'),
  ...harvest({ Water: [50, 51, 52], A: [60, 61, 62] }),
];
const reveal = (id: string): Entry => ({
  ...entry({ kind: 'reveal', reason: 'all is measured' }, id),
  counter: 900 + id.length,
});
function file(name: string, lines: Entry[]): string {
  const path = join(dir, name);
  writeFileSync(path, exportTrial({ ...trialOf(p, lines), key }));
  return path;
}

describe('a file that would open the codes', () => {
  it('waits in the log, is left out, and isn’t asked about again', async () => {
    await v.open('/data');
    await v.upload('trial-file', file('first.zip', log));
    await v.sees('is on the bench');
    const opening = file('opens.zip', [...log, reveal('opened')]);
    await v.upload('trial-file', opening);
    await v.sees(/One (log )?line.*waits/);
    await v.open('/trial/outside/log');
    await v.sees('One line waits for your word');
    await v.sees(/brought by a file/);
    await v.isAccessible();
    await v.press('Leave it out');
    await v.gone('waits for your word');
    await v.open('/trial/outside/verdict');
    await v.sees(/codes/i);
    await v.open('/data');
    await v.upload('trial-file', opening);
    await v.sees('0 new log lines were added');
    await v.open('/trial/outside/log');
    await v.sees('The log');
    await v.gone('waits for your word');
  });

  it('opens them where it is taken', async () => {
    await v.open('/data');
    await v.upload('trial-file', file('opens2.zip', [...log, reveal('opened-by-word')]));
    await v.sees(/One (log )?line.*waits/);
    await v.open('/trial/outside/log');
    await v.press('Take it');
    await v.gone('waits for your word');
    await v.open('/trial/outside/verdict');
    await v.sees(/A beats Water|Water/);
    expect(await v.page.$eval('main', (m) => m.innerText)).not.toMatch(/open the codes/i);
  });
});

describe('once the codes are open', () => {
  it('a value is taken back with a reason alone, and the review prints it', async () => {
    await v.open('/trial/outside/log');
    // What was written in one sitting is one line until it is opened.
    await v.page.locator('::-p-xpath(//button[starts-with(@aria-label, "Open ")])').click();
    const takesBack = '::-p-xpath(//button[starts-with(@aria-label, "Take back: Weigh")])';
    await v.page.locator(takesBack).click();
    await v.press('Take it back');
    await v.sees('Say why: the review prints it.');
    await v.isAccessible();
    await v.fillLabelled('Why', 'its scale was not level');
    await v.press('Take it back');
    await v.sees('Taken back by a new line');
    await v.open('/trial/outside/review?level=record');
    await v.sees('its scale was not level');
  });
});

describe('the record of a trial', () => {
  it('has the code to post in Layout, and the hashes of the review are those of its file', async () => {
    await v.open('/trial/outside/layout');
    await v.sees(shortCode(planSha256(p)));
    await v.open('/trial/outside/review?level=record');
    await v.press('Trial and data (zip)');
    const zip = await v.downloaded('.zip');
    const ended = main(['verify', v.pathOfDownload('.zip'), '--json']);
    const { signed, altered, seal } = JSON.parse(ended.stdout) as Record<string, unknown>;
    expect({ status: ended.status, altered, seal }).toEqual({ status: 0, altered: [], seal: 'ok' });
    await v.sees(String(signed));
    await v.sees(planSha256(p));
    // The same file with one value changed by hand, on a bench that has never seen it.
    const files = unzipSync(zip);
    const changed = strFromU8(files['log.json']!).replace('"grossG":60', '"grossG":75');
    expect(changed).not.toBe(strFromU8(files['log.json']!));
    const path = join(dir, 'tampered.zip');
    writeFileSync(path, zipSync({ ...files, 'log.json': strToU8(changed) }));
    const other = await Visitor.arrive(browser, inject('ownUrl'));
    await other.open('/data');
    await other.upload('trial-file', path);
    await other.sees('One part of the file isn’t as the file says of itself');
    expect([...v.complaints, ...other.complaints]).toEqual([]);
  });
});
