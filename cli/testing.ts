// What tests of the command line share.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'vitest';
import { main } from './main';

const dir = mkdtempSync(join(tmpdir(), 'palazzo-cli-'));
let files = 0;
/** A file with this text. */
export const file = (text: string): string => {
  files += 1;
  const path = join(dir, `data${files}.csv`);
  writeFileSync(path, text);
  return path;
};
/** What a command prints with `--json`; throws what it says where it ends badly. */
export const json = (
  ...args: string[]
): Record<string, unknown> & { versusControl: Record<string, unknown>[] } => {
  const ended = main([...args, '--json']);
  if (ended.status !== 0) throw new Error(ended.stderr);
  return JSON.parse(ended.stdout) as never;
};
/** The one line a refused command says. */
export const refused = (...args: string[]): string => {
  const ended = main(args);
  expect(ended.status).toBe(2);
  expect(ended.stdout).toBe('');
  expect(ended.stderr.trim().split('\n')).toHaveLength(1);
  return ended.stderr;
};
