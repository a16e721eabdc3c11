import Button from '@mui/material/Button';
import { amountOf } from '~core/mixing/density';
import { DOSE_ERROR_LIMIT } from '~core/mixing/rounding';
import { inOwnMeasures, spoonsText } from '~core/mixing/spoons';
import { formatFigure, formatSigned, formatSignificant } from '~core/quantity/format';
import { Field } from '../../form/fields';
import { type Batch, type BatchLine, ofAll } from '~core/mixing/batch';
import type { Bottle } from '~core/mixing/bottles';
import type { MixingData } from './mixingData';

interface Props {
  batch: Batch;
  data: MixingData;
  bottle: Bottle;
  /** where a product is taken from: a stock solution's name, or null for its pack */
  onStock: (productId: string, stock: string | null) => void;
}

const figure = (x: number) => String(Number(x.toPrecision(4)));

/** What goes in: wanted, measured, how far off, in spoons and caps, what really went in, what is left. */
export function RecipeTable({ batch, data, bottle, onStock }: Props) {
  const { blind, plan } = data;
  return (
    <div className="scroll-x">
      <table className="ledger recipe">
        <thead>
          <tr>
            <th>{blind ? 'jar' : 'product'}</th>
            <th className="n">{bottle.tanks === null ? 'wanted' : `in each ${plan.unitNoun}`}</th>
            <th className="n">measure</th>
            <th className="n">off by</th>
            {!blind && <th>or</th>}
            <th>really, if not so</th>
            {!blind && <th className="n">in the pack after</th>}
          </tr>
        </thead>
        <tbody>
          {batch.lines.map((l, i) => {
            const unit = l.stock ? 'mL' : l.unit === 'piece' ? '' : l.unit;
            const { wanted, measured } = l.stock ? l.stock.take : l;
            return (
              <tr key={`${l.product.id}/${l.use.stage}`}>
                <td>
                  <strong>{l.name}</strong>
                  <div className="small quiet">
                    {l.stock ? `of stock ${l.stock.batch}` : l.use.rateText}
                    {l.use.strengthPercent !== 100 &&
                      ` · ${formatSignificant(l.use.strengthPercent, 3)} % of the rate`}
                    {l.use.stage && ` · ${l.use.stage}`}
                  </div>
                  {l.stock ? (
                    <Button size="small" color="secondary" onClick={() => onStock(l.product.id, null)}>
                      From the {blind ? 'jar' : 'pack'} instead
                    </Button>
                  ) : (
                    l.stocks[0] && (
                      <Button
                        size="small"
                        color="secondary"
                        onClick={() => onStock(l.product.id, l.stocks[0]!)}
                      >
                        Take it from stock {l.stocks[0]}
                      </Button>
                    )
                  )}
                </td>
                <td className="n">
                  {figure(wanted)} <span className="unit">{unit}</span>
                </td>
                <td className="n measure">
                  {l.spooned && !l.stock ? (
                    spoonsText(measured, plan.mixing.measures)
                  ) : (
                    <>
                      {figure(measured)} <span className="unit">{unit}</span>
                    </>
                  )}
                </td>
                <td
                  className="n"
                  data-testid="dose-error"
                  style={
                    Math.abs(l.givenError) > DOSE_ERROR_LIMIT
                      ? { color: 'var(--ochre-text)', fontWeight: 600 }
                      : undefined
                  }
                >
                  {formatSigned(l.givenError, 1)} %
                </td>
                {!blind && <td className="small quiet">{l.stock ? '' : spoons(l, plan.mixing.measures)}</td>}
                <td style={{ minWidth: '6.5rem' }}>
                  <Field
                    name={`lines.${i}.actual`}
                    label={`Really, ${unit || 'pieces'}`}
                    placeholder={figure(measured)}
                    numeric
                    size="small"
                    slotProps={{ inputLabel: { shrink: true } }}
                  />
                </td>
                {!blind && <td className="n small in-pack">{leftAfter(l, batch)}</td>}
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function spoons(l: BatchLine, measures: MixingData['plan']['mixing']['measures']): string {
  if (l.spooned) return 'level, not heaped';
  return inOwnMeasures(l.product, l.measured, l.unit, measures)
    .map((m) => {
      const spread = m.spreadPercent === null ? '' : ` (± ${formatFigure(m.spreadPercent, 0)} %)`;
      return `${Number(m.count.toPrecision(2))} ${m.name}${spread}`;
    })
    .join(', ');
}

/** What the pack holds once this is taken; said plainly when it isn't enough. */
function leftAfter(l: BatchLine, batch: Batch) {
  if (l.stock) return 'from the stock';
  if (!l.left) return '–';
  const amountTaken = amountOf(l.product, ofAll(batch, l.given), l.unit, l.left.pack.unit);
  if (!amountTaken.ok) return '–';
  const after = l.left.left - amountTaken.value;
  return after < 0 ? (
    <strong style={{ color: 'var(--porphyry)' }}>not enough</strong>
  ) : (
    <>
      {figure(after)} <span className="unit">{l.left.pack.unit}</span>
    </>
  );
}
