import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const root = fileURLToPath(new URL('..', import.meta.url));
const pages = [
  'README.md',
  ...readdirSync(join(root, 'docs'))
    .filter((f) => f.endsWith('.md'))
    .map((f) => `docs/${f}`),
];
const textOf = (page: string) => readFileSync(join(root, page), 'utf8');
const linksOf = (page: string) =>
  [...textOf(page).matchAll(/\]\(([^)#\s]+)[^)]*\)/g)].map((m) => m[1]!).filter((l) => !/^[a-z]+:/.test(l));

describe('the documents', () => {
  it.each(pages)('%s links to nothing that isn’t there', (page) => {
    const dead = linksOf(page).filter((l) => !existsSync(join(root, dirname(page), l)));
    expect(dead).toEqual([]);
  });
  it('every picture is shown in README or guide, and there are fewer than twenty', () => {
    const pictures = readdirSync(join(root, 'docs/screenshots'));
    expect(pictures.length).toBeLessThan(20);
    const shown = [...linksOf('README.md'), ...linksOf('docs/guide.md').map((l) => `docs/${l}`)];
    expect(pictures.filter((p) => !shown.includes(`docs/screenshots/${p}`))).toEqual([]);
  });
  it('the pictures are those that `npm run screenshots` makes', () => {
    const made = [...textOf('scripts/screenshots.ts').matchAll(/^ {2}\[\s*'([\w-]+)',\s*'\//gm)].map(
      (m) => `${m[1]}.png`,
    );
    expect(made.length).toBeGreaterThan(0);
    expect(readdirSync(join(root, 'docs/screenshots')).sort()).toEqual(made.sort());
  });
  it('each decision is one line of the list, under a heading', () => {
    const lines = textOf('docs/decisions.md')
      .split('\n')
      .slice(1)
      .filter((l) => l.trim() !== '');
    expect(lines.filter((l) => !l.startsWith('- ') && !l.startsWith('## '))).toEqual([
      'One line each, newest last under each heading.',
    ]);
  });
});
