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
        { name: 'entry_id', type: 'string', description: 'log line', required: true, value: (r) => r.id },
        { name: 'at', type: 'datetime', description: 'when', value: (r) => utc(r.at) },
        {
          name: 'treatment_id',
          type: 'string',
          description: 'treatment',
          required: true,
          value: (r) => r.body.treatmentId,
        },
        { name: 'batch', type: 'string', description: 'name of the batch', value: (r) => r.body.batch },
        {
          name: 'day',
          type: 'integer',
          description: 'day of the programme it was for',
          value: (r) => r.body.day ?? null,
        },
        {
          name: 'volume_l',
          type: 'number',
          description: 'litres; 0 for doses given without water',
          value: (r) => r.body.volumeL,
        },
        {
          name: 'product_id',
          type: 'string',
          description: 'product',
          value: (r) => r.amount?.productId ?? null,
        },
        {
          name: 'amount',
          type: 'number',
          description: 'what was measured out',
          value: (r) => r.amount?.amount ?? null,
        },
        { name: 'unit', type: 'string', description: 'unit of amount', value: (r) => r.amount?.unit ?? null },
        {
          name: 'wanted',
          type: 'number',
          description: 'what the recipe wanted, in unit',
          value: (r) => r.amount?.wanted ?? null,
        },
        {
          name: 'from_stock',
          type: 'string',
          description: 'stock solution it was taken from',
          value: (r) => r.amount?.fromStock ?? null,
        },
      ],
      mixes,
      { foreign: { treatment_id: ['treatments', 'treatment_id'] } },
    ),
    table(
      'readings',
      'Strength, pH and temperature of solutions',
      [
        { name: 'entry_id', type: 'string', description: 'log line', required: true, value: (e) => e.id },
        { name: 'at', type: 'datetime', description: 'when', value: (e) => utc(e.at) },
        { name: 'vessel', type: 'string', description: 'what was read', value: (e) => e.body.subject },
        { name: 'unit', type: 'string', description: 'code of the unit', value: (e) => code(e.body.unitId) },
        { name: 'treatment_id', type: 'string', description: 'treatment', value: (e) => e.body.treatmentId },
        {
          name: 'quantity',
          type: 'string',
          description: 'ec (mS/cm at 25 °C), ph or temperature (°C)',
          value: (e) => e.body.quantity,
        },
        { name: 'value', type: 'number', description: 'the reading', value: (e) => e.body.value },
        { name: 'instrument', type: 'string', description: 'read with', value: (e) => e.body.instrument },
      ],
      readings,
      { primary: 'entry_id' },
    ),
    table(
      'feedings',
      'What units were given: feedings, top-ups, changes and flushes',
      [
        { name: 'entry_id', type: 'string', description: 'log line', required: true, value: (r) => r.id },
        { name: 'at', type: 'datetime', description: 'when', value: (r) => utc(r.at) },
        { name: 'unit', type: 'string', description: 'code of the unit', value: (r) => r.unit },
        {
          name: 'batch',
          type: 'string',
          description: 'batch it came from; empty for plain water',
          value: (r) => r.body.batch,
        },
        { name: 'volume_l', type: 'number', description: 'litres', value: (r) => r.body.volumeLPerUnit },
        {
          name: 'purpose',
          type: 'string',
          description: 'feed, topUp, change or flush',
          value: (r) => r.body.purpose ?? 'feed',
        },
      ],
      ofKind(entries, 'feed').flatMap(({ id, at, body }) =>
        body.unitIds.map((u) => ({ id, at, body, unit: code(u) })),
      ),
    ),
    table(
      'ph_corrections',
      'Acid or alkali given, with the pH before and after',
      [
        { name: 'entry_id', type: 'string', description: 'log line', required: true, value: (e) => e.id },
        { name: 'at', type: 'datetime', description: 'when', value: (e) => utc(e.at) },
        { name: 'treatment_id', type: 'string', description: 'treatment', value: (e) => e.body.treatmentId },
        { name: 'unit', type: 'string', description: 'code of the unit', value: (e) => code(e.body.unitId) },
        { name: 'agent', type: 'string', description: 'what was given', value: (e) => e.body.agent },
        { name: 'amount_ml', type: 'number', description: 'millilitres', value: (e) => e.body.amountMl },
        {
          name: 'volume_l',
          type: 'number',
          description: 'into so many litres',
          value: (e) => e.body.volumeL,
        },
        { name: 'ph_before', type: 'number', description: 'pH before', value: (e) => e.body.phBefore },
        { name: 'ph_after', type: 'number', description: 'pH after', value: (e) => e.body.phAfter },
      ],
      ofKind(entries, 'phDose'),
      { primary: 'entry_id' },
    ),
  ];
}
