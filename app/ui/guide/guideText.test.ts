import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import { rooms } from '../../rooms/registry';
import { benchPages } from '../benchPages';
import { headingOf, headingsIn, sectionOf } from './guideText';

const guide = readFileSync(fileURLToPath(new URL('../../../docs/guide.md', import.meta.url)), 'utf8');
const pages = [...benchPages.map((p) => p.to), '/trials/new', '/library/x'];

describe('the guide', () => {
  it.each([...rooms.map((r) => `/trial/t/${r.id}`), '/trial/t/log', ...pages])(
    'has what %s is for, how the trade does it and what its words mean',
    (path) => {
      const section = sectionOf(guide, headingOf(path));
      expect(headingsIn(guide)).toContain(headingOf(path));
      const text = section!.map((runs) => runs.map((r) => r.text).join(''));
      expect(text.length).toBeGreaterThan(3);
      expect(text.some((p) => p.startsWith('In the trade:'))).toBe(true);
      expect(text.some((p) => p.startsWith('Words:'))).toBe(true);
      expect(text.join(' ')).not.toMatch(/\*\*|!\[|\]\(|`/);
    },
  );
  it.each(rooms)('calls $title as the list of rooms does', ({ id, title }) => {
    expect(headingOf(`/trial/t/${id}`)).toBe(title);
  });
  it('is set as it is marked', () => {
    expect(
      sectionOf('## A\n\nOne **b**\nand `c d`, _e f_ of snake_case. ![x](y.png)\n\n## B\n\nNo.', 'A'),
    ).toEqual([
      [
        { as: 'plain', text: 'One ' },
        { as: 'strong', text: 'b' },
        { as: 'plain', text: ' and ' },
        { as: 'code', text: 'c d' },
        { as: 'plain', text: ', ' },
        { as: 'em', text: 'e f' },
        { as: 'plain', text: ' of snake_case.' },
      ],
    ]);
    expect(sectionOf('## A\n\nOne.', 'C')).toBeNull();
  });
});
