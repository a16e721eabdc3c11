// From the empty bench to the seal, typed as a new user would, with products, label rates and prices: how many clicks.
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
beforeAll(async () => {
  browser = await launch();
});
afterAll(() => leave(browser));

/** A person at the page of a new trial; every click and every Enter counts, the words themselves don't. */
async function beginning(width = 1280, height = 800) {
  const v = await Visitor.arrive(browser, inject('ownUrl'), width, height);
  await v.open('/');
  let clicks = 0;
  const click = async (selector: string) => {
    clicks += 1;
    await v.page.locator(selector).click();
  };
  const press = (name: string) => click(`::-p-aria([name="${name}"][role="button"])`);
  await click('::-p-aria([name="Plan a trial"][role="link"])');
  await v.page.waitForSelector('input[name="each"]');
  const at = async (room: string) => {
    await v.open(`/trial/${new URL(v.page.url()).pathname.split('/')[2]}/${room}`);
    await v.page.waitForSelector('main:not([aria-busy])');
  };
  return {
    v,
    press,
    click,
    clicks: () => clicks,
    kind: async (name: string) => {
      clicks += 2;
      await v.choose('Kind of trial', name);
    },
    compared: async (...names: string[]) => {
      await click('::-p-aria([name="What is compared"][role="combobox"])');
      for (const name of names) {
        await v.page.keyboard.sendCharacter(name);
        await v.keys('Enter');
        clicks += 1;
      }
    },
    retype: async (label: string, text: string) => {
      clicks += 1;
      await v.retype(label, text);
    },
    fill: async (field: string, text: string) => {
      clicks += 1;
      await v.fill(field, text);
    },
    choose: async (label: string, option: string) => {
      clicks += 2;
      await v.choose(label, option);
    },
    /** so many days ago, so that its last day is here; no click of the plan's */
    begun: (days: number) => v.typeDay('Start', localDate(days)),
    sealed: async () => {
      clicks += 1;
      await v.fill('differencePercent', '10');
      await press('Seal it and start');
      await v.arrives(/\/rounds$/);
      await v.page.waitForSelector('.side h2');
    },
    planned: async () => {
      clicks += 1;
      await v.fill('differencePercent', '10');
      await press('Go on planning');
      await v.arrives(/\/contenders$/);
      await v.page.waitForSelector('.contender');
    },
    sealedInLayout: async () => {
      await click('::-p-aria([name="seal the plan in Layout"][role="link"])');
      await press('Seal the plan');
      await v.page.waitForSelector('[data-testid="seal-hash"]');
    },
    at,
    /** Each unit's values, pasted as a table; the finding's heading and the review's text then. */
    measured: async (room: string, valuesOf: (contender: string, nth: number) => readonly number[]) => {
      await at('layout');
      const units = await v.page.$$eval('[data-unit]', (all) =>
        all.map((e) => [e.getAttribute('data-unit')!, e.textContent]),
      );
      await at(room);
      if ((await v.page.viewport())!.width < 600) await v.press('More');
      await v.page.locator('::-p-xpath(//button[contains(., "Paste a")])').click();
      const lines = units.map(([code, text], i) => [code, ...valuesOf(text!, i)].join('; '));
      await v.page.locator('[role="dialog"] textarea').click();
      await v.page.keyboard.sendCharacter(lines.join('\n'));
      await v.page.locator('::-p-xpath(//*[@role="dialog"]//button[starts-with(., "Keep")])').click();
      await v.page.waitForSelector('[role="dialog"]', { hidden: true });
      await at('review');
      await v.page.waitForSelector('.paper h2');
      return v.text('.paper');
    },
  };
}

/** A day so long ago, as a date of this machine. */
function localDate(daysAgo: number): string {
  const day = new Date();
  day.setDate(day.getDate() - daysAgo);
  return [day.getFullYear(), day.getMonth() + 1, day.getDate()]
    .map((n) => String(n).padStart(2, '0'))
    .join('-');
}

describe('from the empty bench to the seal', () => {
  it('four trays of a three-part feed against water: within 30 clicks', async () => {
    const p = await beginning();
    await p.compared('Primo 12, 0.5 mL/L + Secondo 14, 1 mL/L + Terzo 9, 1 mL/L');
    await p.fill('each', '4');
    await p.fill('crop', 'cress');
    await p.fill('solution', '0.6');
    await p.fill('prediction', 'A third heavier.');
    await p.begun(14);
    await p.sealed();
    expect(p.clicks()).toBeLessThanOrEqual(10);
    await p.at('contenders');
    await p.v.sees('Primo + Secondo + Terzo');
    // 0.3 mL at 12.00, 0.6 mL at 14.00 and 0.6 mL at 9.00 a litre.
    await p.v.sees('$0.0174');
    const review = await p.measured('weigh-in', (who, i) => [
      (who.includes('Water') ? 30 : 40) + (i % 3) / 10,
    ]);
    expect(review).toContain('Which does best on cress: water or Primo + Secondo + Terzo?');
    expect(review).toContain('Primo + Secondo + Terzo beat Water');
    expect(review).toContain('8 trays of cress in two treatments, random, in complete blocks.');
    expect(review).toContain('10 % of the control is what matters');
    expect(review).toContain('$0.0174');
    await p.at('review?level=record');
    await p.v.sees('A third heavier.');
    expect(p.v.complaints).toEqual([]);
  });

  it('two lawn halves, one strewn: within 25 clicks; how much ground is asked', async () => {
    const p = await beginning(390, 844);
    await p.kind('Lawn amendment strips');
    await p.compared('Prato 25, 30 g/m²');
    await p.fill('each', '1');
    await p.press('Seal it and start');
    await p.v.sees('How much ground has each strip? Prato is given by the ground.');
    await p.fill('areaCm2', '20');
    await p.press('Seal it and start');
    await p.v.sees('20 of what? Write 20 m² or 20 sq ft.');
    await p.fill('areaCm2', '20 m²');
    await p.begun(56);
    await p.sealed();
    expect(p.clicks()).toBeLessThanOrEqual(13);
    await p.at('contenders');
    await p.v.sees('600 g to each strip');
    await p.v.sees('$15.00');
    const review = await p.measured('weigh-in', (who) => [who.includes('Prato') ? 900 : 700]);
    // One half each: what was weighed, and nothing more.
    expect(review).toContain('one unit each: numbers, no winner.');
    expect(review).toContain('$15.00');
    expect(review).not.toMatch(/beat|feed in a pack/);
    expect(p.v.complaints).toEqual([]);
  });

  it('eight supports, two kinds: within 20 clicks', async () => {
    const p = await beginning();
    await p.kind('Climbing supports and other accessories');
    await p.compared('Canna 3.50', 'Rete 7');
    await p.fill('each', '4');
    await p.fill('crop', 'pea');
    await p.begun(30);
    await p.sealed();
    expect(p.clicks()).toBeLessThanOrEqual(10);
    await p.at('contenders');
    await p.v.sees('$3.50');
    await p.v.sees('$7.00');
    await p.at('layout');
    await p.v.page.waitForSelector('[data-testid="seal-hash"]');
    expect(await p.v.page.$$('[data-unit]')).toHaveLength(8);
    await p.at('rounds');
    await p.v.press('day 30');
    await p.v.sees('Month 1 · largest leaf');
    const round = new URL(p.v.page.url()).search;
    // Each kind has values of its own that differ, and not in step, wherever chance put them.
    const values = { Rete: [12, 12.3, 12.1, 12.4], Canna: [9.2, 9, 9.4, 9.1] };
    const review = await p.measured(`rounds${round}`, (who) => [
      values[who.includes('Rete') ? 'Rete' : 'Canna'].shift()!,
    ]);
    expect(review).toContain('Which does best on pea: Canna or Rete?');
    expect(review).toContain('Rete beat Canna');
    expect(review).toContain('Equals were compared; none of them is a control.');
    expect(review).toContain('Canna $3.50');
    // Poles aren't fed, and none of them is water.
    expect(review).not.toMatch(/beat Water|than water|feed|dose|of the control/);
    expect(p.v.complaints).toEqual([]);
  });

  it('four feeds on five crops in machines: within 40 clicks', async () => {
    const p = await beginning();
    await p.kind('Several feeds, several crops in like machines');
    await p.compared('Uno 12, 2 mL/L', 'Due 9, 1 mL/L', 'Tre 7, 1 tsp/gal', 'Quattro 15, 1 g/L');
    await p.fill('each', '3');
    await p.fill('crop', 'cress, basil, dill, chives, parsley');
    await p.fill('solution', '4');
    await p.begun(16);
    await p.sealed();
    expect(p.clicks()).toBeLessThanOrEqual(13);
    await p.at('contenders');
    // 4 L with 2 mL/L at 12.00 a litre; 4 g at 15.00 a kilo.
    await p.v.sees('$0.0960');
    await p.v.sees('$0.0600');
    const base: Record<string, number> = { Water: 20, Uno: 30, Due: 24, Tre: 24, Quattro: 24 };
    const review = await p.measured('weigh-in', (who, i) => {
      const own = Object.entries(base).find(([name]) => who.includes(name))![1];
      return [0, 4, 8, 12, 16].map((crop) => own + crop + ((i * 7) % 5) / 10);
    });
    expect(review).toContain('15 machines of cress, basil, dill, chives, parsley in five treatments');
    expect(review).toContain('All four contenders beat Water; Uno came first.');
    expect(review).toContain('Five crops in one place, once');
    expect(review).not.toContain('above its label');
    expect(p.v.complaints).toEqual([]);
  });

  it('three feeds at three rates on palms, and water: within 35 clicks', async () => {
    const p = await beginning();
    await p.compared('Lento 18, 5 g/L', 'Verde 12, 2 mL/L', 'Mare 9, 4 mL/L');
    await p.fill('rates', '50, 100, 150');
    await p.fill('each', '3');
    await p.fill('unitNoun', 'pot');
    await p.fill('crop', 'palm');
    await p.fill('solution', '0.5');
    await p.begun(14);
    await p.sealed();
    expect(p.clicks()).toBeLessThanOrEqual(13);
    await p.at('contenders');
    await p.v.sees('Verde 150 %');
    // Half a litre with 4 mL/L at 9.00 a litre, half as strong: 1 mL.
    await p.v.sees('$0.00900');
    await p.at('layout');
    expect(await p.v.page.$$('[data-unit]')).toHaveLength(30);
    const review = await p.measured('weigh-in', (who, i) => [
      (who.includes('Verde') ? 40 : 25) + (i % 4) / 10,
    ]);
    expect(review).toContain('30 pots of palm in ten treatments, random, in complete blocks.');
    expect(review).toMatch(/Verde 50 %.*beat Water/);
    expect(p.v.complaints).toEqual([]);
  });

  it('two systems, three feeds in two stages: within 45 clicks; a tent each is a repeat each', async () => {
    const p = await beginning();
    await p.kind('Two growing systems (pump-aerated against still jar)');
    await p.compared('Pompa 189', 'Vaso 24');
    await p.click('::-p-aria([name="Feed that all get"][role="combobox"])');
    await p.v.page.keyboard.sendCharacter('Uno 12 + Due 9 + Terzo 8');
    await p.fill('crop', 'chilli');
    await p.choose('What gets its product on its own?', 'each tent: what stands in it gets it together');
    await p.v.sees('4 tents, 2 repeats of each.');
    await p.fill('inEach', '2');
    await p.fill('prediction', 'The pump wins.');
    await p.begun(112);
    await p.planned();
    await p.press('Open Pompa');
    await p.press('Feeding chart …');
    // Weeks are proposed; two stages are wanted.
    await p.press('Remove the last one');
    await p.press('Remove the last one');
    const cells: [string, string][] = [
      ['Name of column 1', 'leaves'],
      ['Name of column 2', 'fruit'],
      ['First day of column 2', '49'],
      ['Last day', '111'],
      ['Solution per plant and feed', '5'],
      ['Rate of line 1, column 1', '1 mL/L'],
      ['Rate of line 1, column 2', '1 mL/L'],
      ['Rate of line 2, column 1', '2 mL/L'],
      ['Rate of line 2, column 2', '1 mL/L'],
      ['Rate of line 3, column 1', '0.5 mL/L'],
      ['Rate of line 3, column 2', '2 mL/L'],
    ];
    for (const [cell, text] of cells) await p.retype(cell, text);
    await p.click('[role="dialog"] input[type="checkbox"]');
    await p.press('Use this chart');
    await p.press('Save the contenders');
    await p.v.sees('The contenders are saved.');
    await p.sealedInLayout();
    expect(p.clicks()).toBeLessThanOrEqual(42);
    await p.at('contenders');
    // Half a system each, and 16 feeds of 5 L: Due 1, 1 mL/L; Terzo 2, then 1; Uno 0.5, then 2.
    await p.v.sees('$97.43');
    await p.v.sees('$14.93');
    const review = await p.measured('weigh-in', (who, i) => [(who.includes('Pompa') ? 60 : 30) + i]);
    expect(review).toContain('Pompa beat Vaso');
    expect(review).toContain(
      '8 plants of chilli in two treatments, given out to 4 tents, which are the repeats',
    );
    expect(review).toContain('Pompa $97.43 and Vaso $14.93');
    expect(p.v.complaints).toEqual([]);
  });

  it('a name without a label’s rate asks for it where the contender stands: one press, one figure', async () => {
    const p = await beginning();
    await p.compared('Uno 12 + Due 9', 'Terzo 8');
    await p.fill('crop', 'dill');
    await p.fill('prediction', 'None.');
    await p.planned();
    await p.press('Uno and Due: how much?');
    for (const i of [0, 1]) {
      await p.fill(`treatments.1.products.${i}.amount`, '2');
      await p.fill(`treatments.1.products.${i}.solutionLPerUnit`, '0.5');
    }
    await p.press('Terzo: how much?');
    // In the same water, on the same days as the others.
    expect(await p.v.valueOf('treatments.2.products.0.solutionLPerUnit')).toBe('0.5');
    await p.fill('treatments.2.products.0.amount', '4');
    await p.press('Save the contenders');
    await p.v.sees('The contenders are saved.');
    // 0.5 L with 2 mL/L each of 12.00 and 9.00 a litre.
    await p.v.sees('$0.0210');
    await p.v.sees('Nothing is missing');
    expect(p.clicks()).toBeLessThanOrEqual(18);
    expect(p.v.complaints).toEqual([]);
  });
});
