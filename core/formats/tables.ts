import { type EntryKindName, entryKinds } from '../log/kinds';
import type { TrialState } from '../log/state';
import { logWords } from '../log/words';
import type { Pack, Product } from '../model/product';
import { positionKey, readingsOf } from '../model/positions';
import { planIndex } from '../plan/planIndex';
import { type DataTable, filledTable, table } from './dataTable';
import { observationTable } from './observationTable';

/** Every table of a trial, in the order a reader would open them. */
export function trialTables(state: TrialState): DataTable[] {
  const { plan } = state;
  const readings = readingsOf(plan.gradient);
  const of = planIndex(plan);
  const treatmentName = (id: string) => of.treatment(id)?.name ?? null;
  const areaName = (id: string) => of.area(id)?.name ?? '';
  return [
    table(
      'treatments',
      'What was compared',
      [
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
        ['treatment_id', 'string!', 'key', (t) => t.id],
      ],
      plan.treatments,
      { primary: 'treatment_id' },
    ),
    table(
      'products',
      'Products and the prices paid',
      [
        ['name', 'string', 'name', (r) => r.product.name],
        ['maker', 'string', 'maker', (r) => r.product.maker],
        ['category', 'string', 'kind of product', (r) => r.product.category],
        ['obtained', 'string', 'bought, sent free or own product', (r) => r.product.obtained],
        ['pack_size', 'number', 'amount in a pack', (r) => r.pack?.size ?? null],
        ['pack_unit', 'string', 'unit of pack_size', (r) => r.pack?.unit ?? null],
        ['price_minor', 'integer', 'price paid, minor units', (r) => r.pack?.priceMinor ?? null],
        ['currency', 'string', 'ISO 4217', (r) => r.pack?.currency ?? null],
        ['product_id', 'string!', 'key', (r) => r.product.id],
      ],
      packRows(plan.products),
    ),
    table(
      'doses',
      'Products as each treatment used them',
      [
        ['treatment', 'string!', 'treatment', (r) => r.treatment.name],
        ['product', 'string', 'product', (r) => of.product(r.use.productId)?.name ?? null],
        ['amount', 'number', 'dose, per litre of solution where solution_l is given', (r) => r.use.amount],
        ['unit', 'string', 'unit of amount', (r) => r.use.unit],
        ['solution_l', 'number', 'litres of solution per unit and time', (r) => r.use.solutionLPerUnit],
        [
          'way',
          'string',
          'after: in a solution after the other; spray; medium: mixed into it; empty: watered or as it is',
          (r) => r.use.way ?? null,
        ],
        ['times', 'integer', 'times per unit in the trial', (r) => r.use.timesPerUnit],
        ['strength_percent', 'number', 'strength, per cent of amount', (r) => r.use.strengthPercent],
        ['as_written', 'string', 'the dose as it was written', (r) => r.use.rateText],
        ['from_day', 'integer', 'first day of the trial', (r) => r.use.fromDay],
        ['every_days', 'integer', 'days from one time to the next', (r) => r.use.everyDays],
        ['stage', 'string', 'stage in words', (r) => r.use.stage],
        ['treatment_id', 'string!', 'treatment', (r) => r.treatment.id],
        ['product_id', 'string!', 'product', (r) => r.use.productId],
      ],
      plan.treatments.flatMap((treatment) => treatment.products.map((use) => ({ treatment, use }))),
      { foreign: { treatment_id: ['treatments', 'treatment_id'] } },
    ),
    table(
      'traits',
      'What was measured',
      [
        ['name', 'string', 'name', (t) => t.name],
        ['unit', 'string', 'unit of its values', (t) => t.unit],
        ['direction', 'string', 'higher, lower or band', (t) => t.direction],
        ['primary', 'boolean', 'the deciding trait', (t) => t.id === plan.primaryTraitId],
        [
          'summary',
          'string',
          'last: last round; sum: all picks added; area: mean over time; growth: relative growth rate, % a day',
          (t) => t.summary,
        ],
        ['trait_id', 'string!', 'key', (t) => t.id],
      ],
      plan.traits,
      { primary: 'trait_id' },
    ),
    table(
      'units',
      'Experimental units: what got the treatment on its own',
      [
        ['code', 'string', 'code on the label', (u) => u.code],
        ['treatment', 'string', 'treatment', (u) => treatmentName(u.treatmentId)],
        ['block', 'integer', 'block, row of a Latin square or main plot, from 1', (u) => u.block],
        ['column_block', 'integer', 'column of a Latin square, from 1', (u) => u.columnBlock],
        ['setting', 'string', 'what its main plot was given', (u) => u.setting],
        ['start_size', 'number', 'size at the start', (u) => u.startSize],
        [
          'gradient',
          'number',
          'reading at its planned position (light, most often)',
          (u) => readings.get(positionKey(u.position)) ?? null,
        ],
        ['area', 'string', 'place', (u) => areaName(u.position.areaId)],
        ['row', 'integer', 'planned row, from 1 at the back', (u) => u.position.row + 1],
        ['column', 'integer', 'planned column, from 1 at the left', (u) => u.position.column + 1],
        ['died', 'string', 'cause of death', (u) => state.deaths.get(u.id)?.cause ?? null],
        ['unit_id', 'string!', 'key', (u) => u.id],
        ['treatment_id', 'string!', 'treatment', (u) => u.treatmentId],
      ],
      plan.units,
      { primary: 'unit_id', foreign: { treatment_id: ['treatments', 'treatment_id'] } },
    ),
    observationTable(state),
    ...kindTables(state),
  ];
}

/** One row a pack; a product without packs has one row of its own. */
function packRows(products: readonly Product[]): { product: Product; pack: Pack | null }[] {
  return products.flatMap((product) =>
    (product.packs.length > 0 ? product.packs : [null]).map((pack) => ({ product, pack })),
  );
}

/** What the log says, a table for each kind of line that stands in it. */
function kindTables(state: TrialState): DataTable[] {
  const words = logWords(state.plan);
  return Object.entries(entryKinds).flatMap(([name, kind]) => {
    const lines = state.byKind.get(name as EntryKindName) ?? [];
    return lines.length > 0 ? [filledTable(kind.fill(lines, words))] : [];
  });
}
