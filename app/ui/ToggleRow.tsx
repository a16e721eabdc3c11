import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import type { ReactNode } from 'react';
import { backToPad } from './keys';

interface Props<V extends string | number> {
  label: string;
  value: V | null;
  options: readonly (readonly [V, ReactNode])[];
  onPick: (value: V) => void;
  /** as wide as what it stands in */
  wide?: boolean;
}

/** One of a few, all in sight; the keyboard goes back to the pad. */
export function ToggleRow<V extends string | number>({ label, value, options, onPick, wide }: Props<V>) {
  return (
    <ToggleButtonGroup
      size="small"
      exclusive
      fullWidth={wide ?? false}
      sx={wide ? { mt: 0.8 } : undefined}
      value={value}
      onChange={(_, to: V | null) => {
        if (to !== null) onPick(to);
        backToPad();
      }}
      aria-label={label}
    >
      {options.map(([v, name]) => (
        <ToggleButton key={v} value={v} sx={{ textTransform: 'none', py: 0.4, whiteSpace: 'nowrap' }}>
          {name}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
