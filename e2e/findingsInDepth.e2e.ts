// Findings in depth: two species and three dips in pots of five, machines with five crops, weekly heights with a change
// of lead, equal values that crown nobody, and the R script in the zip that says what the screen says.
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { exportTrial } from '~core/formats/dataPackage';
import type { Entry } from '~core/log/entry';
import type { ProductId, RoundId, TraitId, TrialId } from '~core/model/ids';
import { Plan } from '~core/model/plan';
import { planSha256 } from '~core/plan/seal';
import { startR } from '~core/testing/r';
import {
  entry,
  height,
  heightTrait,
  plan,
  product,
  trait,
  trialOf,
  unitId,
  use,
  weighing,
} from '~core/testing/trial';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
let v: Visitor;
beforeAll(async () => {
  browser = await launch();
  v = await Visitor.arrive(browser, inject('ownUrl'));
});
afterAll(() => leave(browser));

const folder = mkdtempSync(join(tmpdir(), 'palazzo-'));
/** A trial with its log on the bench. */
async function onTheBench(made: Plan, log: Entry[]) {
  const planned = Plan.parse(made);
  const zip = join(folder, `${planned.id}.zip`);
  const seal = entry({ kind: 'seal', planSha256: planSha256(planned) }, `seal-${planned.id}`, 1);
  writeFileSync(zip, exportTrial(trialOf(planned, [seal, ...log])));
  await v.open('/data');
  await v.upload('trial-file', zip);
  await v.sees(planned.question);
  return zip;
}
const finding = async (id: string, query = '') => {
  await v.open(`/trial/${id}/findings${query}`);
  await v.page.waitForSelector('.room-head h1');
};
const heading = () => v.text('h1');

const rooted = trait({
  ...{
    id: 'rooted' as TraitId,
    name: 'Rooted',
    kind: 'ratio',
    unit: '%',
    outOf: 5,
    decimals: 0,
    summary: 'last',
  },
});
const dips = ['none', 'Radix', 'Sala'];
const species = ['sage', 'fig'];

describe('two species and three dips, pots of five', () => {
  it('k/n everywhere, each dip against its own species without one, and one sentence on the interaction', async () => {
    const names = species.flatMap((s) => dips.map((d) => `${s} · ${d}`));
    const base = plan({ treatments: names, replicates: 6, traits: [rooted] });
    const dipPlan: Plan = {
      ...base,
      ...{ id: 'dips' as TrialId, question: 'Does a dip help?', unitNoun: 'pot', smallestDifference: null },
      factors: [
        { name: 'Species', levels: species },
        { name: 'Dip', levels: dips },
      ],
      products: [product()],
      treatments: base.treatments.map((t, i) => ({
        ...t,
        role: i % 3 === 0 ? 'untreated' : 'test',
        levels: { Species: species[Math.floor(i / 3)]!, Dip: dips[i % 3]! },
        products: i % 3 === 0 ? [] : [use({ productId: 'feed' as ProductId })],
      })),
    };
    // Radix helps sage alone; figs root as badly with as without.
    const roots = [
      [1, 0, 1, 2, 1, 0],
      [5, 4, 5, 5, 4, 5],
      [1, 2, 1, 1, 0, 2],
      [1, 1, 0, 1, 2, 1],
      [1, 0, 1, 2, 1, 1],
      [0, 1, 1, 2, 1, 0],
    ];
    const log = names.flatMap((n, t) =>
      roots[t]!.map((value, i) =>
        entry({
          kind: 'measurement',
          unitId: unitId(n, i),
          traitId: rooted.id,
          roundId: 'r2',
          sample: null,
          value,
        }),
      ),
    );
    await onTheBench(dipPlan, log);
    await finding('dips');
    await v.sees('28/30');
    await v.sees('5/30');
    expect(await heading()).toBe('Sage · Radix beat sage · none.');
    await v.press('Factors and crops');
    await v.sees(/What Dip does depends on Species \(p < 0\.001\)/);
    await v.isAccessible();
    await v.open('/trial/dips/review?level=record');
    await v.sees('28/30');
  });
});

describe('four machines with five crops', () => {
  it('machines are tested against machines, and the table has a cell for each crop', async () => {
    const crops = ['basil', 'mint', 'pak choi', 'lettuce', 'dill'];
    const base = plan({ treatments: ['Old', 'New'], replicates: 2 });
    const machines: Plan = {
      ...base,
      ...{ id: 'machines' as TrialId, question: 'Which machine?', unitNoun: 'machine', cropsWithin: crops },
    };
    const log = machines.treatments.flatMap((t, i) =>
      [0, 1].flatMap((r) =>
        crops.map((_, c) =>
          entry(
            weighing(
              unitId(t.name, r),
              30 + 8 * c + 9 * i * (c === 4 ? -1 : 1) + r + ((c * 7 + r * 2 + i) % 3),
              { sample: c + 1 },
            ),
          ),
        ),
      ),
    );
    await onTheBench(machines, log);
    await finding('machines', '?view=factors');
    await v.sees(/The contenders don’t rank alike on every crop/);
    const cells = await v.page.$$eval('table.ledger thead th', (all) => all.map((e) => e.textContent!));
    for (const crop of crops) expect(cells).toContain(crop);
  });
});

describe('weekly heights', () => {
  it('who led when is said, and an early leader isn’t called the winner', async () => {
    const tall = heightTrait({ id: 'height' as TraitId });
    const weekly: Plan = {
      ...plan({ treatments: ['Bosco', 'Prato'], replicates: 4, traits: [tall] }),
      ...{ id: 'weekly' as TrialId, question: 'Which grows on?', unitNoun: 'pot' },
      rounds: [5, 12, 19].map((day, i) => ({
        id: `w${i}` as RoundId,
        name: `Week ${i + 1}`,
        day,
        traitIds: [tall.id],
      })),
    };
    const grown = { Bosco: [5, 9, 12], Prato: [4, 8.5, 17] };
    const log = Object.entries(grown).flatMap(([t, heights]) =>
      [-0.3, -0.1, 0.1, 0.4].flatMap((e, r) =>
        heights.map((h, w) => entry(height(unitId(t, r), Number((h + e).toFixed(1)), `w${w}`))),
      ),
    );
    await onTheBench(weekly, log);
    await finding('weekly', '?view=time');
    await v.sees(/On day 5 Bosco led; on day 12 Bosco led; at the end Prato leads\./);
    await v.sees(/An early leader isn’t the winner/);
    await v.sees(/whoever stops at the first clear difference/);
    await v.press('Picture (SVG)');
    const svg = (await v.downloaded('.svg')).toString();
    expect(svg).toContain('<svg');
    expect(svg).not.toContain('var(--');
    expect(svg).toContain('@font-face');
  });
});

describe('equal values', () => {
  it('crown nobody, on no screen', async () => {
    const level: Plan = { ...plan({ replicates: 4 }), id: 'level' as TrialId, question: 'All alike?' };
    const log = level.treatments.flatMap((t) =>
      [0, 1, 2, 3].map((r) => entry(weighing(unitId(t.name, r), 50))),
    );
    await onTheBench(level, log);
    await finding('level');
    expect(await heading()).toBe('No spread was seen: numbers, no winner.');
    await v.open('/trial/level/verdict');
    await v.sees(/No spread was seen/);
    expect(await v.page.evaluate(() => document.body.innerText)).not.toMatch(/\bbeat\b|came first/);
  });
});

describe('the R script', () => {
  it('is in the exported zip, and R says what the screen says; its lines can be copied', async () => {
    const clear: Plan = { ...plan({ replicates: 5 }), id: 'clear' as TrialId, question: 'In R too?' };
    const values = { Water: [50, 52.5, 49, 51, 48], A: [60, 61.5, 58, 63, 59] };
    const log = Object.entries(values).flatMap(([t, list]) =>
      list.map((g, r) => entry(weighing(unitId(t, r), g))),
    );
    await onTheBench(clear, log);
    await v.open('/data');
    await finding('clear');
    expect(await heading()).toBe('A beat Water.');
    const shown = await v.page.$eval('.findings-grid table.ledger', (e) => (e as HTMLElement).innerText);
    const zip = unzipSync(readFileSync(join(folder, 'clear.zip')));
    const r = await startR();
    await r.write('/home/web_user/zip/data/finding_values.csv', zip['data/finding_values.csv']!);
    const text = strFromU8(zip['findings.R']!);
    await r.numbers(`setwd("/home/web_user/zip"); capture.output({${text}\n}); 0`);
    const [difference, low, high] = await r.numbers('c(result$difference[1], result$low[1], result$high[1])');
    expect(difference).toBeCloseTo(10.2, 9);
    // The screen shows per cent of Water's 50.1.
    expect(shown).toContain(`+${Math.round((100 * difference!) / 50.1)}`);
    expect(low! > 0 && high! > low!).toBe(true);
    await v.press('How this was worked out');
    await v.sees('The same in R');
    expect(await v.text('pre.r-lines')).toContain('linear <- function');
    await v.isAccessible();
  });
});
