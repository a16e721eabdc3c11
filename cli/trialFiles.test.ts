// demo and findings: the demo bench as zips, and every trait × round × crop of one as the Findings room has it.
import { mkdtempSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import { exportTrial } from '~core/formats/dataPackage';
import { compareTreatments } from '~core/stats/compareTreatments';
import { harvest, plan, trialOf } from '~core/testing/trial';
import type { FindingRow } from '~core/account/findingRows';
import { main } from './main';

const dir = mkdtempSync(join(tmpdir(), 'palazzo-cli-'));
const findings = (file: string): { trial: string; findings: FindingRow[] } => {
  const ended = main(['findings', file, '--json']);
  if (ended.status !== 0) throw new Error(ended.stderr);
  return JSON.parse(ended.stdout) as never;
};

describe('the demo bench as zips', () => {
  beforeAll(() => {
    expect(main(['demo', '--out', join(dir, 'demo')]).status).toBe(0);
  });
  it('has every trial, each readable again', () => {
    const names = readdirSync(join(dir, 'demo')).sort();
    expect(names.map((n) => n.slice(0, 3))).toEqual([
      'BAS',
      'COR',
      'FAG',
      'LAT',
      'PAR',
      'POM',
      'RAD',
      'RUC',
      'RUD',
      'SUN',
    ]);
    const all = names.map((n) => findings(join(dir, 'demo', n)));
    expect(all.map((f) => f.trial.length > 10)).not.toContain(false);
    // One being planned has none.
    expect(all.filter((f) => f.findings.length === 0)).toHaveLength(1);
    for (const { findings: own } of all)
      for (const f of own) for (const c of f.versusControl) expect(Number.isFinite(c.difference)).toBe(true);
  });
  it('calls contenders by their codes while a trial is blind', () => {
    const { findings: own } = findings(join(dir, 'demo', 'FAG.zip'));
    const names = new Set(own.flatMap((f) => f.versusControl.map((c) => c.name)));
    for (const name of names) expect(name).toMatch(/^Code [A-D]$/);
  });
  it('has a trait by its rounds and by its own summary', () => {
    const { findings: own } = findings(join(dir, 'demo', 'COR.zip'));
    expect(own.filter((f) => f.trait === 'Plant height').map((f) => f.round)).toEqual([
      null,
      'First heights',
      'Second heights',
      'Harvest',
    ]);
    expect(main(['findings', join(dir, 'demo', 'COR.zip')]).stdout).toMatch(/Cut weight\s+linear\s+Palestra/);
  });
});

it('says of a trial what the comparison of its units says', () => {
  const values = { Water: [50, 52, 49], A: [60, 63, 61] };
  const file = join(dir, 'own.zip');
  writeFileSync(file, exportTrial(trialOf(plan(), harvest(values))));
  const [first] = findings(file).findings;
  const rows = Object.entries(values).flatMap(([treatment, list]) =>
    list.map((value, i) => ({ treatment, value, unit: `${treatment}${i}` })),
  );
  const compared = compareTreatments({ rows, control: 'Water', alpha: 0.05 });
  if (!compared.ok) throw new Error(compared.error.tag);
  const [own] = compared.value.versusControl;
  expect(first).toMatchObject({ round: null, crop: null, method: 'linear' });
  expect(first!.versusControl[0]!.difference).toBeCloseTo(own!.difference, 9);
  expect(first!.versusControl[0]!.low).toBeCloseTo(own!.low!, 9);
  expect(first!.versusControl[0]!.p).toBeCloseTo(own!.p!, 9);
});

it('what can’t be read or written is said in a line', () => {
  const bad = join(dir, 'bad.zip');
  writeFileSync(bad, 'no zip');
  for (const args of [
    ['findings', bad],
    ['findings', join(dir, 'none.zip')],
    ['demo'],
    ['demo', '--out', join(bad, 'x')],
  ]) {
    const ended = main(args);
    expect(ended.status).toBe(2);
    expect(ended.stderr.trim().split('\n')).toHaveLength(1);
  }
});
