// A trial that began before its plan was sealed here: what became of those days is asked once, and can be asked again.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, expect, inject, it } from 'vitest';
import { exportTrial } from '~core/formats/dataPackage';
import type { TrialId } from '~core/model/ids';
import { Plan } from '~core/model/plan';
import { PlannedTask } from '~core/model/task';
import { planSha256 } from '~core/plan/seal';
import { entry, heightTrait, plan, trialOf } from '~core/testing/trial';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
let v: Visitor;
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('ownUrl'));
});
afterAll(() => leave(browser));

const daysAgo = (n: number) => new Date(Date.now() - n * 86_400_000).toISOString().slice(0, 10);
const water = PlannedTask.parse({
  ...{ key: 'water', what: 'Water them', why: '', atHand: '', caution: '', minutes: 5, after: null, day: 1 },
  ...{ everyDays: 1, untilDay: null, at: null },
});

it('asks once, ticks off on the days it was planned for, and takes the answer back', async () => {
  const base = plan({ treatments: ['Water', 'A'], replicates: 2, traits: [heightTrait()] });
  const planned = Plan.parse({
    ...{
      ...base,
      id: 'begun' as TrialId,
      question: 'Begun long ago?',
      startDate: daysAgo(8),
      tasks: [water],
    },
  });
  const seal = entry({ kind: 'seal', planSha256: planSha256(planned) }, 'seal-begun');
  const now = { at: new Date().toISOString(), offsetMin: 0 };
  const path = join(v.downloads, 'begun.zip');
  writeFileSync(path, exportTrial(trialOf(planned, [{ ...seal, ...now }])));
  await v.open('/data');
  await v.upload('trial-file', path);
  await v.sees('Begun long ago?');
  await v.open('/');
  await v.sees(/Begun long ago\? began before its plan was sealed here: 8 tasks from/);
  await v.isAccessible();
  await v.press('All done as planned');
  await v.sees('First: height');
  await v.gone('began before its plan was sealed here');
  await v.open('/trial/begun/log');
  await v.sees('all as planned');
  await v.sees('Water them, day 7');
  await v.open('/trial/begun/rounds?view=tasks');
  await v.press('Ask again');
  await v.gone('Said of the days before the seal');
  await v.open('/');
  await v.press('Not done');
  await v.gone('began before its plan was sealed here');
  await v.sees('one task');
  await v.open('/trial/begun/rounds?round=r1');
  await v.sees('Nothing more comes of it: not done: it lay before the plan was sealed');
  expect(v.complaints).toEqual([]);
});
