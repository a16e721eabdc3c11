// What the linter is there for is found: what its settings lack would be missed in silence.
import { spawnSync } from 'node:child_process';
import { copyFileSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';

const root = fileURLToPath(new URL('..', import.meta.url));

/** A faulty line, and the rule that says so. */
const faults: Record<string, [line: string, rule: string][]> = {
  'app/Part.tsx': [
    ["import { Dexie } from 'dexie';", 'no-restricted-imports'],
    ["import { useEffect, useMemo, useRef, useState } from 'react';", ''],
    ['let outside = Dexie;', 'no-unused-vars'],
    ['export function Part({ on, list }: { on: boolean; list: number[] }) {', ''],
    ['  const [n, setN] = useState(0);', ''],
    ['  const ref = useRef(0);', ''],
    ['  if (on) useState(1);', 'rules-of-hooks'],
    ['  useEffect(() => void list.length, []);', 'exhaustive-deps'],
    ['  useEffect(() => { setN(1); }, [on]);', 'set-state-in-effect'],
    ['  outside = Dexie;', 'globals'],
    ['  const drawn = Math.random();', 'purity'],
    ['  ref.current = n;', 'refs'],
    ['  const sum = useMemo(() => list.length + n, [list]);', 'exhaustive-deps'],
    ['  const Inner = () => <b>{n}</b>;', ''],
    ['  return <Inner key={sum + drawn} />;', 'static-components'],
    ['}', ''],
  ],
  'core/part.ts': [
    ["import { readFileSync } from 'node:fs';", 'no-restricted-imports'],
    ["import { late } from './late';", ''],
    ["type Kind = 'a' | 'b';", ''],
    ['export function part(kind: Kind, some: any) {', 'no-explicit-any'],
    ['  late();', 'no-floating-promises'],
    ['  [1].forEach(async () => { await late(); });', 'no-misused-promises'],
    ['  if (late()) return 1;', 'no-misused-promises'],
    ['  switch (kind) {', 'switch-exhaustiveness-check'],
    ["    case 'a': return readFileSync;", ''],
    ['  }', ''],
    ['  let never = 3;', 'prefer-const'],
    ['  if (never == some) return 2;', 'eqeqeq'],
    ['  console.log(some);', 'no-console'],
    ['  const unused = 1;', 'no-unused-vars'],
    ['  // @ts-ignore', 'ban-ts-comment'],
    ['  return never;', ''],
    ['}', ''],
  ],
  'core/late.ts': [['export const late = async (): Promise<void> => {};', '']],
};

let found: string[];
const folder = mkdtempSync(join(tmpdir(), 'palazzo-lint-'));

beforeAll(() => {
  copyFileSync(`${root}.oxlintrc.json`, join(folder, '.oxlintrc.json'));
  const options = {
    lib: ['ES2023', 'DOM'],
    target: 'ES2023',
    module: 'ESNext',
    moduleResolution: 'Bundler',
    strict: true,
  };
  writeFileSync(
    join(folder, 'tsconfig.json'),
    JSON.stringify({ compilerOptions: { ...options, types: [] } }),
  );
  for (const [file, lines] of Object.entries(faults)) {
    mkdirSync(dirname(join(folder, file)), { recursive: true });
    writeFileSync(join(folder, file), lines.map(([line]) => line).join('\n'));
  }
  const { stdout } = spawnSync(`${root}node_modules/.bin/oxlint`, ['-f', 'json', '.'], {
    cwd: folder,
    env: { ...process.env, PATH: `${root}node_modules/.bin:${process.env['PATH']}` },
    encoding: 'utf8',
  });
  const { diagnostics } = JSON.parse(stdout) as {
    diagnostics: { code: string; filename: string; labels: { span: { line: number } }[] }[];
  };
  found = diagnostics.map(
    (d) => `${d.filename}:${d.labels[0]!.span.line} ${/\((.*)\)/.exec(d.code)?.[1] ?? d.code}`,
  );
});
afterAll(() => rmSync(folder, { recursive: true }));

describe('lint', () => {
  const wanted = Object.entries(faults).flatMap(([file, lines]) =>
    lines.flatMap(([line, rule], i) =>
      rule ? [{ rule, line: line.trim(), at: `${file}:${i + 1} ${rule}` }] : [],
    ),
  );

  it.each(wanted)('$rule: $line', ({ at }) => {
    expect(found).toContain(at);
  });

  it('says nothing of what is no fault', () => {
    expect(found.filter((f) => !wanted.some(({ at }) => at === f))).toEqual([]);
  });
});
