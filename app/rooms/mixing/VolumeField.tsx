import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useFormContext } from 'react-hook-form';
import type { Tools } from '~core/mixing/recipe';
import { type MeasureSystem, systemNames } from '~core/quantity/units';
import { type BucketUnit, bucketUnits } from '~core/quantity/volume';
import { Field } from '../../form/fields';
import { fromMarks, toMarks } from '~core/mixing/bucket';

interface Props {
  tools: Tools;
  measures: MeasureSystem;
  onTools: (tools: Tools) => void;
}

/** How much is mixed, in litres or in the gallons that stand on the bucket; changing the unit keeps the volume. */
export function VolumeField({ tools, measures, onTools }: Props) {
  const { getValues, setValue } = useFormContext<{ volume: string }>();
  const unit = tools.bucketIn ?? 'L';
  const choose = (next: BucketUnit) => {
    onTools({ ...tools, bucketIn: next });
    const litres = fromMarks(getValues('volume'), { unit, measures });
    if (litres !== null) setValue('volume', toMarks(litres, { unit: next, measures }));
  };
  return (
    <>
      <div style={{ width: '7rem' }}>
        <Field name="volume" label="Volume" numeric size="small" />
      </div>
      <TextField
        select
        size="small"
        label="in"
        value={unit}
        fullWidth={false}
        sx={{ width: '6.5rem' }}
        onChange={(e) => choose(e.target.value as BucketUnit)}
      >
        {bucketUnits.map((u) => (
          <MenuItem key={u} value={u}>
            {u === 'L' ? u : `${systemNames[measures.gallon]} ${u}`}
          </MenuItem>
        ))}
      </TextField>
    </>
  );
}
