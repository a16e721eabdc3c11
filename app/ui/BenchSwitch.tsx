import { memo } from 'react';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { benchName, switchBench } from '../store/bench';

/** Demo bench or own bench: two databases that never mix. */
export const BenchSwitch = memo(function BenchSwitch() {
  return (
    <ToggleButtonGroup
      size="small"
      exclusive
      value={benchName()}
      onChange={(_, to: 'demo' | 'own' | null) => to && switchBench(to)}
      aria-label="Which bench"
    >
      <ToggleButton value="demo" sx={{ py: 0.25, px: 1.25, textTransform: 'none' }}>
        Demo
      </ToggleButton>
      <ToggleButton value="own" sx={{ py: 0.25, px: 1.25, textTransform: 'none' }}>
        My bench
      </ToggleButton>
    </ToggleButtonGroup>
  );
});
