import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { gzipSync } from 'node:zlib';
import { rows } from './rows';

const root = fileURLToPath(new URL('../..', import.meta.url));

/** Gzipped size of what the first page loads before any room. */
export function shellSize() {
  const client = `${root}build/client/`;
  const page = readFileSync(`${client}index.html`, 'utf8');
  const named = [
    ...page.matchAll(/(?:href|src)="(\/assets\/[^"]+\.(?:js|css))"|import "?'?(\/assets\/[^"']+\.js)/g),
  ].map((m) => (m[1] ?? m[2])!);
  const files = new Set<string>();
  const add = (path: string) => {
    if (files.has(path) || !existsSync(client + path)) return;
    files.add(path);
    if (!path.endsWith('.js')) return;
    for (const m of readFileSync(client + path, 'utf8').matchAll(
      /(?:from|import)\s*["']\.\/([^"']+\.js)["']/g,
    )) {
      add(`/assets/${m[1]}`);
    }
  };
  named.forEach(add);
  const total = [...files].reduce((s, f) => s + gzipSync(readFileSync(client + f)).length, 0) / 1024;
  const all = readdirSync(`${client}assets`).filter((f) => f.endsWith('.js'));
  rows.push({
    work: 'app shell, gzipped',
    measured: `${total.toFixed(0)} kB in ${files.size} files (of ${all.length} scripts in all)`,
    limit: '350 kB',
    held: total < 350,
  });
}
