// R (webR) runs `findings.R` in each unpacked demo zip; what it prints must be what `findings` gives.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import Papa from 'papaparse';
import { afterAll, describe, expect, it } from 'vitest';
import { startR } from '~core/testing/r';
import { demo } from './demo';
import { findings, trialOf } from './findings';
import { findingsOf } from './findings';
import { script } from './script';

const folder = mkdtempSync(join(tmpdir(), 'palazzo-script-'));
const zips = demo(['--out', folder]).split('\n');
const r = await startR();
afterAll(() => rmSync(folder, { recursive: true }));

/** What R prints when it runs a script in the unpacked zip. */
async function printed(text: string, files: Record<string, Uint8Array>, name: string) {
  const at = `/home/web_user/${name}`;
  for (const [path, bytes] of Object.entries(files))
    if (path.startsWith('data/')) await r.write(`${at}/${path}`, bytes);
  await r.write(`${at}/findings.R`, strToU8(text));
  const lines = await r.texts(
    `local({ old <- setwd("${at}"); on.exit(setwd(old)); capture.output(source("findings.R", local = new.env(), encoding = "UTF-8")) })`,
  );
  expect(lines[0]).toBe('trait,round,crop,name,difference,low,high,p');
  return Papa.parse<Record<string, string>>(lines.join('\n'), { header: true, skipEmptyLines: true }).data;
}

const flat = (file: string) =>
  findingsOf(trialOf(file)).flatMap((f) => f.versusControl.map((c) => ({ ...f, ...c })));

async function compare(file: string, rows: Record<string, string>[]) {
  const own = flat(file);
  expect(rows.map((x) => [x.trait, x.round, x.crop, x.name])).toEqual(
    own.map((c) => [c.trait, c.round ?? '', c.crop ?? '', c.name]),
  );
  own.forEach((c, i) => {
    for (const key of ['difference', 'low', 'high', 'p'] as const) {
      const theirs = rows[i]![key]!;
      if (c[key] === null) expect(theirs).toBe('');
      // Missing cells: R and Palazzo integrate by lattices of their own.
      else expect(Math.abs(Number(theirs) - c[key])).toBeLessThan(2e-3 * Math.max(1, Math.abs(c[key])));
    }
  });
}

describe.each(zips.map((z) => [z.slice(-7, -4), z]))('%s', (name, zip) => {
  it('holds the script, which R runs to the figures of the Findings room', async () => {
    const files = unzipSync(readFileSync(zip));
    expect(strFromU8(files['findings.R']!)).toBe(script([zip]));
    await compare(zip, await printed(script([zip]), files, name));
  });
});

it('a zip without the table of values gets a script that carries them', async () => {
  const files = unzipSync(readFileSync(zips[0]!));
  delete files['data/finding_values.csv'];
  const older = join(folder, 'older.zip');
  writeFileSync(older, zipSync(files));
  expect(script([older])).toContain('textConnection');
  await compare(older, await printed(script([older]), {}, 'older'));
});

it('the command prints it, and says what is wrong with what isn’t a trial', () => {
  expect(findings([zips[0]!, '--json'])).toContain('"method"');
  const run = (file: string) =>
    execFileSync('node', ['scripts/palazzo.mjs', 'script', file], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'pipe'],
    });
  expect(run(zips[0]!)).toBe(`${script([zips[0]!])}\n`);
  expect(() => run('README.md')).toThrow(/isn’t a zip/);
});
