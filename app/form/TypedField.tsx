import InputAdornment from '@mui/material/InputAdornment';
import TextField, { type TextFieldProps } from '@mui/material/TextField';
import type { z } from 'zod';
import { faultOrReadings } from '../ui/Readings';

/** What is wrong with what was typed, by how it is read; empty where nothing is. */
export const faultIn = (of: z.ZodType<unknown, string>, typed: string): string =>
  of.safeParse(typed).error?.issues[0]?.message ?? '';

type Props = Omit<TextFieldProps, 'value' | 'onChange' | 'error'> & {
  /** how it is read */
  of: z.ZodType<unknown, string>;
  value: string;
  onType: (text: string) => void;
  /** one of two readings was pressed; left out: it is as if it were typed */
  onPick?: (text: string) => void;
  /** another message than that of how it is read; empty for none yet */
  fault?: string;
  suffix?: string;
};

/** A figure that something is worked out from while it is typed, outside a form that is kept as a whole. */
export function TypedField({
  of,
  value,
  onType,
  onPick = onType,
  fault = faultIn(of, value),
  suffix,
  helperText,
  ...rest
}: Props) {
  return (
    <TextField
      size="small"
      slotProps={{
        // The unit stands where an empty field would have its label.
        inputLabel: suffix === undefined ? undefined : { shrink: true },
        htmlInput: { inputMode: 'decimal' },
        input:
          suffix === undefined
            ? undefined
            : { endAdornment: <InputAdornment position="end">{suffix}</InputAdornment> },
      }}
      {...rest}
      value={value}
      onChange={(e) => onType(e.target.value)}
      error={fault !== ''}
      helperText={fault === '' ? helperText : faultOrReadings(fault, value, onPick)}
    />
  );
}
