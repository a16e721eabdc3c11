import { formatMoney } from '~core/quantity/money';
import { costPerLitre } from '~core/mixing/matching';
import type { Batch } from '~core/mixing/batch';
import type { Bottle } from '~core/mixing/bottles';
import type { MixingData } from './mixingData';

/** What the batch costs, as it will be measured. */
export function CostLine({
  data,
  bottle,
  batch,
  size,
}: {
  data: MixingData;
  bottle: Bottle;
  batch: Batch;
  size: number;
}) {
  const { plan } = data;
  const money = costPerLitre(
    {
      doses: batch.lines.map((l) => ({
        product: l.product,
        amount: (l.stock ? l.stock.held : l.given) / size,
        unit: l.unit,
        packId: l.pack?.id ?? null,
      })),
    },
    { water: null, currency: plan.currency, exchange: plan.mixing.exchange },
  );
  if (!money) {
    return <p className="small quiet">A price, a density or a rate of exchange is missing: no cost.</p>;
  }
  const times = (n: number) => formatMoney({ ...money, minor: money.minor * n });
  return (
    <p className="small">
      <span className="quiet">Cost:</span> <span data-testid="cost-per-litre">{formatMoney(money)}</span>{' '}
      {bottle.kind === 'direct' ? `per ${plan.unitNoun}` : 'per litre'} · {times(size)}{' '}
      {bottle.tanks === null ? 'the batch' : `each ${plan.unitNoun}`}
      {bottle.perUnitL !== null && ` · ${times(bottle.perUnitL)} per feed of one ${plan.unitNoun}`}
    </p>
  );
}
