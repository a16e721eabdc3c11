import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { filesToKeep, ofBench } from './offline.mjs';

let folder = '';
const write = (name: string, text: string) => writeFileSync(join(folder, name), text);

beforeEach(() => {
  folder = `${mkdtempSync(join(tmpdir(), 'palazzo-build-'))}/`;
  mkdirSync(join(folder, 'assets'));
  write('index.html', '<html></html>');
  write('sw.js', 'old');
  write('assets/root-a1b2.js', 'root');
  write('assets/root-a1b2.js.map', '{}');
  write('assets/letters-c3.woff2', 'font');
  write('notes.txt', 'not asked for');
});
afterEach(() => rmSync(folder, { recursive: true }));

const revisionOf = (url: string) => filesToKeep(folder).find((f) => f.url === url)!.revision;

describe('what the service worker keeps', () => {
  it('is every file the app may ask for, but itself', () => {
    expect(filesToKeep(folder).map((f) => f.url)).toEqual([
      'assets/letters-c3.woff2',
      'assets/root-a1b2.js',
      'index.html',
    ]);
  });

  it('tells files apart by their name where it has a hash, else by what is in them', () => {
    expect(revisionOf('assets/root-a1b2.js')).toBeNull();
    const before = revisionOf('index.html');
    expect(before).toMatch(/^[0-9a-f]{32}$/);
    write('index.html', '<html>another</html>');
    expect(revisionOf('index.html')).not.toBe(before);
    write('index.html', '<html></html>');
    expect(revisionOf('index.html')).toBe(before);
  });
});

describe('the service worker of a bench', () => {
  const worker = 'f([{url:`assets/a.js`,revision:null},{url:`index.html`,revision:`0a`}])';

  it('is another one for the other bench, by the page it keeps', () => {
    expect(ofBench(worker, 'demo')).toBe(worker.replace('`0a`', '`demo-0a`'));
    expect(ofBench(worker.replaceAll('`', '"'), 'own')).toContain('{url:"index.html",revision:"own-0a"}');
  });

  it('is refused where the list isn’t as it is written today', () => {
    expect(() => ofBench('f([])', 'demo')).toThrow('list of files');
  });
});
