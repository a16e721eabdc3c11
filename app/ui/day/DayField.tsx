import TextField from '@mui/material/TextField';
import { type ComponentProps, Suspense, lazy } from 'react';
import type Pickers from './Pickers';

// The calendar is large and few rooms have one: it is loaded with the first field that shows.
const Picker = lazy(() => import('./Pickers'));

type Props = Omit<ComponentProps<typeof Pickers>, 'kind'>;

/** The place of a field until its calendar is there: the same size, what it holds, nothing to press. */
const Waiting = ({ label, value, helperText, fullWidth = true, sx }: Props) => (
  <TextField
    label={label}
    value={value}
    helperText={helperText}
    fullWidth={fullWidth}
    sx={sx}
    disabled
    aria-busy
    slotProps={{ inputLabel: { shrink: true } }}
  />
);

/** A day, typed in the region's order or taken from a calendar; handed on as YYYY-MM-DD, '' or `UNFINISHED`. */
export const DayField = (props: Props) => (
  <Suspense fallback={<Waiting {...props} />}>
    <Picker kind="day" {...props} />
  </Suspense>
);

/** A time of day; handed on as HH:MM, '' or `UNFINISHED`. */
export const TimeField = (props: Props) => (
  <Suspense fallback={<Waiting {...props} />}>
    <Picker kind="time" {...props} />
  </Suspense>
);
