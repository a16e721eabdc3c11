import InputAdornment from '@mui/material/InputAdornment';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { minorDigits, readPrice } from '~core/quantity/money';
import { describeNumberFault, readNumber, readingsOf } from '~core/quantity/number';
import { faultOrReadings } from '../../ui/Readings';

interface Props {
  label: string;
  /** what is kept; null where nothing was typed */
  value: number | null;
  /** kept when the field is left or Enter is pressed */
  onKeep: (value: number | null) => void;
  /** ISO 4217 where it is money, kept in minor units */
  currency?: string;
  suffix?: string;
  whole?: boolean;
  least?: number;
  width?: number;
}

/** A figure or a sum that is kept when the field is left; what isn't one stays typed, with a message. */
export function MoneyField({
  label,
  value,
  onKeep,
  currency,
  suffix,
  whole = false,
  least = 0,
  width = 150,
}: Props) {
  const scale = currency === undefined ? 1 : 10 ** minorDigits(currency);
  const shown = value === null ? '' : String(Number((value / scale).toFixed(6)));
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState('');
  const keep = (entered = typed) => {
    setTyped(entered);
    if (entered === null) return;
    const text = entered.trim();
    const read = text === '' ? null : currency === undefined ? readNumber(text) : readPrice(text, currency);
    const figure = read?.ok ? read.value : null;
    const least0 = whole ? `A whole number, ${least} or more.` : `A figure, ${least} or more.`;
    const wrong =
      read === null
        ? ''
        : figure === null
          ? readingsOf(text)
            ? describeNumberFault(read.ok ? { tag: 'noNumber', text } : read.error)
            : least0
          : figure < least || (whole && !Number.isInteger(figure))
            ? least0
            : '';
    setFault(wrong);
    if (wrong !== '') return;
    setTyped(null);
    const minor = figure === null ? null : Number((figure * scale).toFixed(6));
    if (minor !== value) onKeep(minor);
  };
  return (
    <TextField
      size="small"
      label={label}
      value={typed ?? shown}
      error={fault !== ''}
      helperText={fault !== '' && faultOrReadings(fault, typed, keep)}
      sx={{ width }}
      slotProps={{
        htmlInput: { inputMode: 'decimal' },
        // The currency stands where an empty field would have its label.
        inputLabel: { shrink: true },
        input: { endAdornment: <InputAdornment position="end">{currency ?? suffix ?? ''}</InputAdornment> },
      }}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={() => keep()}
      onKeyDown={(e) => e.key === 'Enter' && keep()}
    />
  );
}
