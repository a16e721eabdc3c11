import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useLoaderData } from 'react-router';
import { usMeasures, gallonSystems, spoonSystems, systemNames } from '~core/quantity/units';
import type { Tools } from '~core/mixing/recipe';
import { DryChoice, StepChoice } from '../rooms/mixing/tools';
import '../rooms/mixing/mixing.css';
import { listProducts } from '../store/products';
import { RoomHead } from '../ui/RoomHead';
import { CalculatorFields } from './CalculatorFields';
import { CalculatorResult } from './CalculatorResult';
import { calculate } from './calculation';
import { type CalculatorRow, emptyRow, exampleRow } from './calculatorRow';

export async function clientLoader() {
  return { products: await listProducts() };
}

/** Mixing arithmetic without a trial: products, rates and a volume to a recipe, its errors and its order. */
export default function Calculator() {
  const { products } = useLoaderData<typeof clientLoader>();
  const [rows, setRows] = useState<CalculatorRow[]>([exampleRow()]);
  const [volume, setVolume] = useState('1 gal');
  const [measures, setMeasures] = useState(usMeasures);
  const [tools, setTools] = useState<Tools>({ scaleStepG: 1, liquidStepMl: 0.5 });
  const calculation = calculate({ rows, volume, measures, tools, products });
  const { litres, read, recipe } = calculation;
  const set = (i: number, change: Partial<CalculatorRow>) =>
    setRows(rows.map((r, n) => (n === i ? { ...r, ...change } : r)));
  return (
    <>
      <RoomHead title="Calculator">
        A dose, a volume and a scale, without a trial: what to weigh, how far off it is, what is in it.
        Nothing is written down.
      </RoomHead>
      <div className="inline-row" style={{ alignItems: 'flex-start', marginBottom: '1rem' }}>
        <TextField
          size="small"
          label="Volume"
          value={volume}
          onChange={(e) => setVolume(e.target.value)}
          error={!litres.ok}
          helperText={litres.ok ? `${Number(litres.value.toPrecision(4))} L` : litres.error}
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
            read={read[i]!}
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
          <CalculatorResult
            calculation={{ ...calculation, recipe }}
            tools={tools}
            measures={measures}
            onVolume={(l) => setVolume(`${l} L`)}
          />
        )}
      </div>
    </>
  );
}
