import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useStripInSight } from './useStripInSight';

/** Switches between the views of a room. */
export function ViewSwitch<V extends string>({
  views,
  view,
  label,
  onView,
}: {
  views: readonly (readonly [V, string])[];
  view: V;
  label: string;
  onView: (view: V) => void;
}) {
  const strip = useStripInSight<HTMLDivElement>('[aria-pressed="true"]', view);
  return (
    <div ref={strip} className="scroll-x no-print" style={{ marginBottom: '0.9rem' }}>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={view}
        onChange={(_, to: V | null) => to && onView(to)}
        aria-label={label}
      >
        {views.map(([value, name]) => (
          <ToggleButton
            key={value}
            value={value}
            sx={{ textTransform: 'none', py: 0.4, whiteSpace: 'nowrap' }}
          >
            {name}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </div>
  );
}
