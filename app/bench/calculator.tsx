import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useLoaderData } from 'react-router';
import { usMeasures, gallonSystems, spoonSystems, systemNames } from '~core/quantity/measure';
import { parseVolume } from '~core/quantity/volume';
import { formatSigned } from '~core/quantity/format';
import { mixingConflicts, mixingSteps, contentsOf } from '~core/mixing/order';
import { type Tools, recipeOf } from '~core/mixing/recipe';
import { DOSE_ERROR_LIMIT, smallestBatch } from '~core/mixing/rounding';
import { inOwnMeasures, spoonsText } from '~core/mixing/spoons';
import { stockSolution } from '~core/mixing/stockSolution';
import { SolutionLine } from '../rooms/mixing/SolutionLine';
import { Steps } from '../rooms/mixing/Steps';
import { DryChoice, StepChoice } from '../rooms/mixing/tools';
import '../rooms/mixing/mixing.css';
import { listProducts } from '../store/products';
import { Caution } from '../ui/Caution';
import { RoomHead } from '../ui/RoomHead';
import { CalculatorFields } from './CalculatorFields';
import { type CalculatorRow, emptyRow, exampleRow, readRow } from './calculatorRow';

export async function clientLoader() {
  return { products: await listProducts() };
}

const figure = (x: number) => String(Number(x.toPrecision(4)));

/** Mixing arithmetic without a trial: products, rates and a volume to a recipe, its errors and its order. */
export default function Calculator() {
  const { products } = useLoaderData<typeof clientLoader>();
  const [rows, setRows] = useState<CalculatorRow[]>([exampleRow()]);
  const [volume, setVolume] = useState('1 gal');
  const [measures, setMeasures] = useState(usMeasures);
  const [tools, setTools] = useState<Tools>({ scaleStepG: 1, liquidStepMl: 0.5 });
  const litres = parseVolume(volume, measures);
  const read = rows.map((row) => readRow(row, products, measures, litres.ok ? litres.value : null));
  const set = (i: number, change: Partial<CalculatorRow>) =>
    setRows(rows.map((r, n) => (n === i ? { ...r, ...change } : r)));
  const ready = read.flatMap((r) => (r.dose ? [r.dose] : []));
  const size = litres.ok ? litres.value : null;
  const recipe =
    size !== null && ready.length > 0
      ? recipeOf(
          ready.map((d) => d.use),
          ready.map((d) => d.product),
          size,
          tools,
          null,
        )
      : null;
  const parts = (recipe?.lines ?? []).map((l) => ({
    id: l.product.id,
    name: l.product.name,
    amount: l.spooned ? `${spoonsText(l.measured, measures)}, level,` : `${figure(l.measured)} ${l.unit}`,
    contents: contentsOf(l.product),
  }));
  const off = (recipe?.lines ?? []).filter((l) => Math.abs(l.errorPercent) > DOSE_ERROR_LIMIT);
  const bigger =
    recipe && off.length > 0
      ? smallestBatch(
          recipe.lines.map((l) => ({ perL: l.perBase, step: l.step || null })),
          recipe.size,
        )
      : null;
  return (
    <>
      <RoomHead title="Calculator">
        A dose, a volume and a scale, without a trial: what to weigh, how far off it is, what is in it.
        Nothing is written down.
      </RoomHead>
      <div className="line" style={{ alignItems: 'flex-start', marginBottom: '1rem' }}>
        <TextField
          size="small"
          label="Volume"
          value={volume}
          onChange={(e) => setVolume(e.target.value)}
          error={!litres.ok}
          helperText={litres.ok ? `${figure(litres.value)} L` : litres.error}
          sx={{ width: 170 }}
        />
        <TextField
          select
          size="small"
          label="Spoons are"
          value={measures.spoon}
          onChange={(e) => setMeasures({ ...measures, spoon: e.target.value as typeof measures.spoon })}
          sx={{ width: 120 }}
        >
          {spoonSystems.map((s) => (
            <MenuItem key={s} value={s}>
              {systemNames[s]}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          size="small"
          label="Gallons are"
          value={measures.gallon}
          onChange={(e) => setMeasures({ ...measures, gallon: e.target.value as typeof measures.gallon })}
          sx={{ width: 120 }}
        >
          {gallonSystems.map((s) => (
            <MenuItem key={s} value={s}>
              {systemNames[s]}
            </MenuItem>
          ))}
        </TextField>
        <DryChoice tools={tools} measures={measures} onChange={setTools} />
        <StepChoice
          label="Liquids in steps of"
          unit="mL"
          steps={[0.1, 0.2, 0.5, 1, 2.5, 5, 10]}
          value={tools.liquidStepMl}
          onChange={(liquidStepMl) => setTools({ ...tools, liquidStepMl })}
        />
      </div>
      <div className="stack">
        {rows.map((row, i) => (
          <CalculatorFields
            key={row.key}
            row={row}
            number={i + 1}
            products={products}
            errors={read[i]!.errors}
            onChange={(change) => set(i, change)}
            onRemove={rows.length > 1 ? () => setRows(rows.filter((r) => r !== row)) : null}
          />
        ))}
        <div>
          <Button color="secondary" variant="outlined" onClick={() => setRows([...rows, emptyRow()])}>
            Add a product
          </Button>
        </div>
        {recipe && (
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
                <div className="line">
                  {bigger !== null && (
                    <Button
                      variant="outlined"
                      color="secondary"
                      onClick={() => setVolume(`${figure(bigger)} L`)}
                    >
                      Mix {figure(bigger)} L instead
                    </Button>
                  )}
                </div>
                {off
                  .filter((l) => l.unit === 'g')
                  .map((l) => {
                    const stock = stockSolution({
                      wantedG: l.wanted,
                      scaleStepG: tools.scaleStepG ?? 0.01,
                      liquidStepMl: tools.liquidStepMl ?? 1,
                      solubilityGPerL: l.product.solubilityGPerL,
                    });
                    return (
                      stock.ok && (
                        <p key={l.product.id} className="small">
                          Or dissolve {stock.value.massG} g {l.product.name} in {stock.value.volumeL * 1000}{' '}
                          mL as a stock; this batch takes {stock.value.take.measured} mL of it.
                        </p>
                      )
                    );
                  })}
              </div>
            )}
            {recipe.made && recipe.wanted && <SolutionLine made={recipe.made} wanted={recipe.wanted} />}
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
              Concentrate into water, never concentrates together. Gloves and eye protection with acids,
              peroxide and powders. Labels and safety data sheets come first.
            </Caution>
          </section>
        )}
      </div>
    </>
  );
}
