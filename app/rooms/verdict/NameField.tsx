import TextField from '@mui/material/TextField';
import { useState } from 'react';

interface Props {
  label: string;
  value: string;
  onKeep: (name: string) => void;
}

/** A name that is kept when the field is left; an empty one stays typed, with a message. */
export function NameField({ label, value, onKeep }: Props) {
  const [typed, setTyped] = useState(value);
  const wrong = typed.trim() === '';
  return (
    <TextField
      size="small"
      label={label}
      value={typed}
      error={wrong}
      helperText={wrong ? 'Name what it is.' : ''}
      sx={{ width: 180 }}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={() => !wrong && typed !== value && onKeep(typed.trim())}
    />
  );
}
