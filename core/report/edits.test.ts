import { describe, expect, it } from 'vitest';
import type { Block } from './block';
import { edited, sectionsOf, sentencesOf } from './edits';

const document: Block[] = [
  { type: 'heading', level: 1, text: 'Is it worth it?' },
  { type: 'paragraph', text: 'A beat Water.' },
  { type: 'heading', level: 2, text: 'Yield' },
  { type: 'note', tone: 'good', title: 'A beat Water.', text: 'By 12 %.' },
  { type: 'heading', level: 3, text: 'More' },
  { type: 'list', items: ['One.', 'Two.'] },
  { type: 'heading', level: 2, text: 'Disclosure' },
  { type: 'paragraph', text: 'All were bought.' },
];

describe('the reviewer’s own sentences', () => {
  it('stand in place of generated ones, wherever these are', () => {
    const { blocks, outOfDate } = edited(
      document,
      [
        { was: 'By 12 %.', text: 'By an eighth.' },
        { was: 'Two.', text: 'And two.' },
      ],
      [],
    );
    expect(blocks[3]).toMatchObject({ text: 'By an eighth.' });
    expect(blocks[5]).toMatchObject({ items: ['One.', 'And two.'] });
    expect(outOfDate).toEqual([]);
  });
  it('whose sentence the data changed are out of date and in no document', () => {
    const old = { was: 'By 11 %.', text: 'By a ninth.' };
    const { blocks, outOfDate } = edited(document, [old], []);
    expect(outOfDate).toEqual([old]);
    expect(JSON.stringify(blocks)).not.toContain('ninth');
  });
});

describe('sections', () => {
  it('can be left out with all that is in them, but for those a review can’t do without', () => {
    const { blocks } = edited(document, [], ['Yield', 'Disclosure']);
    expect(sectionsOf(blocks)).toEqual(['Disclosure']);
    expect(blocks.map((b) => b.type)).toEqual(['heading', 'paragraph', 'heading', 'paragraph']);
  });
  it('and sentences are listed once', () => {
    expect(sectionsOf(document)).toEqual(['Yield', 'Disclosure']);
    expect(sentencesOf([...document, ...document])).toEqual([
      'A beat Water.',
      'By 12 %.',
      'One.',
      'Two.',
      'All were bought.',
    ]);
  });
});
