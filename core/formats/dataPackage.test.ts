// Reference: the Frictionless Data Package library for JavaScript validates the descriptor and casts
// every row of every table against its schema.
import { mkdtempSync, mkdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { Package } from 'datapackage';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Trial, emptyReview } from '../log/trial';
import { planAsVersion2 } from '../testing/olderFiles';
import { newInVersion2 } from '../model/blankPlan';
import { planSha256 } from '../plan/seal';
import { entry, harvest, height, plan, product, trialOf, unitId, use } from '../testing/trial';
import { findingRows } from '../account/findingRows';
import { trialFindings } from '../account/trialFindings';
import { describeImportError, exportTrial, importTrial } from './dataPackage';

const p = plan({ treatments: ['Water', 'A "quoted", B'], replicates: 3, blocked: true });
const full: Trial = Trial.parse({
  plan: {
    ...p,
    products: [product({ name: '=SUM(A1)', obtained: 'sent free' })],
    treatments: p.treatments.map((t, i) => (i === 1 ? { ...t, products: [use()] } : t)),
  },
  log: [
    entry({ kind: 'seal', planSha256: planSha256(p) }),
    ...harvest({ Water: [50, 51, 52], 'A "quoted", B': [60, 61, 62] }),
    entry(height(unitId('Water', 0), 5.5), 'h1'),
    entry({
      kind: 'correction',
      supersedes: 'h1',
      replacement: height(unitId('Water', 0), 5.9),
      reason: 'misread',
    }),
    entry({ kind: 'deviation', unitIds: [unitId('Water', 1)], text: 'Late,\nby a day; "sorry"' }),
    entry({ kind: 'death', unitId: unitId('Water', 2), sample: null, cause: 'mould' }),
    entry({ kind: 'exclusion', unitId: unitId('Water', 1), traitId: null, reason: 'late' }),
    entry({
      kind: 'mix',
      treatmentId: p.treatments[1]!.id,
      batch: 'B1',
      volumeL: 2.64,
      day: 3,
      stepG: 1,
      amounts: [
        { productId: product().id, amount: 3, unit: 'g', wanted: 2.64, packId: 'pack' },
        { productId: product().id, amount: 24, unit: 'mL', wanted: 24.4, fromStock: 'S1' },
      ],
    }),
    entry({ kind: 'mix', treatmentId: p.treatments[0]!.id, batch: 'A1', volumeL: 2.64, amounts: [] }),
    entry({ kind: 'stock', productId: product().id, batch: 'S1', amount: 25, unit: 'g', volumeL: 0.25 }),
    entry({
      kind: 'reading',
      quantity: 'ec',
      value: 1.25,
      subject: 'batch B1',
      unitId: null,
      treatmentId: p.treatments[1]!.id,
      instrument: 'typed',
      batch: 'B1',
    }),
    entry({
      kind: 'feed',
      unitIds: [unitId('Water', 0)],
      batch: 'A1',
      volumeLPerUnit: 0.6,
      purpose: 'topUp',
    }),
    entry({
      kind: 'phDose',
      unitId: unitId('Water', 0),
      treatmentId: null,
      batch: '',
      agent: 'citric acid',
      amountMl: 2,
      volumeL: 10,
      phBefore: 7,
      phAfter: 6,
    }),
  ],
  review: { ...emptyReview, introduction: 'Ünïcode – “quotes”' },
  key: { order: [p.treatments[1]!.id, p.treatments[0]!.id] },
  sealedAs: { version: 3, plan: { question: 'as it was' } },
  conflicts: [{ id: 'h1', other: entry(height(unitId('Water', 0), 10.5), 'h1') }],
});

it('exporting and importing gives back the identical trial, and the same bytes again', () => {
  const zip = exportTrial(full);
  const back = importTrial(zip);
  expect(back).toEqual({ ok: true, value: full });
  if (back.ok) expect(exportTrial(back.value)).toEqual(zip);
});

it('does so for any values, texts and corrections', () => {
  const value = fc.double({ min: -1e6, max: 1e12, noNaN: true, noDefaultInfinity: true });
  const text = fc.string({ minLength: 1, unit: 'grapheme' }).filter((s) => s.trim() === s);
  fc.assert(
    fc.property(fc.array(fc.tuple(value, text)), (rows) => {
      const log = rows.flatMap(([v, t], i) => [
        entry(height(unitId('Water', i % 3), v + 0), `m${i}`),
        entry({ kind: 'note', unitId: null, text: t }),
      ]);
      const trial = { ...full, log };
      expect(importTrial(exportTrial(trial))).toEqual({ ok: true, value: JSON.parse(JSON.stringify(trial)) });
    }),
    { numRuns: 40 },
  );
});

it('is valid by the Frictionless library: descriptor, and every cell of every table', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'palazzo-package-'));
  for (const [name, bytes] of Object.entries(unzipSync(exportTrial(full)))) {
    mkdirSync(dirname(join(folder, name)), { recursive: true });
    writeFileSync(join(folder, name), bytes);
  }
  const descriptor = JSON.parse(strFromU8(unzipSync(exportTrial(full))['datapackage.json']!));
  const loaded = await Package.load(descriptor, { basePath: folder, strict: true });
  expect(loaded.valid).toBe(true);
  const tables = loaded.resources.filter((r: { tabular: boolean }) => r.tabular);
  expect(tables.map((t: { name: string }) => t.name)).toEqual([
    'treatments',
    'products',
    'doses',
    'traits',
    'units',
    'observations',
    'measurements',
    'weighings',
    'readings',
    'mixes',
    'stock_solutions',
    'ph_corrections',
    'feedings',
    'deviations',
    'deaths',
    'exclusions',
    'seals',
    'finding_values',
  ]);
  const rows: Record<string, unknown[]> = {};
  for (const t of tables) rows[t.name] = await t.read({ keyed: true, relations: false });
  expect(rows.units).toHaveLength(6);
  expect(rows.observations).toHaveLength(7);
  const corrected = rows.observations!.find((o) => (o as { corrected: number }).corrected === 1);
  expect(corrected).toMatchObject({ value: 5.9, unit_id: 'Water-0' });
  expect(rows.observations!.every((o) => Number.isFinite(Number((o as { value: unknown }).value)))).toBe(
    true,
  );
});

it('defuses text that a spreadsheet would run', () => {
  const csv = strFromU8(unzipSync(exportTrial(full))['data/products.csv']!);
  expect(csv).toContain("'=SUM(A1)");
});

describe('files that aren’t right', () => {
  const changed = (file: string, change: (json: Record<string, unknown>) => unknown) => {
    const files = unzipSync(exportTrial(full));
    files[file] = strToU8(JSON.stringify(change(JSON.parse(strFromU8(files[file]!)))));
    return zipSync(files);
  };
  it.each([
    ['no zip', strToU8('hello'), /isn’t a zip/],
    ['an empty zip', zipSync({}), /holds no plan\.json/],
    ['a backup of a bench', zipSync({ 'backup.json': strToU8('{}') }), /“Bring a backup back” takes it/],
    ['a newer format', changed('plan.json', (j) => ({ ...j, version: 99 })), /newer Palazzo/],
    ['no version', changed('plan.json', ({ plan }) => ({ plan })), /which version/],
    ['a log that isn’t one', changed('log.json', () => ({})), /log: /],
    [
      'a line of an unknown kind',
      changed('log.json', (l) => [{ ...(l as unknown as object[])[0], kind: 'magic' }]),
      /log\.0/,
    ],
    [
      'two units at one place',
      changed('plan.json', (j) => {
        const { plan } = j as { plan: Trial['plan'] };
        return {
          ...j,
          plan: { ...plan, units: plan.units.map((u) => ({ ...u, position: plan.units[0]!.position })) },
        };
      }),
      /Two units at one position/,
    ],
  ])('%s', (_, bytes, said) => {
    const read = importTrial(bytes);
    expect(read.ok).toBe(false);
    if (!read.ok) expect(describeImportError(read.error)).toMatch(said);
  });
});

describe('files of version 1', () => {
  it('are read, with everything that came later empty', () => {
    const files = unzipSync(exportTrial({ ...full, key: null }));
    const planFile = JSON.parse(strFromU8(files['plan.json']!)) as {
      version: number;
      plan: Record<string, unknown>;
    };
    planFile.plan = planAsVersion2(planFile.plan as never);
    for (const field of Object.keys(newInVersion2())) delete planFile.plan[field];
    const strip = (list: unknown, ...fields: string[]) => {
      for (const item of list as Record<string, unknown>[]) for (const f of fields) delete item[f];
    };
    strip(planFile.plan.traits, 'outOf', 'scale');
    strip(planFile.plan.areas, 'reserved');
    strip(planFile.plan.units, 'columnBlock', 'setting', 'startSize');
    strip(planFile.plan.treatments, 'system', 'conditions', 'levels', 'expectedPercent');
    for (const t of planFile.plan.treatments as { products: unknown }[]) strip(t.products, 'stage');
    strip([planFile.plan.design], 'settings', 'balance');
    const zip = zipSync({ ...files, 'plan.json': strToU8(JSON.stringify({ ...planFile, version: 1 })) });
    const back = importTrial(zip);
    if (!back.ok) throw new Error(describeImportError(back.error));
    expect(back.value.plan).toEqual(full.plan);
    expect(back.value.log.map((e) => e.id)).toEqual(full.log.map((e) => e.id));
    expect(back.value.sealedAs).toEqual(full.sealedAs);
  });
  it('a broken key is said, and nothing is taken in', () => {
    const files = unzipSync(exportTrial(full));
    const broken = importTrial(zipSync({ ...files, 'key.json': strToU8('{"order": 3}') }));
    expect(!broken.ok && describeImportError(broken.error)).toMatch(/key\.order/);
    const garbled = importTrial(zipSync({ ...files, 'key.json': strToU8('{') }));
    expect(!garbled.ok && describeImportError(garbled.error)).toMatch(/key\.json is not JSON/);
  });
});

it('findings go along where they are given, and the trial comes back the same', () => {
  const trial = trialOf(
    plan({ treatments: ['Water', 'A'] }),
    harvest({ Water: [50, 52, 51], A: [60, 61, 63] }),
  );
  const found = findingRows(trialFindings(trial));
  const zip = exportTrial(trial, undefined, found);
  const file = JSON.parse(strFromU8(unzipSync(zip)['findings.json']!)) as {
    trial: string;
    findings: object[];
  };
  expect(file.trial).toBe(trial.plan.question);
  expect(file.findings[0]).toMatchObject({ trait: 'Cut weight', round: null, crop: null, method: 'linear' });
  expect(importTrial(zip)).toEqual(importTrial(exportTrial(trial)));
});
