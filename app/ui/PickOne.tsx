import MenuItem from '@mui/material/MenuItem';
import TextField, { type TextFieldProps } from '@mui/material/TextField';

type Props<V extends string> = Pick<TextFieldProps, 'helperText' | 'fullWidth' | 'sx'> & {
  label: string;
  value: V | '';
  options: readonly (readonly [V, string])[];
  onPick: (value: V) => void;
};

/** One of a few, outside a record’s form: what it is stands on it at once. */
export function PickOne<V extends string>({ label, value, options, onPick, ...rest }: Props<V>) {
  return (
    <TextField
      {...rest}
      select
      size="small"
      label={label}
      value={value}
      onChange={(e) => onPick(e.target.value as V)}
      slotProps={
        // An empty value that stands for something is shown in words, not as a gap.
        options.some(([v]) => v === '')
          ? { select: { displayEmpty: true }, inputLabel: { shrink: true } }
          : undefined
      }
    >
      {options.map(([v, name]) => (
        <MenuItem key={v} value={v}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}
