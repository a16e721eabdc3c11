import { describe, expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { emptyReview } from '../model/trial';
import { entry, harvest, plan, product, unitId, use } from '../testing/trial';
import { makeFinding } from '../verdict/finding';
import { makeVerdict } from '../verdict/verdict';
import { toHtml, toMarkdown } from './document';
import { libraryFromFile, libraryToFile } from './libraryFile';
import { reviewDocument } from './review';

const p = {
  ...plan({ treatments: ['Water', 'A'], replicates: 3 }),
  products: [product({ name: 'Prova <b>', obtained: 'sent free' })],
};
p.treatments[1]!.products = [use()];
const state = deriveState(p, [
  ...harvest({ Water: [50, 51, 52], A: [70, 71, 72] }),
  entry({ kind: 'deviation', unitIds: [unitId('A', 0)], text: 'Watered | late' }),
]);
const made = makeFinding(state, p.traits[0]!);
if (!made.ok) throw new Error(made.error.tag);
const nameOf = (id: string) => id;
const blocks = reviewDocument({
  state,
  review: { ...emptyReview, introduction: 'First.\n\n# Not a heading <script>alert(1)</script>' },
  findings: [made.value],
  verdict: makeVerdict(p, made.value, nameOf),
  nameOf,
  today: '2026-04-01',
});

describe('the review', () => {
  const text = JSON.stringify(blocks);
  it.each([
    'A beat Water.',
    'Best value',
    'Prova <b> was sent free of charge by Casa Prova.',
    'Watered | late',
    'The plan was not sealed.',
    'Prediction before the start: Yes.',
    'Dunnett',
  ])('says “%s”', (part) => expect(text).toContain(part));

  it('prints as Markdown in which a person’s text stays text', () => {
    const markdown = toMarkdown(blocks, (id) => `pictures/${id}.png`);
    expect(markdown).toMatch(/^# Is it worth it\?\n/);
    expect(markdown).toContain('\\# Not a heading \\<script\\>');
    expect(markdown).toContain('Watered \\| late');
    expect(markdown).toContain('](pictures/finding-weight.png)');
    for (const table of markdown.matchAll(/(^\|.*\n)+/gm)) {
      const widths = table[0]
        .trim()
        .split('\n')
        .map((l) => l.replaceAll('\\|', '').split('|').length);
      expect(new Set(widths).size).toBe(1);
    }
  });

  it('prints as one page without anything to fetch or run', () => {
    const html = toHtml('T', blocks, () => 'data:image/png;base64,AAAA');
    expect(html).not.toContain('<script');
    expect(html).toContain('&lt;script&gt;');
    expect(html).not.toMatch(/(?:src|href)="(?!data:)/);
  });
});

describe('the library file', () => {
  it('comes back as it was', () => {
    expect(libraryFromFile(libraryToFile([product()]))).toEqual({ ok: true, value: [product()] });
  });
  it.each([
    ['nonsense', /no JSON/],
    ['{"palazzo":"library","version":1,"products":[{"id":"x"}]}', /products\.0/],
    ['{"palazzo":"library","products":[]}', /version/],
  ])('%s', (text, said) => {
    const read = libraryFromFile(text);
    expect(!read.ok && read.error).toMatch(said);
  });
});
