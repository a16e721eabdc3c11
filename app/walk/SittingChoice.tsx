import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { memo } from 'react';
import { shortDate, timeNow, todayDate } from '../ui/clock';
import { DayField, TimeField } from '../ui/day/DayField';
import type { Sitting } from './sitting';
import type { SittingInHand } from './useSitting';

/** The one place where a sitting says when its acts happened. */
export const SittingChoice = memo(function SittingChoice({ sitting }: { sitting: SittingInHand }) {
  const today = todayDate();
  const { said, say, planned, fault } = sitting;
  const past = planned !== null && planned < today;
  return (
    <div className="stack tight">
      <TextField
        select
        size="small"
        variant="standard"
        fullWidth
        value={said.at}
        slotProps={{
          select: { SelectDisplayProps: { 'aria-label': 'This happened' } },
          input: {
            startAdornment: (
              <span className="small quiet" style={{ marginRight: 8 }}>
                happened
              </span>
            ),
          },
        }}
        onChange={(e) => {
          const at = e.target.value as Sitting['at'];
          say(
            at === 'other'
              ? { at, ...(past ? { date: planned, time: '12:00' } : { date: today, time: timeNow() }) }
              : { at },
          );
        }}
      >
        {past && <MenuItem value="round">on its day, {shortDate(planned)}, at noon</MenuItem>}
        <MenuItem value="now">now, as it is typed</MenuItem>
        <MenuItem value="other">on another day</MenuItem>
      </TextField>
      {said.at === 'other' && (
        <div className="inline-row">
          <DayField
            label="Day"
            value={said.date}
            onChange={(date) => say({ ...said, date })}
            error={fault !== null}
            helperText={fault ?? ''}
            fullWidth={false}
          />
          <TimeField
            label="Time"
            value={said.time}
            onChange={(time) => say({ ...said, time })}
            fullWidth={false}
          />
        </div>
      )}
    </div>
  );
});
