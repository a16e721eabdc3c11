import { CloseIcon } from '../ui/icons';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { Product } from '~core/model/product';
import type { CalculatorRow, RowRead } from './calculatorRow';

interface Props {
  row: CalculatorRow;
  number: number;
  products: readonly Product[];
  read: RowRead;
  onChange: (change: Partial<CalculatorRow>) => void;
  /** null: the only row stays */
  onRemove: (() => void) | null;
}

/** A product of the calculator: from the library, or typed from the label in hand, with its rate. */
export function CalculatorFields({ row, number, products, read, onChange, onRemove }: Props) {
  const { errors, note } = read;
  return (
    <div className="fields" role="group" aria-label={`Product ${number}`}>
      <div className="w3">
        <TextField
          select
          size="small"
          label="Product"
          value={row.productId}
          onChange={(e) => {
            const product = products.find((p) => p.id === e.target.value);
            onChange({ productId: e.target.value, rate: row.rate || (product?.labelRate ?? '') });
          }}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        >
          <MenuItem value="">typed from the label</MenuItem>
          {products.map((p) => (
            <MenuItem key={p.id} value={p.id}>
              {p.name}
            </MenuItem>
          ))}
        </TextField>
      </div>
      {row.productId === '' && (
        <>
          <div className="w3">
            <TextField
              size="small"
              label="N-P-K, then Ca, Mg, S"
              placeholder="12-6-18, 4, 1.5"
              value={row.analysis}
              onChange={(e) => onChange({ analysis: e.target.value })}
              error={Boolean(errors.analysis)}
              helperText={errors.analysis ?? '% by weight, P₂O₅ and K₂O'}
            />
          </div>
          <div className="w2">
            <TextField
              select
              size="small"
              label="Form"
              value={row.form}
              onChange={(e) => onChange({ form: e.target.value as CalculatorRow['form'] })}
            >
              <MenuItem value="powder">dry</MenuItem>
              <MenuItem value="liquid">liquid</MenuItem>
            </TextField>
          </div>
          <div className="w2">
            <TextField
              size="small"
              label="kg in a litre"
              value={row.density}
              onChange={(e) => onChange({ density: e.target.value })}
              error={Boolean(errors.density)}
              helperText={errors.density ?? 'for doses by volume'}
              slotProps={{ htmlInput: { inputMode: 'decimal' } }}
            />
          </div>
        </>
      )}
      <div className="w2">
        <TextField
          size="small"
          label="Rate"
          placeholder="12 g / 5 gal"
          value={row.rate}
          onChange={(e) => onChange({ rate: e.target.value })}
          error={Boolean(errors.rate)}
          helperText={errors.rate ?? note}
        />
      </div>
      {onRemove && (
        <div>
          <IconButton onClick={onRemove} aria-label={`Remove product ${number}`}>
            <CloseIcon fontSize="small" />
          </IconButton>
        </div>
      )}
    </div>
  );
}
