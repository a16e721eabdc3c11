// The whole bench in a file: saved, the browser's data cleared, looked at and brought back; a wrong file; the bin.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { prepare } from './profiles';
import { Visitor } from './visitor';

let browser: Browser;
let v: Visitor;
let file = '';
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('demoUrl'));
  // The browser's own dialog for saving can't be answered from here: the file is downloaded instead.
  await prepare(v.page, 'delete window.showSaveFilePicker');
});
afterAll(() => leave(browser));

describe('a backup', () => {
  it('is saved, and says what isn’t in one yet', async () => {
    await v.open('/data');
    await v.sees('No backup was made on this device yet.');
    await v.isAccessible();
    await v.page.locator('xpath///label[contains(., "With the keys")]//input').click();
    await v.sees('Whoever has this file can open every code.');
    await v.press('Save a backup');
    await v.sees(/The bench is in palazzo-demo-bench-\d{4}-\d\d-\d\d\.zip, and was read back\./);
    await v.sees(/Everything is in the backup of/);
    file = join(mkdtempSync(join(tmpdir(), 'palazzo-backup-')), 'bench.zip');
    writeFileSync(file, await v.downloaded('.zip'));
  });
  it('says plainly when a file isn’t one', async () => {
    const wrong = join(mkdtempSync(join(tmpdir(), 'palazzo-backup-')), 'wrong.zip');
    writeFileSync(wrong, 'hello');
    await v.upload('backup-file', wrong);
    await v.sees('wrong.zip: This file isn’t a zip that can be opened');
  });
  it('comes back on a bench of one’s own, after a look at what is in it', async () => {
    const own = await Visitor.arrive(browser, inject('ownUrl'));
    await own.open('/data');
    await own.upload('backup-file', file);
    await own.sees('isn’t here, is added');
    await own.isAccessible();
    await own.press('Bring it back');
    await own.sees('The backup is on the bench.');
    await own.open('/trial/demo-trial-cor/verdict');
    await own.sees('Two of three contenders beat Water');
    await own.open('/trial/demo-trial-par/rounds?view=photos');
    await own.page.waitForSelector('.compare img');
    // The keys went along: codes are opened here too.
    await own.open('/data');
    await own.upload('backup-file', file);
    await own.sees('is here, nothing new');
    await own.press('Leave it');
    expect(own.complaints).toEqual([]);
  });
  it('after a value more there is something unsaved again', async () => {
    await v.open('/trial/demo-trial-par/rounds');
    await v.page.waitForSelector('.tile.current');
    const unit = await v.page.$eval('.tile.current', (e) => e.getAttribute('data-unit')!);
    await v.enter('8.7');
    await v.tileSays(unit, /8\.7/);
    await v.open('/data');
    await v.sees(/One trial was changed since the backup of/);
  });
});

describe('the bin', () => {
  it('is emptied only when asked twice', async () => {
    await v.open('/');
    await v.fromMenu('More for Which feed brings parsley on fastest?', 'Delete');
    await v.sees('nothing is due');
    await v.open('/data');
    await v.press('Empty the bin …');
    await v.sees('One thing is gone for good then');
    await v.isAccessible();
    await v.press('Cancel');
    await v.sees('Bring back');
    await v.press('Empty the bin …');
    await v.press('Empty it for good');
    await v.sees('Nothing was deleted.');
    expect(v.complaints).toEqual([]);
  });
});

describe('a folder', () => {
  it('chosen once gets the backup by itself, and again when something changed', async () => {
    const own = await Visitor.arrive(browser, inject('demoUrl'));
    // The dialog can't be answered from here: a folder of the browser's own stands in for the chosen one.
    await prepare(own.page, () => {
      Object.assign(window, { showDirectoryPicker: () => navigator.storage.getDirectory() });
    });
    const size = () =>
      own.page.evaluate(async () => {
        const folder = await navigator.storage.getDirectory();
        return (await (await folder.getFileHandle('palazzo-demo-bench.zip')).getFile()).size;
      });
    await own.open('/data');
    await own.press('Keep a folder up to date …');
    await own.sees('is kept up to date');
    await own.sees(/Everything is in the backup of/);
    const first = await size();
    expect(first).toBeGreaterThan(10_000);
    await own.isAccessible();
    await own.open('/trial/demo-trial-par/rounds');
    await own.page.locator('[data-unit="PAR-20"]').click();
    await own.enter('9.9');
    await own.tileSays('PAR-20', /9\.9/);
    await own.open('/data');
    await own.page.waitForFunction(() => document.body.innerText.includes('Everything is in the backup of'));
    expect(await size()).not.toBe(first);
    await own.press('Leave it');
    await own.sees('Keep a folder up to date …');
    expect(own.complaints).toEqual([]);
  });
});
