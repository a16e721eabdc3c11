// The last value of a round: whoever notices a slip in it still stands at that round, not at one that comes weeks later.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import dayjs from 'dayjs';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect, inject, it } from 'vitest';
import { exportTrial } from '~core/formats/dataPackage';
import { Plan } from '~core/model/plan';
import { planSha256 } from '~core/plan/seal';
import type { TraitId, TrialId } from '~core/model/ids';
import { entry, heightTrait, plan, trait, trialOf } from '~core/testing/trial';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

const daysAgo = (days: number) => dayjs().subtract(days, 'day').format('YYYY-MM-DD');

/** Brings a sealed trial to the bench, by its file. */
async function takeIn(what: Plan): Promise<void> {
  const its = Plan.parse(what);
  const zip = join(mkdtempSync(join(tmpdir(), 'palazzo-')), 'two.zip');
  writeFileSync(zip, exportTrial(trialOf(its, [entry({ kind: 'seal', planSha256: planSha256(its) })])));
  await v.open('/data');
  await v.upload('trial-file', zip);
  await v.sees('is on the bench');
}

let browser: Browser;
let v: Visitor;
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('ownUrl'), 390, 844);
  // Two trays: heights on day 3, which is today, heights and weights on day 10.
  await takeIn({ ...plan({ replicates: 1 }), startDate: daysAgo(3) });
});
afterAll(() => leave(browser));

it('leaves the walk at its round, where it is corrected', async () => {
  await v.open('/trial/trial/rounds');
  await v.sees('First · height');
  await v.enter('5.1');
  await v.tileSays('TST-01', /5\.1/);
  await v.enter('5.2');
  await v.tileSays('TST-02', /5\.2/);
  await v.sees('Height: written down of all 2 trays in this round.');
  expect(await v.text('h1')).toBe('First · height');
  await v.press('Back to the one before');
  await v.enter('5.4');
  await v.sees(/This replaces 5\.[12] cm, kept in this round\./);
  await v.keys('Enter');
  await v.sees('Corrected; the old value stays in the log.');
  expect(await v.text('h1')).toBe('First · height');
});

it('weighed before its day, the harvest stays in hand when the last weight is taken', async () => {
  await v.open('/trial/trial/weigh-in');
  await v.sees(/Nothing is weighed before .*, in 7 days\./);
  await v.press('Weigh today all the same, or containers');
  await v.sees('Tray 1');
  await v.enter('31');
  await v.sees('7 days from now');
  await v.keys('Enter');
  await v.tileSays('TST-01', /31\.0/);
  await v.enter('33');
  await v.tileSays('TST-02', /33\.0/);
  await v.press('Back to the one before');
  await v.enter('34');
  await v.sees(/This replaces 3[13]\.0 g, kept in this round\./);
  // It was the second load of a harvest too large for the pan.
  await v.press('Another load: add it, 67.0 g net together');
  await v.sees('Added; each load stays in the log.');
  await v.tileSays('TST-02', /67\.0/);
  // Nothing was put right by it: no value is struck out, on the tile neither.
  expect(await v.page.$('.was')).toBeNull();
  expect(v.complaints).toEqual([]);
});

it('what is open next is proposed by its name, never put under the hand', async () => {
  const { role: _, ...leaves } = { ...heightTrait(), id: 'leaves' as TraitId, name: 'Leaves' };
  const flowers = {
    ...leaves,
    id: 'flowers' as TraitId,
    name: 'In flower',
    kind: 'yesno',
    unit: '',
  } as const;
  const late = plan({ replicates: 1, traits: [trait(), heightTrait(), leaves, flowers] });
  await takeIn({ ...late, id: 'late' as TrialId, code: 'LAT', startDate: daysAgo(20) });
  await v.open('/trial/late/rounds');
  await v.sees('First · height');
  await v.enter('5.1');
  await v.enter('5.2');
  await v.sees('Height: written down of all 2 trays in this round.');
  // An empty Enter goes to the next trait, whose name stands on the button and on the pad.
  await v.sees('Next: Leaves');
  await v.keys('Enter');
  await v.sees('First · leaves');
  await v.enter('7');
  await v.enter('8');
  await v.sees('Leaves: written down of all 2 trays in this round.');
  await v.sees('Next: In flower');
  await v.keys('Enter');
  await v.sees('First · in flower');
  await v.enter('1');
  await v.enter('0');
  await v.sees('In flower: written down of all 2 trays in this round, 1 yes and 1 no.');
  // The harvest has been due for ten days: it waits until it is asked for.
  expect(await v.text('h1')).toBe('First · in flower');
  await v.keys('Enter');
  expect(await v.text('h1')).toBe('First · in flower');
  await v.press('Next: Harvest');
  await v.sees('Harvest · height');
  expect(v.complaints).toEqual([]);
});
