import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import TextField, { type TextFieldProps } from '@mui/material/TextField';
import { type ReactNode, createContext, memo, useContext } from 'react';
import { faultOrReadings } from '../ui/Readings';
import { shortDate } from '../ui/clock';
import { DayField, TimeField } from '../ui/day/DayField';
import { isDay } from '../ui/day/whole';
import { Controller, get, useFormContext, useWatch } from 'react-hook-form';

/** True around forms that can be read but not changed, e.g. after the seal. */
export const LockedForm = createContext(false);

/** What stands in a plan that is sealed: it is read, no greyed box. Where nothing was said nothing stands. */
export function Written({
  label,
  text,
  unit,
  figure,
}: {
  label: ReactNode;
  text: string;
  unit?: string | undefined;
  figure?: boolean | undefined;
}) {
  if (text.trim() === '') return null;
  return (
    <div className="written">
      <span className="small quiet">{label}</span>
      <span className={figure ? 'num' : undefined}>
        {text}
        {unit && <span className="unit"> {unit}</span>}
      </span>
    </div>
  );
}

type FieldProps = Omit<TextFieldProps, 'name' | 'error' | 'defaultValue'> & {
  name: string;
  /** shown behind the figure */
  suffix?: string;
  /** a figure alone: the number keys of a phone */
  numeric?: boolean;
  /** figures with words: “1 tsp/gal” */
  figures?: boolean;
  /** what is sent for what is typed: a bare figure gets its unit */
  bareUnitOf?: (typed: string) => string;
};

/** A text field of the form around it, with the message for its path below. */
export const Field = memo(function Field({
  name,
  suffix,
  numeric,
  figures,
  bareUnitOf,
  helperText,
  slotProps,
  ...rest
}: FieldProps) {
  const { register, formState, setValue } = useFormContext();
  const { message } = (get(formState.errors, name) ?? {}) as { message?: string };
  const { ref, ...registered } = register(name, bareUnitOf ? { setValueAs: bareUnitOf } : {});
  // A value that came from elsewhere (another tab, Undo) lifts the name too; the field itself doesn't hear of it.
  const typed = useWatch({ name }) as unknown;
  const filled = Boolean(typed);
  if (useContext(LockedForm))
    return (
      <Written
        label={rest.label ?? rest['aria-label']}
        text={typeof typed === 'string' || typeof typed === 'number' ? String(typed) : ''}
        unit={suffix}
        figure={numeric || figures}
      />
    );
  return (
    <TextField
      {...rest}
      {...registered}
      onBlur={(e) => {
        void registered.onBlur(e);
        rest.onBlur?.(e);
      }}
      inputRef={ref}
      error={Boolean(message)}
      helperText={
        message === undefined
          ? helperText
          : faultOrReadings(message, typed, (text) =>
              setValue(name, text, { shouldDirty: true, shouldValidate: true }),
            )
      }
      slotProps={{
        // A name inside an empty field would run into its unit, and hide its example.
        inputLabel: filled || suffix || numeric || figures ? { shrink: true } : undefined,
        htmlInput:
          numeric || figures
            ? { inputMode: numeric ? 'decimal' : 'text', style: { fontFamily: 'var(--mono)' } }
            : undefined,
        input: suffix
          ? {
              endAdornment: (
                <span className="unit" style={{ whiteSpace: 'nowrap' }}>
                  {suffix}
                </span>
              ),
            }
          : undefined,
        ...slotProps,
      }}
    />
  );
});

/** A day or a time of day of the form around it. */
export const WhenField = memo(function WhenField({
  name,
  label,
  kind = 'day',
  helperText,
}: {
  name: string;
  label: string;
  kind?: 'day' | 'time';
  helperText?: string;
}) {
  const { control } = useFormContext();
  const written = useWatch({ control, name }) as unknown;
  const One = kind === 'day' ? DayField : TimeField;
  if (useContext(LockedForm)) {
    const text = String(written ?? '');
    return <Written label={label} text={kind === 'day' && isDay(text) ? shortDate(text) : text} />;
  }
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState }) => (
        <One
          label={label}
          name={name}
          value={String(field.value ?? '')}
          onChange={field.onChange}
          onBlur={field.onBlur}
          error={Boolean(fieldState.error)}
          helperText={fieldState.error?.message ?? helperText}
        />
      )}
    />
  );
});

/** A choice from a list. */
export const Choice = memo(function Choice({
  name,
  options,
  ...rest
}: Omit<FieldProps, 'suffix' | 'numeric' | 'figures'> & {
  options: readonly (readonly [value: string, label: string])[];
}) {
  const { control } = useFormContext();
  const chosen = useWatch({ control, name }) as unknown;
  if (useContext(LockedForm))
    return (
      <Written
        label={rest.label ?? rest['aria-label']}
        text={options.find(([value]) => value === String(chosen ?? ''))?.[1] ?? ''}
      />
    );
  return (
    <Controller
      control={control}
      name={name}
      render={({ field: { ref, ...field }, fieldState }) => (
        <TextField
          {...rest}
          {...field}
          onChange={rest.onChange ?? field.onChange}
          value={field.value ?? ''}
          select
          slotProps={
            // An empty value that stands for something is shown in words, not as a gap.
            options.some(([value]) => value === '')
              ? { select: { displayEmpty: true }, inputLabel: { shrink: true } }
              : undefined
          }
          inputRef={ref}
          error={Boolean(fieldState.error)}
          helperText={fieldState.error?.message ?? rest.helperText}
        >
          {options.map(([value, label]) => (
            <MenuItem key={value} value={value}>
              {label}
            </MenuItem>
          ))}
        </TextField>
      )}
    />
  );
});

/** The message that belongs to a whole group of fields. */
export function GroupError({ name }: { name: string }) {
  const { formState } = useFormContext();
  const error = get(formState.errors, name) as { message?: string; root?: { message?: string } } | undefined;
  const message = error?.message ?? error?.root?.message;
  return message ? (
    <p role="alert" className="small" style={{ color: 'var(--porphyry)' }}>
      {message}
    </p>
  ) : null;
}

/** Something that is so or isn't. */
export const Tick = memo(function Tick({ name, label }: { name: string; label: ReactNode }) {
  const { control } = useFormContext();
  const ticked = Boolean(useWatch({ control, name }));
  if (useContext(LockedForm)) return <Written label={label} text={ticked ? 'yes' : 'no'} />;
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <FormControlLabel
          label={label}
          control={
            <Checkbox
              name={name}
              color="secondary"
              size="small"
              checked={Boolean(field.value)}
              onChange={(_, on) => field.onChange(on)}
            />
          }
        />
      )}
    />
  );
});
