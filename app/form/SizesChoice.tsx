import { Controller, useFormContext, useWatch } from 'react-hook-form';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useContext } from 'react';
import { LockedForm, Written } from './fields';

const sizes = { metric: 'cm, g, L', inches: 'in, ft, oz, gal' } as const;

/** Whether the sizes of a trial are typed and shown in centimetres or inches. */
export function SizesChoice() {
  const { control } = useFormContext<{ inches: boolean }>();
  const inches = useWatch({ control, name: 'inches' });
  if (useContext(LockedForm))
    return <Written label="Sizes are in" text={sizes[inches ? 'inches' : 'metric']} />;
  return (
    <Controller
      control={control}
      name="inches"
      render={({ field: { ref, value, onChange, ...field } }) => (
        <TextField
          {...field}
          select
          label="Sizes are in"
          value={value ? 'inches' : 'metric'}
          onChange={(e) => onChange(e.target.value === 'inches')}
          inputRef={ref}
        >
          {Object.entries(sizes).map(([value, label]) => (
            <MenuItem key={value} value={value}>
              {label}
            </MenuItem>
          ))}
        </TextField>
      )}
    />
  );
}
