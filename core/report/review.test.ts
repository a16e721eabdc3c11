import { describe, expect, it } from 'vitest';
import { rehearsedOf } from '../design/rehearsalInput';
import type { Entry } from '../log/entry';
import { deriveState } from '../log/state';
import { planSha256 } from '../plan/seal';
import { emptyReview } from '../log/trial';
import { entry, harvest, plan, product, unitId, use, weighing } from '../testing/trial';
import { conductBlocks, eventBlocks } from './conductBlocks';
import { againstControlTable, findingBlocks } from './findingBlocks';
import { findingOf } from '../account/findingInput';
import { makeVerdict } from '../verdict/verdict';
import { toHtml } from './html';
import { toMarkdown } from './markdown';
import { productAsVersion1 } from '../testing/olderFiles';
import { libraryFromFile, libraryToFile } from '../formats/libraryFile';
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
const made = findingOf(state, p.traits[0]!);
if (!made.ok) throw new Error(made.error.tag);
const nameOf = (id: string) => id;
const colours = { plaster: '#fff', sheet: '#fff', ink: '#000', soft: '#333', line: '#ccc', warning: '#850' };
const blocks = reviewDocument({
  state,
  review: { ...emptyReview, introduction: 'First.\n\n# Not a heading <script>alert(1)</script>' },
  findings: [made.value],
  verdict: makeVerdict(p, made.value, nameOf),
  nameOf,
  today: '2026-04-01',
  seal: { tag: 'unsealed' },
});

describe('the review', () => {
  const text = JSON.stringify(blocks);
  it.each([
    'A beat Water.',
    'Best value',
    'Prova <b> was sent free of charge by Casa Prova.',
    'Watered | late',
    'The plan was not sealed.',
    'Prediction: Yes.',
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
    const html = toHtml('T', blocks, () => 'data:image/png;base64,AAAA', colours);
    expect(html).not.toContain('<script');
    expect(html).toContain('&lt;script&gt;');
    expect(html).not.toMatch(/(?:src|href)="(?!data:)/);
  });
});

describe('the library file', () => {
  it('comes back as it was', () => {
    expect(libraryFromFile(libraryToFile([product()]))).toEqual({ ok: true, value: [product()] });
    // as version 1 wrote it
    const first = { palazzo: 'library', version: 1, products: [productAsVersion1(product())] };
    expect(libraryFromFile(JSON.stringify(first))).toEqual({ ok: true, value: [product()] });
  });
  it.each([
    ['nonsense', /no JSON/],
    ['PK\u0003\u0004…', /a zip, not a library file/],
    ['{"palazzo":"library","version":1,"products":[{"id":"x"}]}', /products\.0/],
    ['{"palazzo":"library","products":[]}', /version/],
  ])('%s', (text, said) => {
    const read = libraryFromFile(text);
    expect(!read.ok && read.error).toMatch(said);
  });
});

describe('what a reader could object to, and how it was conducted', () => {
  const said = (over: object, audit: Parameters<typeof reviewDocument>[0]['audit'] = [], disclosure = '') => {
    const blind = {
      ...state,
      plan: { ...p, ...over },
      revealed: { at: '2026-03-20T08:00:00Z', offsetMin: 0 },
    };
    return JSON.stringify(
      reviewDocument({
        state: blind,
        review: { ...emptyReview, disclosure },
        findings: [],
        verdict: null,
        nameOf,
        today: '2026-04-01',
        seal: { tag: 'unsealed' },
        audit,
      }),
    );
  };
  it('lists accepted findings with their reason, and open ones', () => {
    const finding = {
      ruleId: 'no-spares',
      severity: 'note' as const,
      title: 'No spare plants',
      found: 'No reserves are planned.',
      why: '',
      cure: '',
      room: 'layout' as const,
      fixLabel: null,
      curesItself: false,
    };
    const text = said({}, [
      { ...finding, accepted: 'no seed left' },
      { ...finding, title: 'Other', accepted: null },
    ]);
    expect(text).toContain('What could be objected');
    expect(text).toContain('No spare plants: No reserves are planned. Accepted: no seed left');
    expect(text).toContain('Other: No reserves are planned."');
    expect(said({})).not.toContain('What could be objected');
  });
  it('says who scored, what was hidden, balanced, rotated and matched', () => {
    const text = said({
      blinding: 'scorer',
      scorer: 'Marta',
      winning: 'More weight.',
      alsoAsked: 'And water?',
      wholeSystem: true,
      matchedOn: 'element',
      cropsWithin: ['sage', 'basil'],
      rotation: { everyDays: 2, within: 'all' },
      gradient: { name: 'Light', unit: '', readings: [] },
      design: { ...p.design!, balance: { candidates: 2000, spreadPercent: 1.2 } },
      treatments: p.treatments.map((t) => ({ ...t, products: [use()] })),
    });
    for (const part of [
      'scored by Marta',
      'codes were opened on 2026-03-20',
      'counted as winning: More weight.',
      'exploratory: And water?',
      'Whole systems',
      'equal nitrogen',
      'sage, basil',
      'every 2 days',
      '2000 draws',
    ]) {
      expect(text).toContain(part);
    }
  });
  it('says the rehearsal that was kept before the seal, of the plan that was sealed, and no other', () => {
    const kept = (over: object = {}) => ({
      ...{ kind: 'rehearsal', of: rehearsedOf(p), runs: 5000, seed: 1, cvPercent: 7, hasPrediction: true },
      ...{ asksAsGood: false, right: 0.62, falseWinner: 0.05, sees: null, ...over },
    });
    const seal = () => entry({ kind: 'seal', planSha256: planSha256(p) });
    const items = (...log: Entry[]) =>
      JSON.stringify(conductBlocks(deriveState(p, log), '2026-04-01', { tag: 'unsealed' }));
    const sentence =
      'Rehearsed on paper before it began, in 5,000 runs at a spread of 7 %: If things go as predicted, the right winner is named in 62 of 100 runs';
    expect(items(entry(kept()), seal())).toContain(sentence);
    const sees = 'A difference of 20 points would be seen.';
    expect(items(entry(kept({ sees })), seal())).toContain(`at a spread of 7 %: ${sees}`);
    // A unit that came later was not planned, and a plan in the order of its codes is the same plan.
    const unit = { ...p.units[0]!, id: 'extra' as never, code: 'TST-99' as never };
    const grown = deriveState(p, [
      entry(kept()),
      seal(),
      entry({ kind: 'extraUnit', unit, reason: 'left over' }),
    ]);
    expect(grown.plan.units).toHaveLength(p.units.length + 1);
    expect(JSON.stringify(conductBlocks(grown, '2026-04-01', { tag: 'unsealed' }))).toContain(sentence);
    expect(rehearsedOf({ ...p, treatments: p.treatments.toReversed() })).toBe(rehearsedOf(p));
    for (const log of [
      [seal(), entry(kept())],
      [entry(kept())],
      [entry(kept({ of: 'a'.repeat(64) })), seal()],
    ])
      expect(items(...log)).not.toContain('Rehearsed on paper');
  });
  it('says nothing of prices where no product is named', () => {
    expect(said({ products: [] })).not.toContain('All products were bought');
    expect(said({ products: [{ ...product(), obtained: 'bought' }] })).toContain('All products were bought');
  });
  it('doesn’t disclose twice what was written, nor call it bought', () => {
    const text = said({}, [], 'Prova <b> was sent by its maker for nothing.');
    expect(text.match(/Prova <b> was sent/g)).toHaveLength(1);
    expect(text).not.toContain('All products were bought');
  });
});

describe('what a reader isn’t misled by', () => {
  const one = plan({ treatments: ['Water', 'A', 'B'], replicates: 1 });
  const found = (log: Parameters<typeof deriveState>[1], over: Partial<(typeof one.traits)[0]> = {}) => {
    const q = { ...one, traits: [{ ...one.traits[0]!, ...over }, ...one.traits.slice(1)] };
    const f = findingOf(deriveState(q, log), q.traits[0]!);
    if (!f.ok) throw new Error(f.error.tag);
    return { q, f: f.value };
  };
  it('one unit each: the caveat stands once, and no interval is spoken of', () => {
    const { q, f } = found(harvest({ Water: [50], A: [60], B: [70] }));
    const text = JSON.stringify(findingBlocks(f, q, nameOf));
    const caption = findingBlocks(f, q, nameOf).find((b) => b.type === 'figure')!;
    expect(JSON.stringify(caption)).not.toMatch(/interval/);
    // The picture's alternative text says it too, to whom can't see the note.
    expect(text.replace(/"alt":"[^"]*"/, '').match(/One unit each/g)).toHaveLength(1);
  });
  it('a contender whose plant died stands in the table as such', () => {
    const dead = entry({ kind: 'death', unitId: unitId('B', 0), sample: null, cause: 'frost' });
    const { q, f } = found([...harvest({ Water: [50], A: [60] }), dead]);
    const table = againstControlTable(f, q, nameOf);
    expect(table.rows.map((r) => JSON.stringify(r.cells))).toContainEqual(expect.stringMatching(/"B".*died/));
  });
  it('a score is never given in per cent, a weight is', () => {
    const many = plan({ treatments: ['Water', 'A'], replicates: 4 });
    const log = harvest({ Water: [1, 2, 2, 3], A: [3, 4, 4, 5] });
    const percentOf = (kind: 'score' | 'weighing') => {
      const t = { ...many.traits[0]!, kind, scale: [] };
      const f = findingOf(deriveState({ ...many, traits: [t] }, log), t);
      return f.ok ? f.value.analysis.versusControl[0]!.percent : undefined;
    };
    expect(percentOf('score')).toBeNull();
    expect(percentOf('weighing')!.estimate).toBeCloseTo(100, 9);
  });
  it('typing the same value again corrects nothing', () => {
    const again = (second: number) =>
      deriveState(one, [
        entry(weighing(unitId('A', 0), 60), 'first'),
        entry({
          kind: 'correction',
          supersedes: 'first',
          replacement: weighing(unitId('A', 0), second),
          reason: '',
        }),
      ]);
    const said = (second: number) => JSON.stringify(eventBlocks(again(second)));
    expect(said(60)).not.toContain('corrected');
    expect(said(61)).toContain('1 value corrected');
  });
  it('a round whose second trait wasn’t taken still says that the first was', () => {
    const state = deriveState(one, harvest({ Water: [50], A: [60], B: [70] }));
    const text = JSON.stringify(conductBlocks(state, '2026-04-01', { tag: 'unsealed' }));
    expect(text).toContain('trays with their cut weight 3 of 3, height 0 of 3.');
  });
});
