import { createHash } from 'node:crypto';
import { expect, it } from 'vitest';
import { toHtml } from './html';
import { pageColours } from '../picture/paper';
import { type PageCard, pageCard } from './weighYourself';

const card: PageCard = {
  headings: [
    { name: 'Yield', weight: 60, rule: 'Water is 0, the best is 10' },
    { name: '</script><b>', weight: 40, rule: 'the worst is 0, the best is 10' },
  ],
  contenders: [
    { name: 'Water', points: [0, 10] },
    { name: '<img src=x>', points: [10, 2.5] },
  ],
};
const page = toHtml('Is it?', [], () => '', pageColours, { card });

it('without scripts it is a table of points', () => {
  expect(page).toContain('<td class="n">2.5</td>');
  expect(page).toContain('&lt;img src=x&gt;');
  expect(page).toContain('disabled');
});
it('the policy allows the one script that is in the page, and nothing else runs', () => {
  const scripts = [...page.matchAll(/<script>([\s\S]*?)<\/script>/g)].map((m) => m[1]!);
  expect(scripts).toHaveLength(1);
  const hash = createHash('sha256').update(scripts[0]!).digest('base64');
  expect(page).toContain(`script-src 'sha256-${hash}'`);
  expect(page).not.toContain('</script><b>');
  expect(toHtml('Is it?', [], () => '', pageColours)).toContain("script-src 'none'");
});
it('a card that one contender alone has points for isn’t put to the reader', () => {
  const rows = [{ heading: { id: 'y', name: 'Y', weight: 1, from: { kind: 'cost' as const } }, firsts: null, sharePercent: 100, leaders: null,
        rule: '', cells: new Map([['A', { figure: 1, points: 1, low: null, high: null, said: '' }], ['B', { figure: null, points: null, low: null, high: null, said: 'died' }]]) }]; // prettier-ignore
  const contenders = ['A', 'B'].map((id) => ({ id, score: null, place: null, firstOf100: null }));
  expect(pageCard({ rows, contenders, flips: [], open: [] }, (id) => id)).toBeNull();
});
