import { ofKind } from '../log/resolve';
import type { TrialState } from '../log/state';
import { type DataTable, table, utc } from './dataTable';

/** What was mixed, read, given and corrected: one table each, one row a line of the log (or an amount of it). */
export function mixingTables(state: TrialState): DataTable[] {
  const { entries, plan } = state;
  const code = (id: string | null) => plan.units.find((u) => u.id === id)?.code ?? null;
  const mixes = ofKind(entries, 'mix').flatMap(({ id, at, body }) =>
    (body.amounts.length > 0 ? body.amounts : [null]).map((amount) => ({ id, at, body, amount })),
  );
  const readings = ofKind(entries, 'reading').filter((e) =>
    ['ec', 'ph', 'temperature'].includes(e.body.quantity),
  );
  return [
    table(
      'mixes',
      'Batches as they were mixed, a row for each product; plain water has a row without one',
      [
        ['entry_id', 'string!', 'log line', (r) => r.id],
        ['at', 'datetime', 'when', (r) => utc(r.at)],
        ['treatment_id', 'string!', 'treatment', (r) => r.body.treatmentId],
        ['batch', 'string', 'name of the batch', (r) => r.body.batch],
        ['day', 'integer', 'day of the programme it was for', (r) => r.body.day ?? null],
        ['volume_l', 'number', 'litres; 0 for doses given without water', (r) => r.body.volumeL],
        ['product_id', 'string', 'product', (r) => r.amount?.productId ?? null],
        ['amount', 'number', 'what was measured out', (r) => r.amount?.amount ?? null],
        ['unit', 'string', 'unit of amount', (r) => r.amount?.unit ?? null],
        ['wanted', 'number', 'what the recipe wanted, in unit', (r) => r.amount?.wanted ?? null],
        ['from_stock', 'string', 'stock solution it was taken from', (r) => r.amount?.fromStock ?? null],
      ],
      mixes,
      { foreign: { treatment_id: ['treatments', 'treatment_id'] } },
    ),
    table(
      'readings',
      'Strength, pH and temperature of solutions',
      [
        ['entry_id', 'string!', 'log line', (e) => e.id],
        ['at', 'datetime', 'when', (e) => utc(e.at)],
        ['vessel', 'string', 'what was read', (e) => e.body.subject],
        ['unit', 'string', 'code of the unit', (e) => code(e.body.unitId)],
        ['treatment_id', 'string', 'treatment', (e) => e.body.treatmentId],
        ['quantity', 'string', 'ec (mS/cm at 25 °C), ph or temperature (°C)', (e) => e.body.quantity],
        ['value', 'number', 'the reading', (e) => e.body.value],
        ['instrument', 'string', 'read with', (e) => e.body.instrument],
      ],
      readings,
      { primary: 'entry_id' },
    ),
    table(
      'feedings',
      'What units were given: feedings, top-ups, changes and flushes',
      [
        ['entry_id', 'string!', 'log line', (r) => r.id],
        ['at', 'datetime', 'when', (r) => utc(r.at)],
        ['unit', 'string', 'code of the unit', (r) => r.unit],
        ['batch', 'string', 'batch it came from; empty for plain water', (r) => r.body.batch],
        ['volume_l', 'number', 'litres', (r) => r.body.volumeLPerUnit],
        ['purpose', 'string', 'feed, topUp, change or flush', (r) => r.body.purpose ?? 'feed'],
      ],
      ofKind(entries, 'feed').flatMap(({ id, at, body }) =>
        body.unitIds.map((u) => ({ id, at, body, unit: code(u) })),
      ),
    ),
    table(
      'ph_corrections',
      'Acid or alkali given, with the pH before and after',
      [
        ['entry_id', 'string!', 'log line', (e) => e.id],
        ['at', 'datetime', 'when', (e) => utc(e.at)],
        ['treatment_id', 'string', 'treatment', (e) => e.body.treatmentId],
        ['unit', 'string', 'code of the unit', (e) => code(e.body.unitId)],
        ['agent', 'string', 'what was given', (e) => e.body.agent],
        ['amount_ml', 'number', 'millilitres', (e) => e.body.amountMl],
        ['volume_l', 'number', 'into so many litres', (e) => e.body.volumeL],
        ['ph_before', 'number', 'pH before', (e) => e.body.phBefore],
        ['ph_after', 'number', 'pH after', (e) => e.body.phAfter],
      ],
      ofKind(entries, 'phDose'),
      { primary: 'entry_id' },
    ),
  ];
}
