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
        ['treatment_id', 'string!', 'key', (t) => t.id],
        ['name', 'string!', 'name', (t) => t.name],
        ['role', 'string', 'untreated, base, reference or test', (t) => t.role],
        ['container', 'string', 'container', (t) => t.container],
        ['medium', 'string', 'medium', (t) => t.medium],
        ['light', 'string', 'light', (t) => t.light],
        ['system', 'string', 'growing system', (t) => t.system],
        ['water', 'string', 'water', (t) => t.water],
        ['plants_per_unit', 'number', 'plants in a unit', (t) => t.conditions.plantsPerUnit],
        [
          'expected_percent',
          'number',
          'change against the control that was expected, %',
          (t) => t.expectedPercent,
        ],
      ],
      plan.treatments,
      { primary: 'treatment_id' },
    ),
    table(
      'products',
      'Products and the prices paid',
      [
        ['product_id', 'string!', 'key', (r) => r.product.id],
        ['name', 'string', 'name', (r) => r.product.name],
        ['maker', 'string', 'maker', (r) => r.product.maker],
        ['category', 'string', 'kind of product', (r) => r.product.category],
        ['obtained', 'string', 'bought, sent free or own product', (r) => r.product.obtained],
        ['pack_size', 'number', 'amount in a pack', (r) => r.pack?.size ?? null],
        ['pack_unit', 'string', 'unit of pack_size', (r) => r.pack?.unit ?? null],
        ['price_minor', 'integer', 'price paid, minor units', (r) => r.pack?.priceMinor ?? null],
        ['currency', 'string', 'ISO 4217', (r) => r.pack?.currency ?? null],
      ],
      packRows(plan.products),
    ),
    table(
      'doses',
      'Products as each treatment used them',
      [
        ['treatment_id', 'string!', 'treatment', (r) => r.treatment.id],
        ['product_id', 'string!', 'product', (r) => r.use.productId],
        ['amount', 'number', 'dose, per litre of solution where solution_l is given', (r) => r.use.amount],
        ['unit', 'string', 'unit of amount', (r) => r.use.unit],
        ['solution_l', 'number', 'litres of solution per unit and time', (r) => r.use.solutionLPerUnit],
        ['times', 'integer', 'times per unit in the trial', (r) => r.use.timesPerUnit],
        ['strength_percent', 'number', 'strength, per cent of amount', (r) => r.use.strengthPercent],
        ['as_written', 'string', 'the dose as it was written', (r) => r.use.rateText],
        ['from_day', 'integer', 'first day of the trial', (r) => r.use.fromDay],
        ['every_days', 'integer', 'days from one time to the next', (r) => r.use.everyDays],
        ['stage', 'string', 'stage in words', (r) => r.use.stage],
      ],
      plan.treatments.flatMap((treatment) => treatment.products.map((use) => ({ treatment, use }))),
      { foreign: { treatment_id: ['treatments', 'treatment_id'] } },
    ),
    table(
      'traits',
      'What was measured',
      [
        ['trait_id', 'string!', 'key', (t) => t.id],
        ['name', 'string', 'name', (t) => t.name],
        ['unit', 'string', 'unit of its values', (t) => t.unit],
        ['direction', 'string', 'higher, lower or band', (t) => t.direction],
        ['primary', 'boolean', 'the deciding trait', (t) => t.id === plan.primaryTraitId],
        ['summary', 'string', 'last: last round; sum: all picks added', (t) => t.summary],
      ],
      plan.traits,
      { primary: 'trait_id' },
    ),
    table(
      'units',
      'Experimental units: what got the treatment on its own',
      [
        ['unit_id', 'string!', 'key', (u) => u.id],
        ['code', 'string', 'code on the label', (u) => u.code],
        ['treatment_id', 'string!', 'treatment', (u) => u.treatmentId],
        ['block', 'integer', 'block, row of a Latin square or main plot, from 1', (u) => u.block],
        ['column_block', 'integer', 'column of a Latin square, from 1', (u) => u.columnBlock],
        ['setting', 'string', 'what its main plot was given', (u) => u.setting],
        ['start_size', 'number', 'size at the start', (u) => u.startSize],
        [
          'gradient',
          'number',
          'reading at its planned place (light, most often)',
          (u) => readings.get(positionKey(u.position)) ?? null,
        ],
        ['area', 'string', 'place', (u) => areaName(u.position.areaId)],
        ['row', 'integer', 'planned row, from 1 at the back', (u) => u.position.row + 1],
        ['column', 'integer', 'planned column, from 1 at the left', (u) => u.position.column + 1],
        ['died', 'string', 'cause of death', (u) => state.deaths.get(u.id)?.cause ?? null],
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
        ['entry_id', 'string!', 'log line', (e) => e.id],
        ['kind', 'string', 'deviation, death, exclusion, note or move', (e) => e.kind],
        ['at', 'datetime', 'when', (e) => utc(e.at)],
        ['units', 'string', 'codes of the units concerned', (e) => e.units],
        ['text', 'string', 'what', (e) => e.text],
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
