// A day at the bench, standing, on a phone: agenda, what happened, photos, cover, loggers.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';
import { writeCamera, writePhonePicture, writePicture } from './pictures';

const dir = mkdtempSync(join(tmpdir(), 'palazzo-bench-'));
const trial = '/trial/demo-trial-par';
let browser: Browser;
let v: Visitor;
beforeAll(async () => {
  writeCamera(join(dir, 'camera.y4m'), 0.5, 'PAR-14');
  browser = await launch([
    '--use-fake-ui-for-media-stream',
    '--use-fake-device-for-media-stream',
    `--use-file-for-fake-video-capture=${join(dir, 'camera.y4m')}`,
  ]);
  v = await Visitor.arrive(browser, inject('demoUrl'), 390, 844);
});
afterAll(() => leave(browser));

const tick = async (name: RegExp) => {
  const box = await v.page.waitForSelector(`input[type="checkbox"][aria-label^="${name.source}"]`);
  await box!.evaluate((e) => (e as HTMLElement).scrollIntoView({ block: 'center' }));
  await box!.click();
};

describe('the agenda', () => {
  it('is ticked off, one act left out with a reason, one opened again', async () => {
    await v.open('/');
    await v.sees('four tasks');
    await tick(/Top up the saucers/);
    await v.sees('One is done. Nothing is left over from before.');
    await v.sees('three tasks');
    await v.fromMenu('More for Top up the saucers, and write down how much', 'It took … min');
    await v.fillLabelled('It took', 'a while');
    await v.press('Write it down');
    await v.sees('“a while” isn’t a number.');
    await v.retype('It took', '1441');
    await v.press('Write it down');
    await v.sees('Minutes, above 0 and at most 1,440.');
    await v.retype('It took', '12,5');
    await v.press('Write it down');
    await v.sees('The minutes are in the log');
    await v.fromMenu('More for Photograph every tray from the mark', 'Not done, because …');
    await v.press('Write it down');
    await v.sees('Say why it isn’t done.');
    await v.fillLabelled('Why', 'camera battery empty');
    await v.press('Write it down');
    await v.page.waitForSelector('[role="dialog"]', { hidden: true });
    await v.sees('two tasks');
    await tick(/Top up the saucers/);
    await v.sees('three tasks');
    // From the middle of a page, as by a link: the long log begins at its top.
    expect(await v.page.evaluate(() => window.scrollY)).toBeGreaterThan(100);
    await v.open(`${trial}/log`);
    await v.sees('Photograph every tray from the mark, day 17: camera battery empty');
    expect(await v.page.evaluate(() => window.scrollY)).toBe(0);
    await v.sees('Top up the saucers, and write down how much: 12.5 min');
  });
  it('has what waits for something, once it happened; a week and a month ahead', async () => {
    await v.open('/');
    await v.press('It happened today: leaves of neighbours touch, parsley, PAR');
    await v.sees('Set the trays apart, or end for all');
    await v.page.waitForSelector('#waiting', { hidden: true });
    await v.pressLink('Month');
    await v.page.waitForSelector('.month .week:nth-of-type(4)');
    await v.isAccessible();
    expect(await v.page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  });
  it('goes into a calendar file', async () => {
    await v.press('Calendar file');
    const text = (await v.downloaded('.ics')).toString();
    expect(text).toContain('BEGIN:VCALENDAR');
    expect(text.replace(/\r\n /g, '')).toMatch(/UID:demo-trial-par-water-\d+@palazzo/);
    expect(text).toContain('TZID');
  });
});

describe('tasks', () => {
  it('of one’s own are planned, what is wrong is said at its field, and they are due', async () => {
    await v.open(`${trial}/rounds?view=tasks`);
    await v.sees('day 18, then every day to the end, 08:30');
    await v.unfold('Plan a task of your own');
    await v.press('Plan it');
    await v.sees('Say what is to be done.');
    await v.fill('what', 'Weigh the jug');
    await v.fill('day', 'soon');
    await v.press('Plan it');
    await v.sees('“soon” isn’t a number.');
    expect(await v.valueOf('what')).toBe('Weigh the jug');
    await v.fill('day', '15');
    await v.press('Plan it');
    await v.sees('Planned, and written into the log.');
    await v.isAccessible();
    await v.open('/');
    await v.sees('was due 2 days ago');
    await v.fromMenu('More for Weigh the jug', 'Done on another day …');
    await v.press('Done on that day');
    await v.page.waitForSelector('[role="dialog"]', { hidden: true });
    await v.open(`${trial}/log`);
    await v.sees('Weigh the jug, day 15');
    await v.open(`${trial}/rounds?view=tasks`);
    await v.press('Remove Weigh the jug');
    await v.page.waitForSelector('[aria-label="Remove Weigh the jug"]', { hidden: true });
  });
});

describe('what happened', () => {
  it('a missed watering of two trays is bias, and the audit says so', async () => {
    await v.open(`${trial}/rounds?view=events`);
    await v.sees('Watering missed: jug ran out, not refilled');
    await v.sees('All alike: means go down');
    for (const code of ['A 11 PAR-11', 'A 18 PAR-18']) await v.press(code);
    await v.sees('Some alone: that is bias');
    await v.press('Write it down');
    await v.sees('Write down in a few words what happened.');
    await v.fillLabelled('In a few words', 'forgot the end of the shelf');
    await v.press('Write it down');
    await v.sees('Watering missed: forgot the end of the shelf');
    await v.isAccessible();
    await v.open(`${trial}/fairness`);
    await v.sees('2 of 4 trays of Water');
  });
  it('a day to come is refused; a dead tray is replaced from the spares', async () => {
    await v.open(`${trial}/rounds`);
    await v.sees('Tray 8');
    await v.press('Something off?');
    await v.choose('What it is', 'It died');
    await v.press('Write it down');
    await v.sees(/Tray (9|10)/);
    await v.open(`${trial}/rounds?view=events`);
    await v.choose('What happened', 'Replaced from the spares');
    await v.press('Write it down');
    await v.sees('Press what was replaced on the plan.');
    await v.press('D 08 PAR-08 died');
    await v.typeDay('On', '2099-01-01');
    await v.press('Write it down');
    await v.sees('That day is still to come.');
    await v.load(`${trial}/rounds?view=events`);
    await v.choose('What happened', 'Replaced from the spares');
    await v.press('D 08 PAR-08 died');
    await v.press('Write it down');
    await v.sees('Replaced from the spares · PAR-08');
    await v.open(`${trial}/rounds`);
    await v.sees('Tray 8');
  });
  it('two trays lose their labels, and are told apart', async () => {
    await v.open(`${trial}/rounds?view=events`);
    await v.choose('What happened', 'Labels lost: each is one of these');
    await v.press('E 01 PAR-01');
    await v.press('Write it down');
    await v.sees('Press all that can be each other: two or more.');
    await v.press('B 02 PAR-02');
    await v.press('Write it down');
    await v.sees('Findings leave them out');
    await v.press('Tell them apart');
    await v.sees('Say of each which one it is.');
    await v.choose('Where PAR-01 stood is', 'PAR-02');
    await v.choose('Where PAR-02 stood is', 'PAR-01');
    await v.fillLabelled('Told by', 'a notch in the rim');
    await v.press('Tell them apart');
    await v.page.waitForSelector('[aria-label="Labels lost"]', { hidden: true });
    await v.open(`${trial}/log`);
    await v.sees('PAR-01 is PAR-02, PAR-02 is PAR-01: a notch in the rim');
  });
});

describe('planting day', () => {
  it('says how many fit, what is sown, and makes a template at 1:1', async () => {
    await v.open(`${trial}/layout?view=planting`);
    await v.retype('Plants in a tray', '12');
    await v.retype('Full-grown, across', '9 cm');
    await v.sees('9 fit without touching. 12 are crowded');
    await v.retype('Thousand-seed weight', '2');
    await v.sees('14 seeds in each tray · 0.028 g');
    await v.press('Template 1:1 (PDF)');
    const pdf = await v.downloaded('-template.pdf');
    // four sheets of A4 (210 × 297 mm are 595.28 × 841.89 points)
    expect(pdf.toString('latin1').match(/\/Type\s*\/Page\b/g)).toHaveLength(4);
    expect(pdf.toString('latin1')).toMatch(/MediaBox \[0 0 595\.2\d* 841\.8\d*\]/);
  });
});

describe('the walk', () => {
  it('takes all of a tray in one go, several traits one after the other', async () => {
    await v.page.setViewport({ width: 1280, height: 900 });
    await v.open(`${trial}/rounds`);
    await v.sees('Tray 8');
    await v.page.click('label.pad-row input[type="checkbox"]');
    await v.enter('11.2');
    await v.sees('Round 3 · leaf count');
    await v.sees('Tray 8');
    await v.enter('9');
    await v.sees('Round 3 · plant height');
    await v.sees('Tray 9');
    await v.tileSays('PAR-08', /11\.2/);
    await v.page.click('label.pad-row input[type="checkbox"]');
  });
  it('takes a pasted column, line by line, for another day', async () => {
    await v.press('Paste a column …');
    await v.fillLabelled('Values, a line each', 'unit; height\nPAR-09; 10.9\nPAR-10; tall\nPAR-77; 9');
    await v.sees('not a number');
    await v.sees('names no unit that is walked');
    await v.isAccessible();
    await v.press('Keep 1 value');
    await v.page.waitForSelector('[role="dialog"]', { hidden: true });
    await v.tileSays('PAR-09', /10\.9/);
    await v.page.setViewport({ width: 390, height: 844 });
  });
});

describe('photos', () => {
  it('are matched by the code in them, by name and by hand; what isn’t a picture is said', async () => {
    const files = { 'IMG_1.png': 'PAR-09', 'par-10 day 17.png': null, 'IMG_3.png': null } as const;
    for (const [name, code] of Object.entries(files)) writePicture(join(dir, name), 0.4, code);
    writeFileSync(join(dir, 'words.png'), 'not a picture');
    await v.open(`${trial}/rounds?view=photos`);
    await v.sees('Photos');
    await v.upload('photo-files', ...[...Object.keys(files), 'words.png'].map((n) => join(dir, n)));
    await v.sees('words.png isn’t a picture that can be opened here.');
    await v.sees('by the code in it');
    await v.sees('by its name');
    await v.press('Match 1 by the order of the walk');
    await v.sees('by the order of the walk');
    await v.isAccessible();
    await v.press('Keep 3 photos');
    await v.sees('3 photos kept');
    await v.reload();
    await v.page.waitForSelector('main:not([aria-busy])');
    await v.choose('Unit', 'PAR-09');
    await v.page.waitForSelector('.through img');
  });
  it('a phone’s picture is turned upright and dated by the phone; where it was taken isn’t kept', async () => {
    const now = new Date();
    const day = new Date(now.getTime() - 2 * 86_400_000);
    const two = (n: number) => String(n).padStart(2, '0');
    const date = [day.getFullYear(), two(day.getMonth() + 1), two(day.getDate())].join(':');
    writePhonePicture(join(dir, 'PAR-11.jpg'), `${date} 07:45:00`);
    await v.upload('photo-files', join(dir, 'PAR-11.jpg'));
    await v.sees(/07:45/);
    // leaving half-way is asked about
    await v.page.evaluate(() => document.querySelector<HTMLElement>('a[href$="/weigh-in"]')!.click());
    await v.sees('The photos that aren’t kept yet would be lost.');
    await v.press('Stay');
    await v.page.waitForSelector('[role="dialog"]', { hidden: true });
    await v.press('Keep the photo');
    await v.sees('1 photo kept');
    await v.choose('Unit', 'PAR-11');
    await v.page.evaluate(() => {
      const all = [...document.querySelectorAll<HTMLElement>('.through .photo-button')];
      all.find((b) => b.getAttribute('aria-label')!.includes('day 15'))!.click();
    });
    await v.sees('PAR-11, day 15');
    await v.page.waitForSelector('.stage img');
    const [upright, written] = await v.page.evaluate(async () => {
      const img = document.querySelector<HTMLImageElement>('.stage img')!;
      await img.decode();
      const db = await new Promise<IDBDatabase>((done) => {
        const asked = indexedDB.open('palazzo-demo');
        asked.onsuccess = () => done(asked.result);
      });
      const rows = await new Promise<{ type: string; bytes: Uint8Array }[]>((done) => {
        const asked = db.transaction('blobs').objectStore('blobs').getAll();
        asked.onsuccess = () => done(asked.result as { type: string; bytes: Uint8Array }[]);
      });
      db.close();
      const text = rows
        .filter((r) => r.type === 'image/jpeg')
        .map((r) => String.fromCharCode(...r.bytes.subarray(0, 400)))
        .join();
      return [img.naturalHeight > img.naturalWidth, /Exif/.test(text)];
    });
    expect([upright, written]).toEqual([true, false]);
    await v.press('Close');
    await v.page.waitForSelector('[role="dialog"]', { hidden: true });
    await v.choose('Unit', 'PAR-09');
  });
  it('cover is measured on one, its threshold shown, and kept in the log', async () => {
    await v.page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('.through .photo-button')].at(-1)!.click(),
    );
    await v.sees('PAR-09, day 17');
    await v.press('Measure the cover');
    // The label lies over a part of the leaves: 40 % and a little less.
    await v.sees(/3\d\.\d % covered/);
    await v.sees('Otsu’s threshold');
    await v.press(
      await v.page.$eval('::-p-xpath(//button[starts-with(., "Keep 3")])', (b) => b.textContent!),
    );
    await v.sees('The cover is in the log.');
    await v.page.waitForSelector('[role="dialog"]', { hidden: true });
    await v.page.waitForFunction(() =>
      /day 17 · 3\d %/.test(document.querySelector('.through')?.textContent ?? ''),
    );
  });
  it('the live camera reads a label, opens its tray and takes the picture', async () => {
    await v.press('From the same spot …');
    await v.sees('label of PAR-14 read');
    await v.press('Take the photo');
    await v.sees('camera.jpg');
    await v.sees('taken for it');
    await v.press('Keep the photo');
    await v.sees('1 photo kept');
    await v.press('Close the camera');
  });
});

describe('loggers', () => {
  const file = (name: string, content: string) => {
    writeFileSync(join(dir, name), content);
    return join(dir, name);
  };
  it('a wrong file says what is wrong; day and month are asked for where nobody can tell', async () => {
    await v.open(`${trial}/rounds?view=air`);
    await v.sees('Level 2 was 1.8 °C warmer at night than Level 1');
    await v.upload('logger-file', file('words.csv', 'just words'));
    await v.sees('words.csv: No heading line with rows of times and numbers below it was found.');
    await v.upload(
      'logger-file',
      file('when.csv', 'time,temp\n03/04/2026 10:00,18\n05/04/2026 11:00,oops\n'),
    );
    await v.sees('may be day first or month first');
    await v.press('Month first');
    await v.sees('2026-03-04 10:00:00');
    await v.sees('1 row wasn’t taken whole');
    await v.isAccessible();
  });
  it('half a million rows are read beside the screen, and kept', async () => {
    const rows = ['Datum/Uhrzeit;Temp (°C);Feuchte (%)'];
    const start = Date.UTC(2025, 0, 1);
    for (let i = 0; i < 500_000; i++) {
      const at = new Date(start + i * 60_000).toISOString();
      rows.push(
        `${at.slice(8, 10)}.${at.slice(5, 7)}.${at.slice(0, 4)} ${at.slice(11, 16)};${20 + (i % 50) / 10};60`.replace(
          '.1;',
          ',1;',
        ),
      );
    }
    await v.upload('logger-file', file('long.csv', rows.join('\n')));
    await v.sees('500,000 rows');
    await v.press('Keep the readings');
    await v.sees('Kept; the log names it by its hash.');
    await v.reload();
    await v.sees(/long\.csv|3 files/);
  });
});

it('nothing complained, nothing left the device', () => {
  expect(v.complaints).toEqual([]);
});
