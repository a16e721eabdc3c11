import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import useMediaQuery from '@mui/material/useMediaQuery';
import { ToggleRow } from './ToggleRow';

interface Props<V extends string> {
  views: readonly (readonly [V, string])[];
  view: V;
  label: string;
  onView: (view: V) => void;
}

/** Switches between the views of a room: side by side where there is room for all, a list on a phone. */
export function ViewSwitch<V extends string>({ views, view, label, onView }: Props<V>) {
  const narrow = useMediaQuery('(max-width: 37.5em)', { noSsr: true });
  return (
    <div className="view-switch no-print" style={{ marginBottom: '0.9rem' }}>
      {narrow ? (
        <TextField
          select
          fullWidth
          size="small"
          label={label}
          value={view}
          onChange={(e) => onView(e.target.value as V)}
        >
          {views.map(([value, name]) => (
            <MenuItem key={value} value={value}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      ) : (
        <ToggleRow label={label} value={view} options={views} onPick={onView} />
      )}
    </div>
  );
}
