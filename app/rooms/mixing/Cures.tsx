import Button from '@mui/material/Button';
import { useState } from 'react';
import { FormProvider } from 'react-hook-form';
import type { Tools } from '~core/mixing/recipe';
import { DOSE_ERROR_LIMIT, smallestBatch } from '~core/mixing/rounding';
import { type StockRecipe, describeStockError, stockSolution } from '~core/mixing/stockSolution';
import { formatSigned, listNames } from '~core/quantity/format';
import { volumeText } from '~core/quantity/volume';
import { Field } from '../../form/fields';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { Caution } from '../../ui/Caution';
import type { Batch, BatchLine } from '~core/mixing/batch';
import type { Bottle } from '~core/mixing/bottles';
import type { MixingData } from './mixingData';

interface Props {
  data: MixingData;
  bottle: Bottle;
  batch: Batch;
  tools: Tools;
  onVolume: (litres: number) => void;
}

/** When rounding takes a dose too far off: a bigger batch or a stock solution, each on a button. */
export function Cures({ data, batch, tools, onVolume }: Props) {
  const [stockFor, setStockFor] = useState<string | null>(null);
  // What was typed is what happened: only the recipe's own rounding is to be cured.
  const off = batch.lines.filter((l) => {
    const rounded = l.stock ? l.stock.take : l;
    return Math.abs(rounded.errorPercent) > DOSE_ERROR_LIMIT;
  });
  if (off.length === 0) return null;
  const mostL = data.plan.mixing.vesselL ?? undefined;
  const bigger = smallestBatch(
    batch.lines.filter((l) => !l.stock).map((l) => ({ perL: l.perBase, step: l.step || null })),
    batch.size,
    { mostL },
  );
  const stockable = off.filter((l) => l.unit !== 'piece' && !l.spooned && !l.stock);
  const open = stockable.find((l) => l.product.id === stockFor);
  return (
    <div className="note open stack tight" role="status">
      <p>
        {listNames(off.map((l) => `${l.name} ${formatSigned(l.errorPercent, 1)} %`))}: more than{' '}
        {DOSE_ERROR_LIMIT} % off, because the steps are too coarse for so little.
      </p>
      <div className="inline-row">
        {bigger !== null && bigger > batch.size + 1e-9 ? (
          <Button variant="outlined" color="secondary" onClick={() => onVolume(bigger)}>
            Mix {volumeText(bigger, tools.bucketIn ?? 'L', data.plan.mixing.measures)} instead
          </Button>
        ) : (
          <span className="small quiet">
            No batch{mostL ? ` up to the ${mostL} L of the largest vessel` : ''} cures it.
          </span>
        )}
        {stockable.map((l) => (
          <Button
            key={l.product.id}
            color="secondary"
            onClick={() => setStockFor(stockFor === l.product.id ? null : l.product.id)}
            aria-expanded={stockFor === l.product.id}
          >
            Stock solution of {l.name}
          </Button>
        ))}
      </div>
      {open && <StockRecipeForm key={open.product.id} data={data} line={open} tools={tools} />}
    </div>
  );
}

const boundWords = {
  halfWater:
    'never more than half of it is the product (practice). It keeps less well than the bottle: for days, not months.',
  unknownSolubility:
    'its solubility isn’t known, so no more than 100 g/L (practice). If something stays at the bottom, take twice the water.',
} as const;

/** What a recipe’s strength rests on; a solubility would tell what is in a coded jar. */
function boundText({ bound, amount, volumeL, unit }: StockRecipe, line: BatchLine, blind: boolean): string {
  const strength = `${Math.round(amount / volumeL)} ${unit}/L`;
  if (bound !== 'solubility') return `${strength}: ${boundWords[bound]}`;
  return blind
    ? `${strength}: no more than half of what dissolves (practice).`
    : `${strength}; ${line.product.solubilityGPerL} g/L dissolve, and no more than half of that is used (practice).`;
}

/** The recipe of a stock solution within its bounds; once made, it goes into the log. */
function StockRecipeForm({ data, line, tools }: { data: MixingData; line: BatchLine; tools: Tools }) {
  const recipe = stockSolution({
    product: line.product,
    unit: line.unit === 'g' ? 'g' : 'mL',
    wanted: line.wanted,
    step: line.step,
    liquidStepMl: tools.liquidStepMl ?? 1,
  });
  const made = recipe.ok ? recipe.value : null;
  const { form, busy, onSubmit } = useRecordForm({
    intent: 'stock' as const,
    productId: line.product.id,
    packId: line.pack?.id ?? null,
    batch: data.stockName,
    unit: made?.unit ?? 'g',
    amount: made ? String(made.amount) : '',
    volumeMl: made ? String(made.volumeL * 1000) : '',
  });
  if (!made) return <p className="small">{recipe.ok ? '' : describeStockError(recipe.error)}</p>;
  return (
    <FormProvider {...form}>
      {/* The card around it is a form of its own: neither this button nor Enter here must send that. */}
      <div
        className="stack tight"
        role="group"
        aria-label={`Stock solution of ${line.name}`}
        onKeyDown={(e) => {
          if (e.key !== 'Enter') return;
          e.preventDefault();
          onSubmit(e);
        }}
      >
        <UnsavedGuard busy={busy} />
        <p>
          {made.unit === 'g'
            ? `Dissolve ${made.amount} g ${line.name} in water and make it up to ${made.volumeL * 1000} mL.`
            : `Pour ${made.amount} mL ${line.name} into about half the water and make it up to ${made.volumeL * 1000} mL.`}{' '}
          This batch then takes <strong>{made.take.measured} mL</strong> (
          {formatSigned(made.take.errorPercent, 1)} %); there is enough for {made.batches} such batches.
        </p>
        <p className="small quiet">{boundText(made, line, data.blind)}</p>
        <Caution>
          A stock solution is a concentrate: label it, one product to a bottle, dark and out of children’s
          reach. Never beside drinks.
        </Caution>
        <div className="inline-row" style={{ alignItems: 'flex-start' }}>
          <div style={{ width: '7rem' }}>
            <Field
              name="amount"
              label={made.unit === 'g' ? 'Weighed' : 'Measured'}
              suffix={made.unit}
              numeric
              size="small"
            />
          </div>
          <div style={{ width: '8rem' }}>
            <Field name="volumeMl" label="Made up to" suffix="mL" numeric size="small" />
          </div>
          <div style={{ width: '11rem' }}>
            <Field name="batch" label="Stock is called" size="small" />
          </div>
          <Button variant="outlined" color="secondary" disabled={busy} onClick={(e) => onSubmit(e)}>
            It is made: write it down
          </Button>
        </div>
      </div>
    </FormProvider>
  );
}
