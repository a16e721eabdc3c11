import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { memo, useCallback, useState } from 'react';
import type { Plan, Round } from '~core/model/plan';
import { shortDate, todayDate } from '../bench/clock';
import { DayField, TimeField } from '../ui/day/DayField';
import { type Sitting, dayOfRound, faultOfSitting, usualSitting } from './sitting';

const keyOf = (plan: Pick<Plan, 'id'>, round: Round) =>
  `palazzo-sitting/${plan.id}/${round.id}/${todayDate()}`;

/**
 * When what is written at this sitting happened: asked once, for all traits and units of a round, and kept as long as the tab
 * and the day last.
 */
export function useSitting(plan: Pick<Plan, 'id' | 'startDate'>, round: Round) {
  const key = keyOf(plan, round);
  const read = (): Sitting => {
    const said = sessionStorage.getItem(key);
    return said === null ? usualSitting(plan, round, todayDate()) : (JSON.parse(said) as Sitting);
  };
  const [held, setHeld] = useState(() => ({ key, sitting: read() }));
  if (held.key !== key) setHeld({ key, sitting: read() });
  const say = useCallback(
    (sitting: Sitting) => {
      sessionStorage.setItem(key, JSON.stringify(sitting));
      setHeld({ key, sitting });
    },
    [key],
  );
  return [held.sitting, say] as const;
}

interface Props {
  plan: Pick<Plan, 'startDate'>;
  round: Round;
  sitting: Sitting;
  onSay: (sitting: Sitting) => void;
}

/** The one place where a sitting says when its acts happened. */
export const SittingChoice = memo(function SittingChoice({ plan, round, sitting, onSay }: Props) {
  const today = todayDate();
  const day = dayOfRound(plan, round);
  const fault = faultOfSitting(sitting, today);
  return (
    <div className="stack tight">
      <TextField
        select
        size="small"
        variant="standard"
        fullWidth
        value={sitting.at}
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
          onSay(at === 'other' ? { at, date: day < today ? day : today, time: '12:00' } : { at });
        }}
      >
        {day < today && <MenuItem value="round">on its day, {shortDate(day)}</MenuItem>}
        <MenuItem value="now">now, as it is typed</MenuItem>
        <MenuItem value="other">on another day</MenuItem>
      </TextField>
      {sitting.at === 'other' && (
        <div className="inline-row">
          <DayField
            label="Day"
            value={sitting.date}
            onChange={(date) => onSay({ ...sitting, date })}
            error={fault !== null}
            helperText={fault ?? ''}
            fullWidth={false}
          />
          <TimeField
            label="Time"
            value={sitting.time}
            onChange={(time) => onSay({ ...sitting, time })}
            fullWidth={false}
          />
        </div>
      )}
    </div>
  );
});
