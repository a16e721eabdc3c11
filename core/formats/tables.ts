import type { TrialState } from '../log/state';
import { ofKind } from '../log/resolve';
import type { Pack, Product } from '../model/product';
import { positionKey, readingsOf } from '../model/area';
import { type DataTable, table, utc } from './dataTable';
import { mixingTables } from './mixingTables';
import { observationTable } from './observationTable';

/** Every table of a trial, in the order a reader would open them. */
export function trialTables(state: TrialState): DataTable[] {
  const { plan } = state;
  const readings = readingsOf(plan.gradient);
  const areaName = (id: string) => plan.areas.find((a) => a.id === id)?.name ?? '';
  return [
    table(
      'treatments',
      'What was compared',
      [
        { name: 'treatment_id', type: 'string', description: 'key', required: true, value: (t) => t.id },
        { name: 'name', type: 'string', description: 'name', required: true, value: (t) => t.name },
        {
          name: 'role',
          type: 'string',
          description: 'untreated, base, reference or test',
          value: (t) => t.role,
        },
        { name: 'container', type: 'string', description: 'container', value: (t) => t.container },
        { name: 'medium', type: 'string', description: 'medium', value: (t) => t.medium },
        { name: 'light', type: 'string', description: 'light', value: (t) => t.light },
        { name: 'system', type: 'string', description: 'growing system', value: (t) => t.system },
        { name: 'water', type: 'string', description: 'water', value: (t) => t.water },
        {
          name: 'plants_per_unit',
          type: 'number',
          description: 'plants in a unit',
          value: (t) => t.conditions.plantsPerUnit,
        },
        {
          name: 'expected_percent',
          type: 'number',
          description: 'change against the control that was expected, %',
          value: (t) => t.expectedPercent,
        },
      ],
      plan.treatments,
      { primary: 'treatment_id' },
    ),
    table(
      'products',
      'Products and the prices paid',
      [
        {
          name: 'product_id',
          type: 'string',
          description: 'key',
          required: true,
          value: (r) => r.product.id,
        },
        { name: 'name', type: 'string', description: 'name', value: (r) => r.product.name },
        { name: 'maker', type: 'string', description: 'maker', value: (r) => r.product.maker },
        {
          name: 'category',
          type: 'string',
          description: 'kind of product',
          value: (r) => r.product.category,
        },
        {
          name: 'obtained',
          type: 'string',
          description: 'bought, sent free or own product',
          value: (r) => r.product.obtained,
        },
        {
          name: 'pack_size',
          type: 'number',
          description: 'amount in a pack',
          value: (r) => r.pack?.size ?? null,
        },
        {
          name: 'pack_unit',
          type: 'string',
          description: 'unit of pack_size',
          value: (r) => r.pack?.unit ?? null,
        },
        {
          name: 'price_minor',
          type: 'integer',
          description: 'price paid, minor units',
          value: (r) => r.pack?.priceMinor ?? null,
        },
        { name: 'currency', type: 'string', description: 'ISO 4217', value: (r) => r.pack?.currency ?? null },
      ],
      packRows(plan.products),
    ),
    table(
      'doses',
      'Products as each treatment used them',
      [
        {
          name: 'treatment_id',
          type: 'string',
          description: 'treatment',
          required: true,
          value: (r) => r.treatment.id,
        },
        {
          name: 'product_id',
          type: 'string',
          description: 'product',
          required: true,
          value: (r) => r.use.productId,
        },
        {
          name: 'amount',
          type: 'number',
          description: 'dose, per litre of solution where solution_l is given',
          value: (r) => r.use.amount,
        },
        { name: 'unit', type: 'string', description: 'unit of amount', value: (r) => r.use.unit },
        {
          name: 'solution_l',
          type: 'number',
          description: 'litres of solution per unit and time',
          value: (r) => r.use.solutionLPerUnit,
        },
        {
          name: 'times',
          type: 'integer',
          description: 'times per unit in the trial',
          value: (r) => r.use.timesPerUnit,
        },
        {
          name: 'strength_percent',
          type: 'number',
          description: 'strength, per cent of amount',
          value: (r) => r.use.strengthPercent,
        },
        {
          name: 'as_written',
          type: 'string',
          description: 'the dose as it was written',
          value: (r) => r.use.rateText,
        },
        {
          name: 'from_day',
          type: 'integer',
          description: 'first day of the trial',
          value: (r) => r.use.fromDay,
        },
        {
          name: 'every_days',
          type: 'integer',
          description: 'days from one time to the next',
          value: (r) => r.use.everyDays,
        },
        { name: 'stage', type: 'string', description: 'stage in words', value: (r) => r.use.stage },
      ],
      plan.treatments.flatMap((treatment) => treatment.products.map((use) => ({ treatment, use }))),
      { foreign: { treatment_id: ['treatments', 'treatment_id'] } },
    ),
    table(
      'traits',
      'What was measured',
      [
        { name: 'trait_id', type: 'string', description: 'key', required: true, value: (t) => t.id },
        { name: 'name', type: 'string', description: 'name', value: (t) => t.name },
        { name: 'unit', type: 'string', description: 'unit of its values', value: (t) => t.unit },
        {
          name: 'direction',
          type: 'string',
          description: 'higher, lower or band',
          value: (t) => t.direction,
        },
        {
          name: 'primary',
          type: 'boolean',
          description: 'the deciding trait',
          value: (t) => t.id === plan.primaryTraitId,
        },
        {
          name: 'summary',
          type: 'string',
          description: 'last: last round; sum: all picks added',
          value: (t) => t.summary,
        },
      ],
      plan.traits,
      { primary: 'trait_id' },
    ),
    table(
      'units',
      'Experimental units: what got the treatment on its own',
      [
        { name: 'unit_id', type: 'string', description: 'key', required: true, value: (u) => u.id },
        { name: 'code', type: 'string', description: 'code on the label', value: (u) => u.code },
        {
          name: 'treatment_id',
          type: 'string',
          description: 'treatment',
          required: true,
          value: (u) => u.treatmentId,
        },
        {
          name: 'block',
          type: 'integer',
          description: 'block, row of a Latin square or main plot, from 1',
          value: (u) => u.block,
        },
        {
          name: 'column_block',
          type: 'integer',
          description: 'column of a Latin square, from 1',
          value: (u) => u.columnBlock,
        },
        {
          name: 'setting',
          type: 'string',
          description: 'what its main plot was given',
          value: (u) => u.setting,
        },
        { name: 'start_size', type: 'number', description: 'size at the start', value: (u) => u.startSize },
        {
          name: 'gradient',
          type: 'number',
          description: 'reading at its planned place (light, most often)',
          value: (u) => readings.get(positionKey(u.position)) ?? null,
        },
        { name: 'area', type: 'string', description: 'place', value: (u) => areaName(u.position.areaId) },
        {
          name: 'row',
          type: 'integer',
          description: 'planned row, from 1 at the back',
          value: (u) => u.position.row + 1,
        },
        {
          name: 'column',
          type: 'integer',
          description: 'planned column, from 1 at the left',
          value: (u) => u.position.column + 1,
        },
        {
          name: 'died',
          type: 'string',
          description: 'cause of death',
          value: (u) => state.deaths.get(u.id)?.cause ?? null,
        },
      ],
      plan.units,
      { primary: 'unit_id', foreign: { treatment_id: ['treatments', 'treatment_id'] } },
    ),
    observationTable(state),
    ...mixingTables(state),
    table(
      'events',
      'What else happened',
      [
        { name: 'entry_id', type: 'string', description: 'log line', required: true, value: (e) => e.id },
        {
          name: 'kind',
          type: 'string',
          description: 'deviation, death, exclusion, note or move',
          value: (e) => e.kind,
        },
        { name: 'at', type: 'datetime', description: 'when', value: (e) => utc(e.at) },
        { name: 'units', type: 'string', description: 'codes of the units concerned', value: (e) => e.units },
        { name: 'text', type: 'string', description: 'what', value: (e) => e.text },
      ],
      events(state),
      { primary: 'entry_id' },
    ),
  ];
}

/** One row a pack; a product without packs has one row of its own. */
function packRows(products: readonly Product[]): { product: Product; pack: Pack | null }[] {
  return products.flatMap((product) =>
    (product.packs.length > 0 ? product.packs : [null]).map((pack) => ({ product, pack })),
  );
}

function events(state: TrialState) {
  const codes = (ids: readonly string[]) =>
    ids.map((id) => state.plan.units.find((u) => u.id === id)?.code ?? '?').join(' ');
  const line = (e: { id: string; at: string }, kind: string, units: readonly string[], text: string) => ({
    id: e.id,
    at: e.at,
    kind,
    units: codes(units),
    text,
  });
  const { entries } = state;
  return [
    ...ofKind(entries, 'deviation').map((e) => line(e, 'deviation', e.body.unitIds, e.body.text)),
    ...ofKind(entries, 'death').map((e) => line(e, 'death', [e.body.unitId], e.body.cause)),
    ...ofKind(entries, 'exclusion').map((e) => line(e, 'exclusion', [e.body.unitId], e.body.reason)),
    ...ofKind(entries, 'note').map((e) => line(e, 'note', e.body.unitId ? [e.body.unitId] : [], e.body.text)),
    ...ofKind(entries, 'move').map((e) =>
      line(
        e,
        'move',
        e.body.moves.map((m) => m.unitId),
        e.body.reason,
      ),
    ),
  ].sort((a, b) => (a.at < b.at ? -1 : 1));
}
