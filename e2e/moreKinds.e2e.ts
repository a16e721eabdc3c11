// Kinds of value, several crops in a unit, and a blind trial carried from one device to another: through files.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { strFromU8, unzipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { dealCodes } from '~core/design/blinding';
import { exportTrial } from '~core/formats/dataPackage';
import type { TrialId } from '~core/model/ids';
import { Plan } from '~core/model/plan';
import { planSha256 } from '~core/plan/seal';
import { entry, heightTrait, plan, trait, trialOf } from '~core/testing/trial';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
beforeAll(async () => {
  browser = await launch();
});
afterAll(() => leave(browser));

const kinds = [
  heightTrait({ id: 'rooted' as never, name: 'Rooted', kind: 'ratio', outOf: 5, unit: '%', decimals: 0 }),
  heightTrait({ id: 'first' as never, name: 'Days to first root', kind: 'time', unit: 'd', decimals: 0 }),
  heightTrait({ id: 'alive' as never, name: 'Alive', kind: 'yesno', unit: '', decimals: 0 }),
  heightTrait({ id: 'words' as never, name: 'Remarks', kind: 'text', unit: '', decimals: 0 }),
  trait(),
];

/** The harvest is today, and the first round isn't long past: no value is asked about for its day. */
const daysAgo = (n: number) => new Date(Date.now() - n * 86_400_000).toISOString().slice(0, 10);

function sealedTrial(over: Partial<Plan>): { plan: Plan; zip: Uint8Array } {
  const base = plan({ treatments: ['Water', 'A', 'B'], replicates: 2, blocked: true, traits: kinds });
  const planned = Plan.parse({ ...base, startDate: daysAgo(10), ...over });
  const log = [entry({ kind: 'seal', planSha256: planSha256(planned) }, `seal-${planned.id}`)];
  const key =
    planned.blinding === 'open'
      ? null
      : dealCodes(
          planned.treatments.map((t) => t.id),
          3,
        );
  return { plan: planned, zip: exportTrial(trialOf(planned, log, { key })) };
}

async function takeIn(v: Visitor, name: string, zip: Uint8Array): Promise<void> {
  const path = join(v.downloads, name);
  writeFileSync(path, zip);
  await v.open('/data');
  await v.upload('trial-file', path);
}

describe('kinds of value', () => {
  let v: Visitor;
  const id = 'kinds-of-value' as TrialId;
  beforeAll(async () => {
    v = await Visitor.arrive(browser, inject('ownUrl'));
    const { zip } = sealedTrial({ id, question: 'Which roots best?', cropsWithin: ['sage', 'basil'] });
    await takeIn(v, 'kinds.zip', zip);
    await v.sees('Which roots best?');
  });

  it('k of n is typed as k and never more than n', async () => {
    await v.open(`/trial/${id}/rounds?round=r1&trait=rooted`);
    await v.sees('of 5');
    await v.sees('sage');
    await v.enter('6');
    await v.sees('There are only 5.');
    await v.keys('Escape');
    await v.enter('4');
    await v.sees('basil');
    await v.enter('2');
    // 4 of 5 and 2 of 5 are 6 of 10, not a per cent of anything
    await v.tileSays('TST-01', /6\/10/);
  });
  it('a table of unit × crop is pasted, each figure where its heading says', async () => {
    await v.open(`/trial/${id}/rounds?round=r1&trait=rooted`);
    await v.press('Paste a table …');
    await v.retype('Values, a line each', 'tray;Basil;Sage\nTST-02;3 of 5;4/5\nTST-03;6;1\nTST-09;1;1');
    await v.sees(/TST-02 4 of 5 3 of 5/);
    await v.sees('basil: There are only 5.');
    await v.sees('names no unit that is walked');
    await v.isAccessible();
    await v.press('Keep 3 values');
    await v.sees('3 values are in the log.');
    await v.tileSays('TST-02', /7\/10/);
  });
  it('what hasn’t happened yet is said so', async () => {
    await v.open(`/trial/${id}/rounds?round=r1&trait=first`);
    await v.page.locator('xpath///button[starts-with(normalize-space(.), "Not yet, on day 3")]').click();
    await v.sees('basil');
    await v.enter('2.5');
    await v.sees('Days are whole.');
    await v.keys('Escape');
    await v.enter('2');
    await v.page.locator('[data-unit="TST-01"]').click();
    await v.sees('Last said: not yet.');
  });
  it('yes and no have a button each', async () => {
    await v.open(`/trial/${id}/rounds?round=r1&trait=alive`);
    await v.page.locator('xpath///button[contains(., "yes")]').click();
    await v.keys('Enter');
    await v.sees('basil');
    await v.page.locator('xpath///button[normalize-space(.)="0 no"]').click();
    await v.keys('Enter');
    await v.sees('Tray 2');
  });
  it('words are written, and empty ones asked for', async () => {
    await v.open(`/trial/${id}/rounds?round=r1&trait=words`);
    await v.press('Keep and go on');
    await v.sees('Write a few words first.');
    await v.retype('Remarks', 'leans to the window');
    await v.press('Keep and go on');
    await v.tileSays('TST-01', /written/);
    await v.page.locator('[data-unit="TST-01"]').click();
    await v.sees('Kept in this round: leans to the window');
  });
  it('each crop is weighed, and findings can look at one alone', async () => {
    await v.open(`/trial/${id}/weigh-in`);
    await v.sees('basil');
    let weight = 20;
    // the walk turns back at the end of the row
    for (const [i, unit] of [1, 2, 3, 6, 5, 4].entries()) {
      for (let crop = 0; crop < 2; crop++) {
        await v.keys(...String(weight), 'Enter');
        // without a container a tare is asked about, once
        if (weight === 20) {
          await v.sees('No tare is taken off.');
          await v.keys('Enter');
        }
        weight += 3;
      }
      await v.tileSays(`TST-0${unit}`, new RegExp(`${43 + 12 * i}\\.0`));
    }
    await v.sees('6 of 6 weighed');
    await v.open(`/trial/${id}/findings?trait=weight`);
    await v.sees('Cut weight per tray');
    await v.choose('Crop', 'basil');
    await v.sees('basil alone');
    await v.open(`/trial/${id}/findings?trait=rooted`);
    await v.sees('So far, one contender alone has values: numbers, nothing to hold them against.');
    expect(v.complaints).toEqual([]);
  });
});

describe('a blind trial on two devices', () => {
  it('carries its key in a file of its own, and stays blind where it arrives', async () => {
    const { plan: planned, zip } = sealedTrial({
      id: 'carried' as TrialId,
      code: 'CAR',
      blinding: 'scorer',
      question: 'Which is it?',
    });
    const first = await Visitor.arrive(browser, inject('ownUrl'));
    await takeIn(first, 'carried.zip', zip);
    await first.sees('Which is it?');
    await first.open(`/trial/${planned.id}/review`);
    await first.sees('its codes are closed');
    await first.press('Everything, with names and key (zip)');
    const files = unzipSync(await first.downloaded('car-trial.zip'));
    const key = JSON.parse(strFromU8(files['key.json']!)) as { order: string[] };
    expect([...key.order].sort()).toEqual(planned.treatments.map((t) => t.id as string).sort());
    expect(strFromU8(files['plan.json']!)).not.toContain('order');

    const second = await Visitor.arrive(browser, inject('ownUrl'));
    await second.open('/data');
    await second.upload('trial-file', first.pathOfDownload('car-trial.zip'));
    await second.sees('Which is it?');
    await second.open(`/trial/${planned.id}/rounds`);
    await second.sees('Code C');
    await second.open(`/trial/${planned.id}/log`);
    await second.sees('Sealed');
    await second.open(`/trial/${planned.id}/layout`);
    await second.press('Open the codes');
    await second.press('Not yet');
    await second.press('Open the codes');
    await second.press('Open the codes now');
    await second.sees('Codes were opened');
    await second.open(`/trial/${planned.id}/log`);
    await second.sees('names are shown from here on');
    // a line that can't be taken back has no button for it
    const buttons = await second.page.$$eval('tbody tr', (rows) =>
      rows
        .filter((r) => r.textContent!.includes('Codes opened'))
        .map((r) => r.querySelectorAll('button').length),
    );
    expect(buttons).toEqual([0]);
    expect(second.complaints).toEqual([]);
  });
});

describe('planning with factors, split plots and start sizes', () => {
  let v: Visitor;
  let trial = '';
  beforeAll(async () => {
    v = await Visitor.arrive(browser, inject('ownUrl'));
    await v.open('/trials/new');
    await v.choose('Kind of trial', 'none of these: traits and rounds by hand');
    await v.fill('question', 'Base or additive?');
    await v.fill('code', 'FAC');
    await v.press('Go on planning');
    await v.sees('What is measured');
    trial = new URL(v.page.url()).pathname.replace('/question', '');
  });

  it('a protocol replaces traits and rounds, and Undo brings them back', async () => {
    await v.press('Add a weight');
    await v.press('Save the question');
    await v.sees('The question is saved.');
    await v.choose('Kind of trial', 'Rooting hormone on cuttings, two species');
    await v.sees('5 plants in it');
    await v.press('Fill the plan from it');
    await v.sees('filled from the protocol');
    await v.press('Open Rooted');
    expect(await v.valueOf('traits.0.outOf')).toBe('5');
    expect(await v.valueOf('finishingRule')).toContain('day 63');
    await v.press('Undo');
    await v.sees('Taken back.');
    await v.sees('Cut weight');
    expect(await v.page.$$('.trait > th')).toHaveLength(1);
  });
  it('factors make contenders, with a table of which is which', async () => {
    await v.open(`${trial}/contenders`);
    await v.press('From factors …');
    await v.press('base × additive');
    await v.retype('Factor 2', 'Base');
    await v.press('Make the contenders');
    await v.sees('Two factors are called Base.');
    await v.retype('Factor 2', 'Additive');
    await v.sees('Makes 4: water · none, water · additive, base feed · none, base feed · additive');
    await v.isAccessible();
    await v.press('Make the contenders');
    await v.sees('Base × Additive');
    await v.press('Save the contenders');
    await v.sees('The contenders are saved.');
    expect(
      await v.page.$$eval('caption + thead + tbody td', (cells) => cells.map((c) => c.textContent)),
    ).toEqual(['water · none', 'water · additive', 'base feed · none', 'base feed · additive']);
  });
  it('main plots hold every contender once, settings by chance', async () => {
    await v.open(`${trial}/layout?view=places`);
    await v.fill('areas.0.rows', '4');
    await v.fill('areas.0.columns', '4');
    await v.press('Save the areas');
    await v.sees('The areas are saved.');
    await v.press('Arrange');
    await v.choose('Design', 'split plots (machines, tanks)');
    await v.fill('settings', 'lamp one, lamp two');
    await v.fill('replicates', '2');
    await v.press('Randomise');
    await v.sees(/main plots are given lamp one, lamp two by chance: b1 lamp (one|two)/);
  });
  it('an interleave is allowed, and the audit says what readers will', async () => {
    await v.choose('Design', 'interleaved, A B C A B C');
    await v.fill('replicates', '4');
    await v.press('Lay out again');
    // The split plots' blocks are gone once it is stored.
    await v.page.waitForFunction(() => !/\bb1\b/.test(document.body.innerText));
    await v.open(`${trial}/fairness`);
    await v.sees('Treatments are interleaved in a fixed order, without blocks.');
  });
  it('start sizes show who began ahead', async () => {
    await v.open(`${trial}/layout?view=sizes`);
    await v.page.waitForSelector('.reading-place input');
    const fields = await v.page.$$('.reading-place input');
    for (const [i, field] of fields.entries()) await field.type(i % 4 === 0 ? '8' : '5');
    await fields[0]!.type('x');
    await v.sees('“8x” isn’t a number.');
    await v.keys('Backspace');
    await fields[1]!.type(',250');
    await v.sees('“5,250” can be read as 5.250 or as 5250');
    await v.press('5.250');
    await v.press('Light map');
    await v.sees('The start sizes you typed would be lost.');
    await v.press('Stay');
    await v.press('Save the start sizes');
    await v.sees('The start sizes are saved.');
    await v.isAccessible();
    expect(v.complaints).toEqual([]);
  });
});
