import type { Browser } from 'puppeteer-core';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

let browser: Browser;
beforeAll(async () => {
  browser = await launch();
});
afterAll(() => leave(browser));

/** All text of a PDF, page by page. */
async function pdfText(bytes: Buffer): Promise<string[]> {
  const document = await getDocument({ data: new Uint8Array(bytes), useSystemFonts: true }).promise;
  return Promise.all(
    Array.from({ length: document.numPages }, async (_, i) => {
      const content = await (await document.getPage(i + 1)).getTextContent();
      return content.items.map((item) => ('str' in item ? item.str : '')).join(' ');
    }),
  );
}

describe('a fair plan, from empty to sealed', () => {
  let v: Visitor;
  let trial = '';
  beforeAll(async () => {
    v = await Visitor.arrive(browser, inject('ownUrl'));
  });
  const errors = () => expect(v.complaints).toEqual([]);

  it('begins with a protocol that fills the question', async () => {
    await v.open('/trials/new');
    await v.fill('question', 'Do three inoculants beat nothing on sage?');
    await v.fill('code', 'SAG');
    await v.choose('Kind of trial', 'Root inoculants, blind');
    expect(await v.valueOf('unitNoun')).toBe('pot');
    await v.press('Go on planning');
    await v.sees('What is measured');
    await v.press('Open Roots');
    expect(await v.valueOf('traits.2.scale')).toContain('5 white, dense, filling the space');
    trial = new URL(v.page.url()).pathname.replace('/question', '');
    await v.fill('prediction', 'None of the three.');
    await v.fill('smallestDifference.value', '20');
    await v.fill('scorer', 'Marta');
    await v.press('Save the question');
    await v.sees('The question is saved.');
  });

  it('names four contenders, with what is the same for all', async () => {
    await v.open(`${trial}/contenders`);
    await v.press('Add an untreated control');
    for (let i = 1; i <= 3; i++) {
      await v.press('Add a contender');
      await v.fill(`treatments.${i}.name`, `Inoculant ${i}`);
    }
    await v.fillLabelled('Light of Water', 'window');
    await v.fillLabelled('Light of Inoculant 1', 'lamp');
    await v.sees('Light differs');
    await v.press('Light: copy to all');
    await v.page.waitForSelector('.same .differs', { hidden: true });
    await v.fillLabelled('Medium of Water', 'peat-free compost');
    await v.sees('wear a mask');
    await v.press('Save the contenders');
    await v.sees('The contenders are saved.');
    await v.isAccessible();
  });

  it('makes the place, blocks a corner, and refuses a square that has no room', async () => {
    await v.open(`${trial}/layout?view=places`);
    await v.fill('areas.0.rows', '4');
    await v.fill('areas.0.columns', '5');
    await v.fill('areas.0.widthCm', '150');
    await v.fill('areas.0.depthCm', '100');
    await v.fill('unitWidthCm', '20');
    await v.fill('unitDepthCm', '20');
    await v.choose('Shape from above', 'round');
    await v.fill('spares', '3');
    await v.press('Save the areas');
    await v.sees('The areas are saved.');
    // In inches a bare figure is inches, and what was centimetres stays as it was typed.
    await v.choose('Sizes are in', 'in, ft, oz, gal');
    await v.fill('areas.0.widthCm', '60');
    await v.press('Save the areas');
    await v.sees('5 ft × 100 cm');
    await v.page.waitForFunction(
      () =>
        [...document.querySelectorAll<HTMLInputElement>('[name="areas.0.widthCm"], [name="areas.0.depthCm"]')]
          .map((e) => e.value)
          .join() === '5 ft,100 cm',
    );
    await v.press('Free: row 1, position 1; press to block');
    await v.sees('Blocked.');
    await v.press('Arrange');
    await v.choose('Design', 'Latin square');
    await v.fill('replicates', '3');
    await v.press('Randomise');
    await v.sees('takes 4 units of each, or a multiple; not 3');
    await v.fill('replicates', '4');
    await v.press('Randomise');
    await v.sees('16 pots seen from above');
    // the blocked corner pushes the square to the right
    expect(await v.page.$('[data-position$="/0/0"] .tile')).toBeNull();
    for (let i = 0; i < 4; i++) {
      const line = (axis: 'row' | 'column') =>
        v.page.$$eval(
          '[data-position]',
          (cells, a, n) =>
            cells
              .filter((c) => c.getAttribute('data-position')!.split('/')[a === 'row' ? 1 : 2] === String(n))
              .flatMap((c) => c.querySelector('.tile-letter')?.textContent ?? [])
              .sort()
              .join(''),
          axis,
          axis === 'row' ? i : i + 1,
        );
      expect(await line('row')).toBe('ABCD');
      expect(await line('column')).toBe('ABCD');
    }
  });

  it('reads the light, by meter and pasted, and deals until it is shared fairly', async () => {
    const layout = await v.page.evaluate(() => location.pathname);
    await v.letIn('Simulated light meter');
    await v.open(layout);
    await v.press('Light map');
    await v.press('Read with the meter');
    await v.sees('What each contender gets');
    await v.page.waitForFunction(() =>
      [...document.querySelectorAll<HTMLInputElement>('.reading-place input')].every((i) => i.value !== ''),
    );
    await v.retype('Or paste a table', '1 2 3');
    await v.press('Put it on the plan');
    await v.sees('Line 1: 3 figures, but Bench has 5 columns.');
    const rows = Array.from({ length: 4 }, (_, r) =>
      Array.from({ length: 5 }, (_, c) => 300 - 30 * c - 10 * r).join(';'),
    );
    await v.retype('Or paste a table', rows.join('\n'));
    await v.press('Put it on the plan');
    await v.retype('Reading at row 2, position 2', 'bright');
    await v.press('Keep the readings');
    await v.sees('Row 2, position 2: “bright” isn’t a number.');
    // At once, while they are still on their way to be refused.
    await v.press('Turns');
    await v.sees('The readings you typed would be lost.');
    await v.press('Stay');
    await v.retype('Reading at row 2, position 2', '261,5');
    await v.press('Keep the readings');
    // What is being kept isn't asked about: one goes on when it is.
    await v.press('Turns');
    await v.sees('Units go round');
    await v.press('Light map');
    await v.sees('Keep the readings');
    const reading = '::-p-aria([name="Reading at row 2, position 2"][role="textbox"])';
    expect(await v.page.$eval(reading, (e) => (e as HTMLInputElement).value)).toBe('261.5');
    await v.press('Randomise in balance');
    await v.sees(/2000 layouts drawn/);
    await v.sees('fair enough');
  });

  it('rotates, and prints the card', async () => {
    await v.press('Turns');
    await v.choose('Units go round', 'over all positions');
    await v.press('Light map');
    await v.sees('What you typed here would be lost.');
    await v.press('Stay');
    await v.fill('everyDays', '7');
    await v.press('Plan the rotation');
    await v.sees('7 turns until day 56');
    await v.pressLink('The card to print');
    await v.sees('Who moves where');
    await v.sees('SAG-16');
    await v.open(`${trial}/layout?view=turns`);
    await v.choose('Units go round', 'not at all');
    await v.press('Light map');
    await v.sees('What you typed here would be lost.');
    await v.press('Stay');
    await v.press('Plan the rotation');
    await v.sees('Units stay where they stand.');
  });

  it('is blind from now on, and the audit says what is left', async () => {
    await v.press('Arrange');
    await v.choose('Blinding', 'the scorer sees codes');
    await v.sees('Code A');
    await v.sees('findings of the fairness audit are neither cured nor accepted');
    await v.open(`${trial}/fairness`);
    await v.sees('Too few repeats to judge the spread');
    await v.sees('Labels aren’t printed');
    const more = await v.page.$('[data-rule="few-degrees"] ::-p-aria([name="Accept …"])');
    await more!.click();
    await v.press('Accept it');
    await v.sees('Say why in a few words.');
    await v.fillLabelled('Why it stays so; the review prints this', 'The bench holds no more.');
    await v.press('Accept it');
    await v.sees('Accepted, and said in the review');
  });

  it('saves blind labels as a PDF with every code and no name', async () => {
    await v.open(`${trial}/labels`);
    await v.sees('16 labels');
    await v.retype('Down', '99');
    await v.sees('1 to 16');
    await v.retype('Down', '5');
    await v.sees('16 labels of 64 × 51 mm on 2 sheets');
    await v.press('Save as PDF');
    const pages = await pdfText(await v.downloaded('.pdf'));
    expect(pages).toHaveLength(2);
    const text = pages.join(' ');
    for (let i = 1; i <= 16; i++) expect(text).toContain(`SAG-${String(i).padStart(2, '0')}`);
    expect(text).not.toMatch(/Inoculant|Water/);
    await v.sees('the labels are printed');
    await v.isAccessible();
    errors();
  });

  it('seals', async () => {
    await v.open(`${trial}/layout`);
    await v.sees('Seal the plan');
    // all is cured or accepted by now
    expect(await v.page.evaluate(() => document.body.innerText)).not.toContain('neither cured');
    await v.press('Seal the plan');
    expect(await v.text('[data-testid="seal-hash"]')).toMatch(/^[0-9a-f]{64}$/);
    await v.open(`${trial}/rounds`);
    await v.sees('Code D');
    expect(await v.page.evaluate(() => document.body.innerText)).not.toMatch(/Inoculant [123]/);
    errors();
  });
});

/** Somebody who looks around in the demo, from one trial to the next. */
let demo: Visitor;
beforeAll(async () => {
  demo = await Visitor.arrive(browser, inject('demoUrl'));
});

describe('the planning demo, with faults to find', () => {
  it('cures findings by their buttons, and takes a cure back', async () => {
    const v = demo;
    await v.open('/trial/demo-trial-rad/fairness');
    const gone = (rule: string) => v.page.waitForSelector(`[data-rule="${rule}"]`, { hidden: true });
    const cure = async (rule: string, label: string) => {
      await v.page.waitForSelector(`[data-rule="${rule}"]`);
      await v.press(label);
      await gone(rule);
    };
    await v.sees('Light: Water 508, Duo Lume 468');
    await cure('two-questions', 'Move the second to the side');
    await v.sees('Does an algae additive make rounder radishes? · being planned');
    await cure('additive-without-base', 'Add the base alone');
    await v.press('Undo');
    await v.page.waitForSelector('[data-rule="additive-without-base"]');
    await cure('different-plants', 'All like Water');
    await cure('scorer-not-blind', 'Score by codes');
    await cure('no-smallest-difference', 'Take 10 % of the control');
    // laying out in blocks answers for the hand, the columns and the edge
    const lines = await v.page.$('[data-rule="whole-lines"] ::-p-aria([name="Randomise in blocks"])');
    await lines!.click();
    await gone('whole-lines');
    await gone('not-randomised');
    await gone('edges');
    expect(v.complaints).toEqual([]);
  });
});

describe('a blind trial', () => {
  it('takes scores by their steps', async () => {
    const v = demo;
    await v.open('/trial/demo-trial-fag/rounds');
    await v.page.locator('[data-unit="FAG-02"]').click();
    await v.enter('9');
    await v.sees('The scale goes from 1 to 5');
    await v.keys('Escape');
    await v.press('5 white, dense, filling the space');
    await v.keys('Enter');
    await v.sees('This replaces');
    await v.keys('Enter');
    await v.tileSays('FAG-02', /5\.0/);
    await v.retype('Label', '99');
    await v.keys('Enter');
    await v.sees('No label says “99”.');
    await v.retype('Label', 'fag-13');
    await v.keys('Enter');
    await v.sees('Pot 13 FAG-13');
    expect(v.complaints).toEqual([]);
  });
  it('shows findings by code, and names only after the codes are opened', async () => {
    const v = demo;
    await v.open('/trial/demo-trial-fag/findings');
    await v.sees('By code: ');
    await v.sees('Code A');
    expect(await v.page.evaluate(() => document.body.innerText)).not.toMatch(/Mosto|Palestra|Untreated/);
    await v.open('/trial/demo-trial-fag/verdict');
    await v.sees('its codes are closed');
    await v.open('/trial/demo-trial-fag/card');
    await v.sees('Only for the helper');
    await v.press('I am the helper: show it');
    await v.sees('5 mL Palestra Liquida');
    await v.open('/trial/demo-trial-fag/layout');
    await v.press('Open the codes');
    await v.sees('can’t be taken back');
    await v.press('Open the codes now');
    await v.sees('The codes are open');
    await v.sees('Mosto Alga');
    await v.pressLink('Verdict');
    await v.sees('Palestra Liquida');
    await v.sees('Takes the money');
    await v.open('/trial/demo-trial-fag/review');
    await v.sees(/codes were opened on \d{4}-/);
    expect(v.complaints).toEqual([]);
  });
});

describe('a rehearsal', () => {
  it('is kept when somebody says so, and asked for again when the plan changed', async () => {
    const v = demo;
    const done = () =>
      v.page.$eval('.room-nav a[href$="/rehearsal"] .step', (e) => e.className.replace('step ', ''));
    await v.open('/trial/demo-trial-rad/rehearsal');
    expect(await done()).toBe('none');
    await v.retype('Runs', '400');
    await v.press('Rehearse 400 times');
    await v.press('Keep this rehearsal');
    await v.sees('The rehearsal is kept');
    await v.page.waitForSelector('.room-nav a[href$="/rehearsal"] .step.full');
    expect(await v.page.$('::-p-aria([name="Keep this rehearsal"])')).toBeNull();
    await v.reload();
    await v.sees(/Rehearsed on .*400 runs at a spread of/);
    await v.open('/trial/demo-trial-rad/contenders');
    await v.press('Open Palestra + Mosto Alga');
    await v.fill('treatments.2.expectedPercent', '31');
    await v.press('Save the contenders');
    await v.sees('The contenders are saved.');
    expect(await done()).toBe('half');
    await v.open('/trial/demo-trial-rad/rehearsal');
    await v.sees('The plan has changed since.');
    // Under a seal nothing more is kept: it would not be “before it began”.
    await v.open('/trial/demo-trial-cor/rehearsal');
    await v.sees('5,000 runs at a spread of 7 %');
    await v.retype('Runs', '400');
    await v.press('Rehearse 400 times');
    await v.sees('400 runs, each judged');
    expect(await v.page.$('::-p-aria([name="Keep this rehearsal"])')).toBeNull();
  });
  it('runs, can be stopped half-way, and gives what was done so far', async () => {
    const v = demo;
    await v.open('/trial/demo-trial-par/rehearsal');
    await v.retype('Runs', 'many');
    await v.press('Rehearse');
    await v.sees('aren’t numbers in range');
    await v.retype('Runs', '300000');
    await v.page.locator('xpath///button[starts-with(., "Rehearse 300")]').click();
    await v.sees(/[1-9]\d* of 300000/);
    await v.press('Stop here');
    await v.sees('Stopped by hand');
    const said = await v.text('[data-testid="rehearsal-report"]');
    const done = Number(/([\d,]+) runs, each judged/.exec(said)![1]!.replaceAll(',', ''));
    expect(done).toBeGreaterThan(0);
    expect(done).toBeLessThan(300_000);
    await v.retype('Runs', '2000');
    await v.press('Rehearse again');
    await v.sees('2,000 runs, each judged');
    await v.sees('the right winner is named in');
    await v.isAccessible();
    // how many: a smaller difference takes more of each
    const needed = async () => Number(/Needed of each\s+(\d+)/.exec(await v.text('.sizes'))![1]);
    const before = await needed();
    await v.retype('Difference that matters', '4');
    await v.page.waitForFunction(
      (n) =>
        Number(
          /Needed of each\s+(\d+)/.exec((document.querySelector('.sizes') as HTMLElement).innerText)?.[1],
        ) > n,
      {},
      before,
    );
    expect(v.complaints).toEqual([]);
  });
});

describe('the places of another trial', () => {
  it('are taken over into a new one, with their grid and size', async () => {
    const v = demo;
    await v.open('/trials/new');
    await v.choose('Kind of trial', 'none of these: traits and rounds by hand');
    await v.fill('question', 'The same shelf once more?');
    await v.fill('code', 'AGN');
    await v.press('Go on planning');
    await v.sees('What is measured');
    const trial = new URL(v.page.url()).pathname.replace('/question', '');
    await v.open(`${trial}/layout?view=places`);
    await v.choose('As in another trial', 'Level 1 and Level 2 – Which feed brings parsley on fastest?');
    await v.page.waitForSelector('[name="areas.1.name"]');
    expect([await v.valueOf('areas.1.name'), await v.valueOf('areas.1.widthCm')]).toEqual(['Level 2', '150']);
    await v.press('Save the areas');
    await v.sees(/saved/i);
    await v.reload();
    await v.page.waitForSelector('[name="areas.1.name"]');
    expect(await v.valueOf('areas.1.columns')).toBe('5');
    // What it was taken from stays as it is.
    await v.open('/trial/demo-trial-cor/layout?view=places');
    await v.sees('Level 2');
    expect(v.complaints).toEqual([]);
  });
});
