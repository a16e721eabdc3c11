import { createHash } from 'node:crypto';
import { strFromU8, unzipSync } from 'fflate';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { canonicalJson } from '~core/plan/seal';
import { launch, leave } from './browser';
import { Visitor } from './visitor';

/** One trial from the empty own bench through every room to its file, and back in on a fresh profile. */
describe('a trial of one’s own, end to end', () => {
  let browser: Browser;
  let v: Visitor;
  let hash = '';
  let findingSentence = '';

  beforeAll(async () => {
    browser = await launch();
    v = await Visitor.arrive(browser, inject('ownUrl'));
  });
  afterAll(() => leave(browser));

  it('starts on an empty bench', async () => {
    await v.open('/');
    await v.sees('An empty bench');
    await v.isAccessible();
  });

  it('puts products into the library; bad input is said at the field and nothing is lost', async () => {
    await v.open('/library/new');
    await v.press('Add a pack');
    await v.press('Add a claim');
    await v.fill('maker', 'Casa Prova');
    await v.fill('packs.0.size', 'half');
    await v.fill('analysis.nPercent', '12');
    await v.press('Put it in the library');
    await v.sees('Give the product a name.');
    await v.sees('“half” isn’t a number.');
    await v.sees('What did it cost?');
    await v.sees('Write the claim as the label has it.');
    expect(await v.valueOf('maker')).toBe('Casa Prova');
    expect(await v.valueOf('packs.0.size')).toBe('half');
    await v.isAccessible();

    await v.fill('name', 'Prova Uno');
    await v.fill('packs.0.size', '500');
    await v.fill('packs.0.price', '12,50 €');
    // A liquid is sold by volume, as a rule.
    expect(await v.valueOf('packs.0.unit')).toBe('mL');
    await v.choose('Unit', 'g');
    // The browser's region says dollars; the sign at the price says otherwise, and goes to its own field.
    expect(await v.valueOf('packs.0.currency')).toBe('EUR');
    expect(await v.valueOf('packs.0.price')).toBe('12.5');
    await v.fill('claims.0.text', 'A quarter more leaf');
    await v.press('Put it in the library');
    await v.sees('Give all three of N, P₂O₅ and K₂O');
    await v.fill('analysis.p2o5Percent', '6');
    await v.fill('analysis.k2oPercent', '18');
    await v.press('Put it in the library');
    await v.sees('500 g at €12.50');

    await v.pressLink('Add a product');
    await v.fill('name', 'Prova Due');
    await v.press('Add a pack');
    await v.fill('packs.0.size', '1000');
    await v.choose('Unit', 'g');
    await v.fill('packs.0.price', '30');
    await v.choose('How obtained', 'sent free');
    await v.press('Put it in the library');
    // The form says “sent free” too, and stands a moment longer than its address: the library is there when it is gone.
    await v.page.waitForSelector('input[name="maker"]', { hidden: true });
    await v.sees('sent free');
  });

  it('starts a trial; a bad code is refused', async () => {
    await v.open('/trials/new');
    await v.choose('Kind of trial', 'none of these: traits and rounds by hand');
    await v.fill('question', 'Is Prova worth it on cress?');
    await v.fill('code', 'pv');
    await v.press('Go on planning');
    await v.sees('Three capital letters.');
    expect(await v.valueOf('question')).toBe('Is Prova worth it on cress?');
    await v.fill('code', 'prv');
    await v.fill('crop', 'cress');
    await v.press('Go on planning');
    await v.sees('What is measured');
  });

  it('writes the question', async () => {
    await v.press('Add a weight');
    await v.press('Add a height');
    await v.press('Open Plant height');
    const trait = await v.page.waitForSelector('[name="traits.1.name"]');
    await trait!.evaluate((e) => (e as HTMLInputElement).select());
    await v.keys('Backspace');
    await v.fill('smallestDifference.value', 'much');
    await v.press('Save the question');
    await v.sees('Give the trait a name.');
    await v.sees('“much” isn’t a number.');
    await v.pressLink('Contenders');
    await v.sees('What you typed here would be lost.');
    await v.press('Stay');
    expect(await v.valueOf('smallestDifference.value')).toBe('much');
    await v.fill('traits.1.name', 'Shoot height');
    await v.fill('smallestDifference.value', '10');
    await v.choose('Deciding trait', 'Cut weight');
    await v.fill('prediction', 'Both beat water.');
    await v.press('Add a round');
    await v.fill('rounds.0.day', '0');
    await v.press('Save the question');
    await v.sees('The question is saved.');
  });

  it('names the contenders, priced while typing', async () => {
    await v.pressLink('Contenders');
    await v.sees('No contenders yet');
    await v.press('Add an untreated control');
    for (const [i, product] of ['Prova Uno', 'Prova Due'].entries()) {
      await v.press('Add a contender');
      await v.fill(`treatments.${i + 1}.name`, product);
      await v.press('Add a product');
      await v.page.waitForSelector(`input[name="treatments.${i + 1}.products.0.amount"]`);
      await v.choose('Product', product);
      await v.fill(`treatments.${i + 1}.products.0.timesPerUnit`, '4');
    }
    await v.press('Save the contenders');
    await v.sees('How much?');
    // What is wrong is opened, one after the other.
    await v.fill('treatments.1.products.0.amount', '2');
    // 2 g of 500 g at 12.50 is 0.05; four times is 0.20
    await v.sees('€0.0500 a dose · €0.200 per tray · 250 doses in a pack');
    await v.press('Open Prova Due');
    await v.fill('treatments.2.products.0.amount', '2');
    await v.press('Save the contenders');
    await v.sees('The contenders are saved.');
  });

  it('lays out on a shelf, moves by keyboard and by drag, and takes moves back', async () => {
    await v.open((await currentTrial()) + '/layout?view=arrange');
    // Without an area one is made that just holds what is laid out.
    await v.fill('replicates', '4');
    await v.press('Randomise');
    await v.sees('12 trays seen from above');
    await v.fill('replicates', '40');
    await v.press('Lay out again');
    await v.sees('120 units need 120 positions, but the areas hold 12.');
    await v.press('Areas');
    await v.fill('areas.0.rows', '3');
    await v.fill('areas.0.columns', '0');
    await v.press('Save the areas');
    await v.sees('At least 1.');
    await v.fill('areas.0.columns', '4');
    await v.press('Save the areas');
    await v.sees('The areas changed; randomise again.');
    await v.press('Arrange');
    await v.fill('replicates', '3');
    await v.fill('seed', '20');
    await v.press('Randomise');
    await v.sees('9 trays seen from above');

    // complete blocks of three on rows of four leave the end of each row free
    expect(await v.page.$$('.tile')).toHaveLength(9);
    const at = (row: number, place: number) =>
      v.page.$eval(`[data-position$="/${row - 1}/${place - 1}"] .tile`, (e) => e.getAttribute('data-unit')!);
    const stands = (unit: string, row: number, place: number) =>
      v.page.waitForSelector(`[data-position$="/${row - 1}/${place - 1}"] [data-unit="${unit}"]`);
    const first = await at(1, 1);
    const second = await at(1, 2);
    await v.page.focus(`[data-unit="${first}"]`);
    await v.keys('Space', 'ArrowRight', 'Space');
    await v.sees('Moved.');
    await stands(first, 1, 2);
    await stands(second, 1, 1);
    await v.press('Undo');
    await stands(first, 1, 1);

    const centre = async (selector: string) => {
      const box = (await (await v.page.$(selector))!.boundingBox())!;
      return [box.x + box.width / 2, box.y + box.height / 2] as const;
    };
    const [x, y] = await centre(`[data-unit="${first}"]`);
    const [toX, toY] = await centre('[aria-label^="Free: row 1"]');
    await v.page.mouse.move(x, y);
    await v.page.mouse.down();
    await v.page.mouse.move(x + 20, y, { steps: 4 });
    await v.page.mouse.move(toX, toY, { steps: 8 });
    await v.page.mouse.up();
    await stands(first, 1, 4);
    await v.press('Undo');
    await stands(first, 1, 1);
  });

  it('prints a label for every unit', async () => {
    await v.pressLink('Labels');
    await v.sees('9 labels');
    const codes = await v.page.$$eval('.label img', (imgs) => imgs.map((i) => i.getAttribute('alt')));
    expect(codes).toEqual(Array.from({ length: 9 }, (_, i) => `QR code of PRV-0${i + 1}`));
    await v.isAccessible();
    await v.pressLink('Back to the layout');
  });

  it('seals the plan and shows its hash', async () => {
    await v.press('Seal the plan');
    hash = await v.text('[data-testid="seal-hash"]');
    expect(hash).toMatch(/^[0-9a-f]{64}$/);
    await v.pressLink('Question');
    await v.sees('The plan is sealed since');
    // It is read: nothing in it can be typed into.
    expect(await v.page.$$('form input, form textarea')).toHaveLength(0);
  });

  it('logs a round from the keyboard, questions a slip, corrects without overwriting', async () => {
    await v.open((await currentTrial()) + '/rounds');
    await v.sees('Shoot height');
    await v.enter('5.1');
    await v.sees('1 of 9');
    for (const value of ['5.4', '5.0', '6.1', '6.3', '6.2', '5.2', '6.0', '5.8']) await v.enter(value);
    await v.sees('9 of 9');
    await v.page.locator('[data-unit="PRV-01"]').click();
    await v.enter('5.3');
    await v.sees('This replaces 5.1 cm, kept in this round.');
    await v.keys('Enter');
    await v.sees('Corrected; the old value stays in the log.');
    await v.page.locator('[data-unit="PRV-01"]').click();
    await v.sees(/Kept in this round 5\.1 cm 5\.3 cm/);
    await v.keys('.');
    await v.sees('Something off with PRV-01');
    await v.press('Write it down');
    await v.sees('Write it down in a few words.');
    const words = '[role="dialog"] textarea:not([aria-hidden])';
    await v.page.locator(words).fill('Watered late.');
    // A tap beside it, or Escape by chance, doesn't take the words away.
    await v.page.mouse.click(5, 5);
    await v.sees('What is typed here isn’t kept yet.');
    expect(await v.page.$eval(words, (e) => (e as HTMLTextAreaElement).value)).toBe('Watered late.');
    await v.press('Write it down');
    await v.tileSays('PRV-01', /5\.3 noted/);
  });

  it('weighs with tare, by scale and by hand in ounces', async () => {
    const weighIn = (await currentTrial()) + '/weigh-in';
    // A made-up scale weighs nothing on one's own bench unless that was chosen.
    await v.open(weighIn);
    expect(await v.page.$('.scale-face')).toBeNull();
    await v.letIn('Simulated scale');
    await v.open(weighIn);
    await v.press('Keep the weight as its tare');
    await v.sees('Name the container');
    await v.fillLabelled('New or re-weighed container', 'Bowl A');
    await v.fillLabelled('Lay on its pan', '20');
    await v.page.waitForFunction(
      () =>
        document.querySelector('[data-testid="at-rest"]')?.textContent === 'at rest' &&
        Math.abs(Number(document.querySelector('.scale-face output')?.textContent) - 20) < 0.3,
    );
    await v.press('Take reading');
    await v.press(`Keep ${await padValue()} g as its tare`);
    await v.sees(/tare (19\.[89]|20\.[012]) g, Bowl A/);

    // less than the tare
    await v.page.focus('[data-unit="PRV-01"]');
    await v.enter('12');
    await v.sees('is less than the tare');
    await v.keys('Escape');

    // in ounces: 2.5 oz gross is 70.9 g
    await v.press('oz');
    await v.page.focus('[data-unit="PRV-01"]');
    await v.enter('2.5');
    await v.tileSays('PRV-01', /5[01]\.\d/);
    await v.press('g');
    const units = await v.page.$$eval('.tile', (tiles) =>
      tiles.map(
        (t) => [t.getAttribute('data-unit')!, t.querySelector('.tile-letter')!.textContent!] as const,
      ),
    );
    const gross: Record<string, number> = { A: 70, B: 90, C: 92 };
    for (const [code, letter] of units) {
      const g = gross[letter]! + (Number(code.slice(-2)) % 3);
      await v.page.focus(`[data-unit="${code}"]`);
      await v.enter(String(g));
      if (code === 'PRV-01') {
        await v.sees('This replaces 5');
        await v.keys('Enter');
      }
      await v.tileSays(code, new RegExp(`(${g - 21}|${g - 20})\\.\\d`));
    }
    await v.sees('9 of 9 weighed');
  });

  it('finds what differs, and from what', async () => {
    await v.open((await currentTrial()) + '/findings');
    await v.sees(/beat Water/);
    findingSentence = await v.text('h1');
    await v.page.waitForSelector('figure svg[role="img"]');
    await v.sees('Dunnett');
    await v.press('How this was worked out');
    await v.sees('Between all pairs');
    await v.sees('PRV-09');
    await v.press('Close');
    await v.isAccessible();
    await v.press('Picture (PNG)');
    expect((await v.downloaded('.png')).subarray(1, 4).toString()).toBe('PNG');
  });

  it('gives a verdict with money', async () => {
    await v.open((await currentTrial()) + '/verdict');
    await v.sees('Takes the money');
    await v.sees('€0.200');
    await v.sees(/Prova Uno: \d\.\d ct/);
  });

  it('writes and exports the review', async () => {
    await v.open((await currentTrial()) + '/review');
    await v.fill('introduction', 'A test of <cress> & honesty.');
    await v.sees('Saving what you typed');
    await v.sees('Saved as you type.');
    await v.reload();
    await v.page.waitForSelector('[name="introduction"]');
    expect(await v.valueOf('introduction')).toBe('A test of <cress> & honesty.');
    await v.sees('Prova Due was sent free of charge.');
    await v.page.waitForSelector('.paper img');

    await v.press('Review as one page (HTML)');
    const html = (await v.downloaded('.html')).toString();
    expect(html).toContain('A test of &lt;cress&gt; &amp; honesty.');
    expect(html).toContain('src="data:image/png;base64,');
    expect(html).not.toMatch(/(src|href)="http/);
    await v.press('Markdown (zip)');
    const markdown = unzipSync(await v.downloaded('-markdown.zip'));
    const text = strFromU8(markdown['review.md']!);
    expect(text).toContain(findingSentence);
    const picture = /!\[.*?\]\((.*?)\)/.exec(text)![1]!;
    expect(strFromU8(markdown[picture]!, true).slice(1, 4)).toBe('PNG');
  });

  it('exports the trial as an open zip whose plan has the sealed hash', async () => {
    await v.press('Trial and data (zip)');
    const files = unzipSync(await v.downloaded('-trial.zip'));
    expect(Object.keys(files)).toEqual(
      expect.arrayContaining([
        'datapackage.json',
        'plan.json',
        'log.json',
        'data/units.csv',
        'data/observations.csv',
      ]),
    );
    const { plan } = JSON.parse(strFromU8(files['plan.json']!));
    expect(createHash('sha256').update(canonicalJson(plan)).digest('hex')).toBe(hash);
    expect(v.complaints).toEqual([]);
  });

  it('comes back identical on a fresh profile', async () => {
    const other = await Visitor.arrive(browser, inject('ownUrl'));
    await other.open('/data');
    await other.upload('trial-file', v.pathOfDownload('.html'));
    await other.sees('isn’t a zip that can be opened');
    await other.upload('trial-file', v.pathOfDownload('-trial.zip'));
    await other.sees('“Is Prova worth it on cress?” is on the bench.');
    await other.isAccessible();
    await other.pressLink('Open it');
    await other.page.waitForSelector('figure svg[role="img"]');
    expect(await other.text('h1')).toBe(findingSentence);
    await other.pressLink('Review');
    await other.press('Trial and data (zip)');
    const again = await other.downloaded('-trial.zip');
    expect(again.equals(await v.downloaded('-trial.zip'))).toBe(true);
    await other.open('/data');
    await other.upload('trial-file', v.pathOfDownload('-trial.zip'));
    await other.sees('0 new log lines were added');
  });

  async function currentTrial(): Promise<string> {
    return new URL(v.page.url()).pathname.split('/').slice(0, 3).join('/');
  }
  const padValue = async () => Number(await v.text('.pad-figure output')).toFixed(1);
});
