import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { main } from './main';

const folder = mkdtempSync(join(tmpdir(), 'palazzo-cli-'));

function file(text: string): string {
  const path = join(folder, `${Math.random()}.csv`);
  writeFileSync(path, text);
  return path;
}

const palazzo = (...args: string[]) => main(args);

const columns = ['--treatment', 't', '--response', 'y', '--control', 'Water'];
const data = 't,y,u,b\nWater,1,1,x\nWater,3,2,y\nA,4,3,x\nA,8,3,x\nA,8,4,y\n';

describe('palazzo compare', () => {
  it('prints exactly the promised JSON', () => {
    const run = palazzo('compare', file(data), ...columns, '--unit', 'u', '--json');
    expect(run.status).toBe(0);
    const out = JSON.parse(run.stdout);
    // unit 3 is one unit of mean 6
    expect(out.treatments).toEqual([
      { name: 'Water', n: 2, mean: 2, sd: Math.SQRT2, min: 1, max: 3 },
      { name: 'A', n: 2, mean: 7, sd: Math.SQRT2, min: 6, max: 8 },
    ]);
    expect(Object.keys(out)).toEqual([
      'response',
      'alpha',
      'treatments',
      'anova',
      'versusControl',
      'pairs',
      'letters',
    ]);
    expect(out.anova).toMatchObject({ dfTreatment: 1, dfResidual: 2 });
    expect(out.anova.f).toBeCloseTo(12.5, 10);
    expect(out.versusControl[0]).toMatchObject({
      name: 'A',
      difference: 5,
      percent: 250,
      percentLow: null,
      percentHigh: null,
    });
    expect(out.pairs[0]).toMatchObject({ a: 'Water', b: 'A', difference: -5 });
    expect(out.letters).toEqual({ Water: 'a', A: 'a' });
  });

  it('prints a table for people, and takes blocks and decimal commas', () => {
    const run = palazzo(
      'compare',
      file(data.replaceAll(',', ';').replace('8;4', '8,5;4')),
      ...columns,
      '--unit',
      'u',
      '--block',
      'b',
    );
    expect(run.stdout).toContain('4 units, 2 blocks');
    expect(run.stdout).toMatch(/Dunnett, 95 % simultaneous/);
  });

  it('one unit each: no test', () => {
    const run = palazzo('compare', file('t,y\nWater,1\nA,2\n'), ...columns, '--json');
    const out = JSON.parse(run.stdout);
    expect(out.anova).toBeNull();
    expect(out.treatments[0].sd).toBeNull();
    expect(out.versusControl[0].p).toBeNull();
  });

  it.each([
    ['t,y\nWater,1\nA,tall\n', [], /^palazzo: .*\.csv, row 3, column “y”: “tall” isn't a number\.$/],
    ['t,y\nWater,1\nWater,2\n', [], /Only one treatment/],
    ['t,y\nTap,1\nA,2\n', [], /control “Water” isn't among the treatments: Tap, A/],
    ['t,y\n', [], /no rows/],
    ['', [], /no rows/],
    ['t,z\nWater,1\n', [], /no column “y”/],
    ['t,y,u\nWater,1,1\nA,2,1\n', ['--unit', 'u'], /Unit “1” is listed under two treatments: Water and A/],
    ['t,y,b\nWater,1,x\nA,2,y\n', ['--block', 'b'], /share no block/],
    [data, ['--alpha', '2'], /--alpha must lie between/],
    [data, ['--colour', 'red'], /colour/],
  ])('bad input %#: one plain line, exit 2', (text, extra, said) => {
    const run = palazzo('compare', file(text), ...columns, ...extra);
    expect(run.status).toBe(2);
    expect(run.stdout).toBe('');
    const lines = run.stderr.split('\n').filter((l) => l && !l.startsWith('npm warn'));
    expect(lines).toHaveLength(1);
    expect(lines[0]).toMatch(said);
  });

  it('a missing file and a missing command are said plainly', () => {
    expect(palazzo('compare', 'nowhere.csv', ...columns).stderr).toContain("can't be read");
    expect(palazzo('dance').status).toBe(2);
  });
});
