import { describe, expect, it } from 'vitest';
import { type RouteManifest, manifestIn, preloadsOf, withPreloads } from './preloads.mjs';

const manifest: RouteManifest = {
  routes: {
    root: { id: 'root', path: '', module: '/assets/root.js', imports: ['/assets/ui.js'] },
    bench: { id: 'bench', parentId: 'root', module: '/assets/bench.js', imports: ['/assets/nav.js'] },
    today: { id: 'today', parentId: 'bench', index: true, module: '/assets/today.js', imports: [] },
    trial: { id: 'trial', parentId: 'root', path: 'trial/:trialId', module: '/assets/trial.js' },
    rounds: {
      ...{ id: 'rounds', parentId: 'trial', path: 'rounds', module: '/assets/rounds.js' },
      imports: ['/assets/nav.js', '/assets/ui.js'],
    },
  },
};

const filesAt = (path: string) =>
  preloadsOf(manifest, new Set(['/assets/root.js', '/assets/ui.js']))
    .filter((p) => new RegExp(p.pattern).test(path))
    .map((p) => p.files.map((f) => f.slice('/assets/'.length)));

describe('what a page will ask for', () => {
  it('is what its route and those around it take, without what every page names', () => {
    expect(filesAt('/')).toEqual([['bench.js', 'nav.js', 'today.js']]);
    expect(filesAt('/trial/t-1/rounds')).toEqual([['trial.js', 'rounds.js', 'nav.js']]);
    expect(filesAt('/trial/t-1/rounds/')).toEqual(filesAt('/trial/t-1/rounds'));
    expect(filesAt('/elsewhere')).toEqual([]);
  });

  it('is named by a script that runs in the page’s head, at its address', () => {
    const html = withPreloads(
      '<html><head><link rel="modulepreload" href="/assets/root.js"/></head><body></body></html>',
      manifest,
    );
    const script = /<script>(.*)<\/script><\/head>/.exec(html)![1]!;
    const named: string[] = [];
    const document = {
      createElement: () => ({ rel: '', href: '' }),
      head: { append: (link: { rel: string; href: string }) => named.push(`${link.rel} ${link.href}`) },
    };
    new Function('document', 'location', script)(document, { pathname: '/trial/t-1/rounds' });
    expect(named.sort()).toEqual(
      ['nav', 'rounds', 'trial', 'ui'].map((f) => `modulepreload /assets/${f}.js`),
    );
  });

  it('is read from the build’s own manifest; a build that writes another is refused', () => {
    expect(manifestIn(`window.__reactRouterManifest=${JSON.stringify(manifest)};`)).toEqual(manifest);
    expect(() => manifestIn('export default {}')).toThrow('manifest');
  });
});
