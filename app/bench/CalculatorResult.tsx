import Button from '@mui/material/Button';
import { mixingConflicts, mixingSteps } from '~core/mixing/order';
import type { Recipe, RecipeLine, Tools } from '~core/mixing/recipe';
import { DOSE_ERROR_LIMIT } from '~core/mixing/rounding';
import { inOwnMeasures, spoonsText } from '~core/mixing/spoons';
import { describeStockError, stockSolution } from '~core/mixing/stockSolution';
import { formatSigned } from '~core/quantity/format';
import type { MeasureSystem } from '~core/quantity/units';
import { SolutionLine } from '../rooms/mixing/SolutionLine';
import { Steps } from '../rooms/mixing/Steps';
import { Caution } from '../ui/Caution';
import type { Calculation } from './calculation';

interface Props {
  calculation: Calculation & { recipe: Recipe };
  tools: Tools;
  measures: MeasureSystem;
  /** a better volume, L as written */
  onVolume: (litres: string) => void;
}

const figure = (x: number) => String(Number(x.toPrecision(4)));

/** The calculator’s recipe: what to measure, how far off it is, the cure, what is in it, and the order. */
export function CalculatorResult({ calculation, tools, measures, onVolume }: Props) {
  const { recipe, off, biggerL, parts } = calculation;
  return (
    <section className="sheet stack" aria-label="Recipe">
      <div className="scroll-x">
        <table className="ledger recipe">
          <thead>
            <tr>
              <th>product</th>
              <th className="n">wanted</th>
              <th className="n">measure</th>
              <th className="n">off by</th>
              <th>or</th>
            </tr>
          </thead>
          <tbody>
            {recipe.lines.map((l) => (
              <tr key={l.product.id}>
                <td>
                  <strong>{l.product.name}</strong>
                </td>
                <td className="n">
                  {figure(l.wanted)} <span className="unit">{l.unit}</span>
                </td>
                <td className="n measure">
                  {l.spooned ? (
                    spoonsText(l.measured, measures)
                  ) : (
                    <>
                      {figure(l.measured)} <span className="unit">{l.unit}</span>
                    </>
                  )}
                </td>
                <td
                  className="n"
                  data-testid="dose-error"
                  style={off.includes(l) ? { color: 'var(--ochre-text)', fontWeight: 600 } : undefined}
                >
                  {formatSigned(l.errorPercent, 1)} %
                </td>
                <td className="small quiet">
                  {inOwnMeasures(l.product, l.measured, l.unit, measures)
                    .map((m) => `${Number(m.count.toPrecision(2))} ${m.name}`)
                    .join(', ')}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {off.length > 0 && (
        <div className="note open stack tight" role="status">
          <p>More than {DOSE_ERROR_LIMIT} % off: the steps are too coarse for so little.</p>
          <div className="inline-row">
            {biggerL !== null && (
              <Button variant="outlined" color="secondary" onClick={() => onVolume(figure(biggerL))}>
                Mix {figure(biggerL)} L instead
              </Button>
            )}
          </div>
          {off.map((l) => (
            <StockAdvice key={l.product.id} line={l} tools={tools} />
          ))}
        </div>
      )}
      {recipe.made && recipe.wanted && (
        <SolutionLine made={recipe.made} wanted={recipe.wanted} dosed={recipe.lines.length} />
      )}
      {mixingConflicts(parts).map((c) => (
        <p key={c} role="alert" className="note bad">
          {c}
        </p>
      ))}
      <Steps
        steps={mixingSteps(parts, {
          volume: `${figure(recipe.size)} L`,
          measure: true,
          batch: 'with what it is',
        })}
        storageKey="calculator"
      />
      <Caution>
        Concentrate into water, never concentrates together. Gloves and eye protection with acids, peroxide
        and powders. Labels and safety data sheets come first.
      </Caution>
    </section>
  );
}

/** A stock solution that would cure a line, or why there is none. */
function StockAdvice({ line, tools }: { line: RecipeLine; tools: Tools }) {
  if (line.unit === 'piece' || line.spooned) return null;
  const stock = stockSolution({
    product: line.product,
    unit: line.unit,
    wanted: line.wanted,
    step: line.step,
    liquidStepMl: tools.liquidStepMl ?? 1,
  });
  if (!stock.ok) return <p className="small">{describeStockError(stock.error)}</p>;
  const { amount, unit, volumeL, take } = stock.value;
  return (
    <p className="small">
      Or {unit === 'g' ? 'dissolve' : 'thin'} {amount} {unit} {line.product.name}{' '}
      {unit === 'g' ? 'in' : 'with'} water to {volumeL * 1000} mL as a stock; this batch takes {take.measured}{' '}
      mL of it.
    </p>
  );
}
