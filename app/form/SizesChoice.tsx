import { Controller, useFormContext } from 'react-hook-form';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useContext } from 'react';
import { LockedForm } from './fields';

/** Whether the sizes of a trial are typed and shown in centimetres or inches. */
export function SizesChoice() {
  const { control } = useFormContext<{ inches: boolean }>();
  const locked = useContext(LockedForm);
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
          disabled={locked}
          inputRef={ref}
        >
          <MenuItem value="metric">cm, g, L</MenuItem>
          <MenuItem value="inches">in, ft, oz, gal</MenuItem>
        </TextField>
      )}
    />
  );
}
