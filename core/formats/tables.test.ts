import { expect, it } from 'vitest';
import { deriveState } from '../log/state';
import { entry, harvest, height, heightTrait, plan, product, unitId, use } from '../testing/trial';
import { readTable } from './csv';
import { trialTables } from './tables';

const p = plan({ replicates: 2, blocked: true });
p.treatments[1]!.products = [use({ solutionLPerUnit: 0.8 })];
p.products = [product(), product({ id: 'bare' as never, name: 'No pack', packs: [] })];
const state = deriveState(p, [
  ...harvest({ Water: [50, 51], A: [60, 61] }),
  entry(height(unitId('A', 0), 5.25), 'h'),
  entry({ kind: 'correction', supersedes: 'h', replacement: height(unitId('A', 0), 5.75), reason: '' }),
  entry({ kind: 'exclusion', unitId: unitId('A', 1), traitId: null, reason: 'spilt' }),
  entry({ kind: 'move', moves: [{ unitId: unitId('A', 1), to: p.units[0]!.position }], reason: 'lamp' }),
]);
const tables = Object.fromEntries(
  trialTables(state).map((t) => {
    const read = readTable(t.csv);
    const rows = read.ok
      ? read.value.rows.map((r) => Object.fromEntries(read.value.columns.map((c, i) => [c, r[i]])))
      : [];
    return [t.name, { ...t, rows }];
  }),
);

it('columns stand in the order of the schema', () => {
  for (const t of trialTables(state)) {
    expect(t.csv.split('\n')[0]).toBe(t.schema.fields.map((f) => f.name).join(','));
    for (const f of t.schema.fields) expect(f.description).toBeTruthy();
  }
});

it('units carry their treatment, block and place, counted from 1', () => {
  expect(tables.units!.rows[1]).toMatchObject({
    code: 'TST-02',
    treatment_id: 'A',
    block: '1',
    area: 'Shelf',
    row: '1',
    column: '2',
  });
});

it('observations carry what stands, gross and tare, corrections and exclusions', () => {
  const rows = tables.observations!.rows;
  expect(rows.find((r) => r.unit_id === 'Water-0')).toMatchObject({
    unit: 'TST-01',
    treatment: 'Water',
    trait: 'Cut weight',
    round: 'Harvest',
    day: '10',
    value: '50',
    gross_g: '60',
    tare_g: '10',
    corrected: '0',
    excluded: '',
  });
  expect(rows.find((r) => r.trait_id === 'height')).toMatchObject({
    value: '5.75',
    corrected: '1',
    gross_g: '',
  });
  expect(rows.find((r) => r.unit_id === 'A-1')).toMatchObject({ excluded: 'spilt' });
});

it('doses, packs and events are there', () => {
  expect(tables.doses!.rows).toMatchObject([
    {
      treatment: 'A',
      product: 'Prova',
      treatment_id: 'A',
      amount: '10',
      unit: 'mL',
      solution_l: '0.8',
      times: '1',
    },
  ]);
  expect(tables.products!.rows.map((r) => [r.name, r.price_minor])).toEqual([
    ['Prova', '1000'],
    ['No pack', ''],
  ]);
  expect(tables.exclusions!.rows).toMatchObject([{ unit: 'TST-04', reason: 'spilt' }]);
  expect(tables.moves!.rows).toMatchObject([{ unit: 'TST-04', reason: 'lamp', row: '1', column: '1' }]);
});

it('foreign keys point at rows that are there', () => {
  for (const t of Object.values(tables)) {
    for (const key of t.schema.foreignKeys ?? []) {
      const known = new Set(tables[key.reference.resource]!.rows.map((r) => r[key.reference.fields]));
      for (const row of t.rows) expect(known).toContain(row[key.fields]);
    }
  }
});

it('k of n, crops, columns, settings and readings are there', () => {
  const ratio = heightTrait({ id: 'rooted' as never, kind: 'ratio', outOf: 5 });
  const base = plan({ replicates: 2, blocked: true, traits: [ratio] });
  const rich = {
    ...base,
    cropsWithin: ['sage', 'basil'],
    gradient: { name: 'Light', unit: '', readings: [{ position: base.units[0]!.position, value: 210 }] },
    units: base.units.map((u) => ({ ...u, columnBlock: 2, setting: 'lamp', startSize: 4.5 })),
  };
  const said = entry({
    kind: 'measurement',
    unitId: base.units[0]!.id,
    traitId: ratio.id,
    roundId: null,
    sample: 2,
    value: 3,
    notYet: true,
  });
  const byName = Object.fromEntries(
    trialTables(deriveState(rich, [said])).map((t) => [t.name, readTable(t.csv)]),
  );
  const rowOf = (name: string) => {
    const t = byName[name]!;
    if (!t.ok) throw new Error(t.error.tag);
    return Object.fromEntries(t.value.columns.map((c, i) => [c, t.value.rows[0]![i]]));
  };
  expect(rowOf('units')).toMatchObject({
    column_block: '2',
    setting: 'lamp',
    start_size: '4.5',
    gradient: '210',
  });
  expect(rowOf('observations')).toMatchObject({ value: '3', out_of: '5', crop: 'basil', not_yet: 'true' });
});

it('mixes have a row a product, water one without; feedings a row a unit; kinds without a line no table', () => {
  const reading = { subject: 'bottle', unitId: null, treatmentId: 'A', instrument: 'typed' };
  const log = [
    entry({
      kind: 'mix',
      treatmentId: 'A',
      batch: 'b',
      volumeL: 2,
      day: 4,
      amounts: [
        { productId: 'feed', amount: 3, unit: 'g', wanted: 2.6 },
        { productId: 'bare', amount: 20, unit: 'mL', fromStock: 'S1' },
      ],
    }),
    entry({ kind: 'mix', treatmentId: 'Water', batch: 'w', volumeL: 2, amounts: [] }),
    entry({ kind: 'feed', unitIds: [unitId('A', 0), unitId('A', 1)], batch: 'b', volumeLPerUnit: 0.5 }),
    entry({ kind: 'reading', quantity: 'ph', value: 6.1, ...reading }),
    entry({ kind: 'reading', quantity: 'tare', value: 12, ...reading }),
  ];
  const rows = Object.fromEntries(
    trialTables(deriveState(p, log)).map((t) => {
      const read = readTable(t.csv);
      return [t.name, read.ok ? read.value.rows : []];
    }),
  );
  expect(rows.mixes!.map((r) => r.slice(0, 9))).toEqual([
    ['b', 'A', 'Prova', '3', 'g', '2.6', '', '2', '4'],
    ['b', 'A', 'No pack', '20', 'mL', '', 'S1', '2', '4'],
    ['w', 'Water', '', '', '', '', '', '2', ''],
  ]);
  expect(rows.feedings!.map((r) => r.slice(0, 4))).toEqual([
    ['TST-02', 'b', '0.5', 'feed'],
    ['TST-04', 'b', '0.5', 'feed'],
  ]);
  expect(rows.readings!.map((r) => r[3])).toEqual(['ph', 'tare']);
  expect(rows.ph_corrections).toBeUndefined();
});
