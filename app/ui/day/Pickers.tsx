import type { SxProps, Theme } from '@mui/material/styles';
import { AdapterDayjs } from '@mui/x-date-pickers/AdapterDayjs';
import { DatePicker } from '@mui/x-date-pickers/DatePicker';
import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider';
import { TimePicker } from '@mui/x-date-pickers/TimePicker';
import dayjs, { type Dayjs } from 'dayjs';
import english from 'dayjs/locale/en';
import { useId, useState } from 'react';
import { dayFormat, hour12, weekStart } from '../region';
import { UNFINISHED } from './whole';

interface Props {
  kind: 'day' | 'time';
  label: string;
  /** YYYY-MM-DD or HH:MM; '' where nothing is said */
  value: string;
  onChange: (value: string) => void;
  onBlur?: () => void;
  name?: string;
  error?: boolean;
  helperText?: React.ReactNode;
  disabled?: boolean;
  autoFocus?: boolean;
  fullWidth?: boolean;
  sx?: SxProps<Theme>;
}

const ways = {
  day: { stored: 'YYYY-MM-DD', read: (value: string) => dayjs(value) },
  time: { stored: 'HH:mm', read: (value: string) => dayjs(`2026-01-01T${value}`) },
};

/** English words, with the region's week, day and hours. */
function regionLocale(): string {
  const [first, day, time] = [weekStart(), dayFormat(), hour12() ? 'h:mm A' : 'HH:mm'];
  const name = `palazzo-${first}-${day}-${time}`;
  const formats = {
    ...{ L: day, LT: time, LTS: time.replace('mm', 'mm:ss'), LL: 'D MMMM YYYY' },
    ...{ LLL: `D MMMM YYYY ${time}`, LLLL: `dddd, D MMMM YYYY ${time}` },
  };
  dayjs.locale({ ...english, name, weekStart: first, formats }, undefined, true);
  return name;
}

/** A day or a time of the interface library, in the region's order, as plain text for whoever keeps it. */
export default function Pickers({ kind, label, value, onChange, name, error, helperText, ...rest }: Props) {
  const { stored, read } = ways[kind];
  const id = useId();
  const [at, setAt] = useState<{ told: string; day: Dayjs | null }>({
    told: value,
    day: value === '' ? null : read(value),
  });
  // What comes from elsewhere goes before what is being typed here.
  const day = at.told === value ? at.day : value === '' || value === UNFINISHED ? null : read(value);
  const take = (to: Dayjs | null) => {
    // A year of two figures is a year being typed.
    const whole = to !== null && to.isValid() && to.year() >= 1900;
    const told = to === null ? '' : whole ? to.format(stored) : UNFINISHED;
    setAt({ told, day: to });
    if (told !== value) onChange(told);
  };
  const common = {
    label,
    value: day,
    name,
    onChange: take,
    disabled: rest.disabled ?? false,
    autoFocus: rest.autoFocus ?? false,
    slotProps: {
      toolbar: { hidden: true },
      textField: {
        id,
        size: 'small' as const,
        fullWidth: rest.fullWidth ?? true,
        error: error ?? false,
        helperText,
        onBlur: rest.onBlur,
        ...(rest.sx && { sx: rest.sx }),
      },
    },
  };
  return (
    <LocalizationProvider dateAdapter={AdapterDayjs} adapterLocale={regionLocale()}>
      {kind === 'day' ? (
        <DatePicker {...common} format={dayFormat()} />
      ) : (
        <TimePicker {...common} ampm={hour12() ?? false} />
      )}
    </LocalizationProvider>
  );
}
