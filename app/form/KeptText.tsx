import TextField, { type TextFieldProps } from '@mui/material/TextField';
import { useState } from 'react';

interface Props extends Pick<TextFieldProps, 'sx' | 'placeholder'> {
  label: string;
  value: string;
  onKeep: (text: string) => void;
  /** what to say where nothing stands in it; left out: it may be empty */
  empty?: string;
  most?: number;
}

/** Words that are kept when the field is left or Enter is pressed; what another tab changed shows while nothing is typed. */
export function KeptText({ label, value, onKeep, empty, most = 300, ...look }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const wrong = empty !== undefined && typed?.trim() === '';
  const keep = () => {
    if (typed === null || wrong) return;
    setTyped(null);
    if (typed.trim() !== value) onKeep(typed.trim());
  };
  return (
    <TextField
      size="small"
      label={label}
      value={typed ?? value}
      error={wrong}
      helperText={wrong ? empty : ''}
      slotProps={{
        htmlInput: { maxLength: most },
        ...(look.placeholder !== undefined && { inputLabel: { shrink: true } }),
      }}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={keep}
      // Within a form Enter would send that.
      onKeyDown={(e) => e.key === 'Enter' && (e.preventDefault(), keep())}
      {...look}
    />
  );
}
